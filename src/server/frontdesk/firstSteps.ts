/** What a newcomer does first: each step is done when it is truly done, wherever that happened. */
import { eq, sql } from "drizzle-orm";
import { command, none, query } from "../command";
import { persons } from "../database/schema";

/** After that nobody is a newcomer any more. */
const NEW_MS = 60 * 86_400_000;
const ENOUGH_ENTRIES = 5;
const ENOUGH_PEOPLE = 3;

export type StepName =
  | "lanyard"
  | "sign-in"
  | "second-way"
  | "own-login"
  | "vault"
  | "entries"
  | "people"
  | "group"
  | "grant"
  | "mail"
  | "backup";

export interface FirstStep {
  step: StepName;
  done: boolean;
}

interface Facts {
  first: number;
  lanyard: number;
  signedIn: number;
  ways: number;
  added: number;
}

interface OfficeFacts {
  vaults: number;
  entries: number;
  people: number;
  groups: number;
  grants: number;
  mailedAt: number | null;
  backedUpAt: number | null;
}

/** Null for whoever has put the list away, has done all of it or has been here for long. */
export const firstSteps = query({
  name: "frontdesk.firstSteps",
  input: none,
  by: ["person"],
  allow: () => undefined,
  run: async ({ tx, me, at, app }) => {
    const [facts] = await tx.all<Facts>(sql`
      select p.invited_by is null as first,
        exists (select 1 from lanyards l where l.person_id = p.id) as lanyard,
        exists (select 1 from sign_ins s where s.person_id = p.id and s.outcome = 'signed-in' and s.how <> 'tested') as "signedIn",
        (p.password_hash is not null) + (select count(*) from passkeys k where k.person_id = p.id)
          + exists (select 1 from code_apps c where c.person_id = p.id and c.confirmed_at is not null)
          + (select count(*) from provider_accounts a where a.person_id = p.id) as ways,
        exists (select 1 from journal j where j.person = p.id and j.act = 'vaults.addEntry' and j.outcome = 'done') as added
      from persons p
      where p.id = ${me.id} and p.steps_dismissed_at is null and p.created_at > ${at - NEW_MS}`);
    if (!facts) return null;
    const steps: FirstStep[] = facts.first === 1 && me.role === "owner" ? await officeSteps() : [];
    // An auditor signs in to no site.
    if (!me.auditor)
      steps.push({ step: "lanyard", done: facts.lanyard === 1 }, { step: "sign-in", done: facts.signedIn === 1 });
    steps.push({ step: "second-way", done: facts.ways > 1 });
    if (!me.guest && !me.auditor) steps.push({ step: "own-login", done: facts.added === 1 });
    return steps.every(({ done }) => done) ? null : { steps, mails: app.configuration.mail !== null };

    /** Of whoever set the organisation up. */
    async function officeSteps(): Promise<FirstStep[]> {
      const [office] = await tx.all<OfficeFacts>(sql`
        select
          (select count(*) from (select 1 from vaults limit 1)) as vaults,
          (select count(*) from (select 1 from entries limit ${ENOUGH_ENTRIES})) as entries,
          (select count(*) from (select 1 from persons limit ${ENOUGH_PEOPLE + 1})) as people,
          (select count(*) from (select 1 from groups limit 1)) as groups,
          exists (select 1 from grants g where g.given_by = ${me.id} and g.valid_until is null
            and g.subject_id <> ${me.id} limit 1) as grants,
          o.mailed_at as "mailedAt", o.backed_up_at as "backedUpAt"
        from organisation o`);
      if (!office) return [];
      return [
        { step: "vault", done: office.vaults > 0 },
        { step: "entries", done: office.entries >= ENOUGH_ENTRIES },
        // Besides oneself.
        { step: "people", done: office.people > ENOUGH_PEOPLE },
        { step: "group", done: office.groups > 0 },
        { step: "grant", done: office.grants === 1 },
        { step: "mail", done: office.mailedAt !== null },
        { step: "backup", done: office.backedUpAt !== null },
      ];
    }
  },
});

export const dismissSteps = command({
  name: "frontdesk.dismissSteps",
  evenFor: ["auditor"],
  input: none,
  by: ["person"],
  allow: () => undefined,
  run: async ({ tx, me, at }) => {
    await tx.update(persons).set({ stepsDismissedAt: at }).where(eq(persons.id, me.id));
    return me.id;
  },
  journal: null,
  tell: ({ result }) => [`person:${result}`],
});
