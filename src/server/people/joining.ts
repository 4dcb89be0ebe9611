/**
 * Joining without an invitation: where the house rules name a mail domain, whoever reads mail at an address there proves
 * it by a code, and becomes a member. Everybody else gets the same answer and no account.
 */
import { randomInt } from "node:crypto";
import { and, eq, gt, sql } from "drizzle-orm";
import { z } from "zod";
import { sayDate } from "../../core/time";
import { loadByRole } from "../access/person";
import { type Context, command, nameSchema } from "../command";
import type { Reader, Transaction } from "../database/client";
import { joinCodes, personStates, persons, providers } from "../database/schema";
import type { Galtry } from "../galtry";
import { uuidv7 } from "../ids";
import type { KeyRing } from "../keys/keyFile";
import { failed } from "../log";
import { letterOf } from "../mail/letter";
import { queueMail } from "../mail/queue";
import { loadHome, loadRules } from "../organisation";
import { linkKnownAccount } from "../provider/accounts";
import { domainOf, holdsDomain } from "../provider/required";
import { Refused } from "../refused";
import { attemptKey, countAttempt, requireFewAttempts, takeAttempt } from "./attempts";
import { standingOf } from "./entering";
import { mailSchema } from "./sessions";
import { makeLink } from "./setUp";
import { joining as t } from "./strings";
import { addNotice } from "./telling";

/** So long a code can be typed. */
export const CODE_MS = 15 * 60_000;
/** The link that a code is exchanged for: its person is at the page already. */
const LINK_MS = 3_600_000;
const DIGITS = 8;
/** Wrong codes for one address until it needs a new one, and mails to it, in a quarter of an hour. */
const MOST_WRONG = 5;
const MOST_MAILS = 3;
const MOST_ADDRESS = 20;
/** Wrong codes of one domain, from wherever they come: with addresses made up by the thousand one would be right some day. */
const MOST_DOMAIN = 60;

const hashOf = (keys: KeyRing, scope: "mail" | "code", what: string) => attemptKey(keys, `join ${scope}`, what);

/** The domain is one of the rules' own, and no provider is the only way in there. */
async function requireOpen({ tx, app, input }: { tx: Reader; app: Galtry; input: { mail: string } }): Promise<void> {
  const { joinDomains } = await loadRules(tx);
  if (!app.configuration.mail || !joinDomains.includes(domainOf(input.mail)))
    throw new Refused("not-allowed", t.notADomain(joinDomains), "mail");
  const required = await tx
    .select({ name: providers.name, domains: providers.domains })
    .from(providers)
    .where(and(eq(providers.enabled, true), eq(providers.required, true)));
  const provider = required.find(({ domains }) => holdsDomain(domains, input.mail));
  if (provider) throw new Refused("not-allowed", t.signInWith(provider.name), "mail");
}

/** Answers the same, and as fast, whether there is such a person: that is looked at afterwards. */
export const askToJoin = command({
  name: "people.askToJoin",
  input: z.strictObject({ mail: mailSchema }),
  by: ["nobody"],
  mayPrepare: requireOpen,
  prepare: ({ input, caller, at, app }) =>
    takeAttempt(
      app,
      [
        { key: attemptKey(app.keys, "join", input.mail), most: MOST_MAILS },
        { key: attemptKey(app.keys, "join at", caller.address), most: MOST_ADDRESS },
      ],
      at,
    ),
  allow: requireOpen,
  run: async ({ input, app }) => {
    setImmediate(
      () =>
        void sendJoinCode
          .execute(app, { mail: input.mail }, { kind: "server" })
          .catch((error) => failed("people.sendJoinCode", error)),
    );
  },
  journal: null,
  tell: () => [],
});

/** A code for somebody new or invited; who is here already is told so, and whoever has left gets nothing. */
export const sendJoinCode = command({
  name: "people.sendJoinCode",
  internal: true,
  input: z.strictObject({ mail: mailSchema }),
  by: ["server"],
  allow: () => undefined,
  run: async ({ tx, input: { mail }, at, app }) => {
    const [known] = await tx.select().from(persons).where(eq(persons.mail, mail));
    const standing = known ? await standingOf(tx, known.id, at) : null;
    if (standing === "suspended" || standing === "leaver") return;
    const home = await loadHome(tx);
    const here = standing === "active";
    const code = here ? "" : await newCode(tx, app.keys, mail, at);
    const until = at + CODE_MS;
    const body = letterOf({
      organisation: home.name,
      paragraphs: here ? [t.youAreHereAlready(home.name)] : [t.someoneWantsToJoin(home.name), t.theCodeIs(code)],
      act: here ? { word: t.signIn, address: new URL("/sign-in", app.configuration.publicUrl).href } : null,
      after: [...(here ? [] : [t.worksUntil(sayDate(until, at, home.zone))]), t.ifItWasNotYou],
    });
    const subject = here ? t.subjectHere(home.name) : t.subject(home.name);
    await queueMail(tx, app.keys, { to: mail, subject, body, until, makerId: "", nodeId: null }, at);
  },
  journal: null,
  tell: () => [],
});

