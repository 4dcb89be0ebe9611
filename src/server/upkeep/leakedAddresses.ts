/**
 * Looks up the addresses of the organisation's own people in the list of leaked accounts: each once a day, slowly. Their
 * owner is told, and the administrators are. Of an address only five digits of its SHA-1 leave.
 */
import { and, eq, isNull, lt, sql } from "drizzle-orm";
import { z } from "zod";
import { ownAddress } from "../../core/people/ownDomains";
import { loadByRole } from "../access/person";
import { command, idSchema } from "../command";
import { inJson } from "../database/bulk";
import type { Reader } from "../database/client";
import { personStates, persons } from "../database/schema";
import type { Galtry } from "../galtry";
import { loadRules } from "../organisation";
import { addNotice } from "../people/telling";
import { timesLeaked } from "../timesLeaked";
import { leakedAddresses as t } from "./strings";

const DAY = 86_400_000;
const AT_ONCE = 20;
const SERVER = { kind: "server" } as const;
/** So long administrators read of it among what needs attention of the house. */
const READ_FOR_MS = 30 * DAY;

const lookedUp = z.strictObject({ personId: idSchema, times: z.number().int().min(0) });

/** What was found; whoever stands in more lists than before is told, and so are the administrators. */
export const recordAddressLeaks = command({
  name: "upkeep.recordAddressLeaks",
  input: z.strictObject({ rows: z.array(lookedUp).max(100) }),
  by: ["server"],
  lowPriority: true,
  allow: () => undefined,
  run: async ({ tx, input, at }): Promise<string[]> => {
    const told = new Set<string>();
    for (const { personId, times } of input.rows) {
      const [person] = await tx.select().from(persons).where(eq(persons.id, personId));
      if (!person) continue;
      const more = times > person.addressLeaks;
      await tx
        .update(persons)
        .set({
          ...{ addressLeaks: times, addressLookedUpAt: at },
          ...(more && { addressLeakedAt: at }),
          ...(times === 0 && { addressLeakedAt: null }),
        })
        .where(eq(persons.id, personId));
      if (!more) continue;
      await addNotice(tx, { to: personId, at, sort: "security", text: t.yours(person.mail) });
      told.add(personId);
      for (const one of await loadByRole(tx, ["owner", "administrator"], at)) {
        if (one.standing !== "active" || one.id === personId) continue;
        await addNotice(tx, { to: one.id, at, sort: "watch", text: t.anothers(person.name, person.mail) });
        told.add(one.id);
      }
    }
    return [...told];
  },
  journal: null,
  tell: ({ result }) => (result.length === 0 ? [] : ["administrators", ...result.map((id) => `person:${id}` as const)]),
});

/** Domains of the organisation: those that people may join from, and those of its owners. */
async function domainsOf(tx: Reader, at: number): Promise<string[]> {
  const owners = await loadByRole(tx, ["owner"], at);
  const mails =
    owners.length === 0
      ? []
      : await tx
          .select({ mail: persons.mail })
          .from(persons)
          .where(
            inJson(
              persons.id,
              owners.map(({ id }) => id),
            ),
          );
  return [...(await loadRules(tx)).joinDomains, ...mails.map(({ mail }) => mail.slice(mail.lastIndexOf("@") + 1))];
}

/**
 * Looks up some that were not looked up for a day.
 * @returns how many there were
 * @throws where the list does not answer
 */
export async function lookUpAddresses(app: Galtry, list: URL, at = Date.now()): Promise<number> {
  const due = await app.db
    .select({ id: persons.id, mail: persons.mail, standing: personStates.standing, role: personStates.role })
    .from(persons)
    .leftJoin(personStates, and(eq(personStates.personId, persons.id), isNull(personStates.validUntil)))
    .where(lt(persons.addressLookedUpAt, at - DAY))
    .orderBy(persons.addressLookedUpAt)
    .limit(AT_ONCE);
  if (due.length === 0) return 0;
  const domains = await domainsOf(app.db, at);
  const rows: z.output<typeof lookedUp>[] = [];
  for (const { id, mail, standing, role } of due) {
    const own = standing !== "leaver" && role !== "guest" && ownAddress(mail, domains);
    // What is not the organisation's is nobody's to look up.
    rows.push({ personId: id, times: own ? await timesLeaked(list, mail.toLowerCase()) : 0 });
  }
  await recordAddressLeaks.execute(app, { rows }, SERVER, at);
  return due.length;
}

export const addressesDue = async (tx: Pick<Reader, "get">, at: number): Promise<boolean> =>
  (
    await tx.get<{ any: number }>(
      sql`select exists (select 1 from persons where address_looked_up_at < ${at - DAY}) as any`,
    )
  )?.any === 1;

/** Names of those whose address was found lately. */
export async function addressesFound(tx: Reader, at: number): Promise<string[]> {
  const rows = await tx
    .select({ name: persons.name, since: persons.addressLeakedAt })
    .from(persons)
    .where(
      sql`${persons.addressLeakedAt} is not null and ${persons.addressLeakedAt} > ${at - READ_FOR_MS} and ${persons.erasedAt} is null`,
    );
  return rows.map(({ name }) => name).sort();
}