async function newCode(tx: Transaction, keys: KeyRing, mail: string, at: number): Promise<string> {
  const code = String(randomInt(10 ** DIGITS)).padStart(DIGITS, "0");
  const mailHash = hashOf(keys, "mail", mail);
  // The one before stops working.
  await tx.delete(joinCodes).where(eq(joinCodes.mailHash, mailHash));
  await tx.insert(joinCodes).values({
    ...{ id: uuidv7(), mailHash, codeHash: hashOf(keys, "code", `${mail} ${code}`) },
    ...{ wrong: 0, expiresAt: at + CODE_MS },
  });
  return code;
}

const codeSchema = z
  .string()
  .transform((text) => text.replace(/\s/g, ""))
  .pipe(z.string().regex(/^\d{8}$/, t.aCodeHasEightDigits));

const wrongKey = ({ app, input }: { app: Galtry; input: { mail: string } }): string =>
  attemptKey(app.keys, "join wrong", domainOf(input.mail));

/**
 * The code for an account and the link to set up how one signs in.
 * @returns null for a code that is not right: it is counted, and that must outlive the answer
 */
export const joinWithCode = command({
  name: "people.joinWithCode",
  input: z.strictObject({ mail: mailSchema, name: nameSchema, code: codeSchema }),
  by: ["nobody"],
  mayPrepare: requireOpen,
  prepare: ({ caller, at, app }) =>
    takeAttempt(app, [{ key: attemptKey(app.keys, "join code", caller.address), most: MOST_ADDRESS }], at),
  allow: async (context) => {
    await requireOpen(context);
    await requireFewAttempts(context.tx, wrongKey(context), MOST_DOMAIN, context.at);
  },
  run: async (context) => {
    const { tx, input, at, app } = context;
    if (!(await isRight(tx, app.keys, input, at))) {
      await countAttempt(tx, wrongKey(context), at);
      return null;
    }
    const [known] = await tx.select().from(persons).where(eq(persons.mail, input.mail));
    if (known && (await standingOf(tx, known.id, at)) !== "invited") return null;
    const personId = known?.id ?? (await addMember(context));
    const token = await makeLink(tx, "sign-in", personId, at, LINK_MS);
    return { token, personId, name: known?.name ?? input.name, invited: known !== undefined };
  },
  journal: ({ input, result }) =>
    result && {
      person: result.personId,
      details: { domain: domainOf(input.mail), ...(result.invited && { invited: true }) },
      names: { [result.personId]: result.name },
    },
  says: ({ details }) =>
    details.invited
      ? `proved by a code that their invited address at ${details.domain} is theirs`
      : `joined with an email address at ${details.domain}`,
  tell: ({ result }) => (result ? ["administrators"] : []),
});

async function isRight(tx: Transaction, keys: KeyRing, { mail, code }: { mail: string; code: string }, at: number) {
  const mine = eq(joinCodes.mailHash, hashOf(keys, "mail", mail));
  const [open] = await tx
    .select()
    .from(joinCodes)
    .where(and(mine, gt(joinCodes.expiresAt, at)));
  if (!open || open.wrong >= MOST_WRONG) return false;
  if (open.codeHash !== hashOf(keys, "code", `${mail} ${code}`)) {
    await tx
      .update(joinCodes)
      .set({ wrong: sql`${joinCodes.wrong} + 1` })
      .where(mine);
    return false;
  }
  await tx.delete(joinCodes).where(mine);
  return true;
}

type Joining = Pick<
  Context<{ mail: string; name: string }, Transaction, "nobody">,
  "tx" | "input" | "at" | "commandId"
>;

/** A member without anything; administrators are told. */
async function addMember({ tx, input: { mail, name }, at, commandId }: Joining): Promise<string> {
  const personId = uuidv7();
  await tx.insert(persons).values({ id: personId, mail, name, createdAt: at });
  await tx
    .insert(personStates)
    .values({ id: uuidv7(), personId, role: "member", standing: "invited", validFrom: at, commandId });
  await linkKnownAccount(tx, personId, mail, at);
  for (const administrator of await loadByRole(tx, ["owner", "administrator"], at))
    if (administrator.standing === "active")
      await addNotice(tx, { to: administrator.id, at, sort: "watch", text: t.hasJoined(name, mail) });
  return personId;
}
