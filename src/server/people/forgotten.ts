/** A forgotten sign-in password, by mail where the house rules allow it. Whoever asks learns nothing of whom there is. */
import { eq } from "drizzle-orm";
import { z } from "zod";
import { sayDate } from "../../core/time";
import { command } from "../command";
import type { Reader } from "../database/client";
import { links, persons } from "../database/schema";
import type { Galtry } from "../galtry";
import { failed } from "../log";
import { letterOf } from "../mail/letter";
import { queueMail } from "../mail/queue";
import { loadHome, loadRules } from "../organisation";
import { requiredProvider } from "../provider/required";
import { Refused } from "../refused";
import { attemptKey, takeAttempt } from "./attempts";
import { standingOf } from "./entering";
import { newPassword } from "./leaked";
import { signInPasswordSchema } from "./password";
import { endAll, mailSchema } from "./sessions";
import { makeLink, requireLink } from "./setUp";
import { forgotten as t } from "./strings";
import { addNotice } from "./telling";

/** So long the link of a forgotten password works. */
const RESET_MS = 3_600_000;
const MOST_ACCOUNT = 3;
const MOST_ADDRESS = 20;

/** Answers the same, and as fast, for every address: whether there is such a person is looked at afterwards. */
export const forgotPassword = command({
  name: "people.forgotPassword",
  input: z.strictObject({ mail: mailSchema }),
  by: ["nobody"],
  mayPrepare: requireMailAllowed,
  prepare: async ({ input, caller, at, app }) => {
    const keys = [
      { key: attemptKey(app.keys, "forgotten", input.mail), most: MOST_ACCOUNT },
      { key: attemptKey(app.keys, "forgotten at", caller.address), most: MOST_ADDRESS },
    ];
    await takeAttempt(app, keys, at);
  },
  allow: requireMailAllowed,
  run: async ({ input, app }) => {
    setImmediate(
      () =>
        void sendReset
          .execute(app, { mail: input.mail }, { kind: "server" })
          .catch((error) => failed("people.sendReset", error)),
    );
  },
  journal: null,
  tell: () => [],
});

async function requireMailAllowed({ tx, app }: { tx: Reader; app: Galtry }): Promise<void> {
  if (!app.configuration.mail || !(await loadRules(tx)).forgottenByMail)
    throw new Refused("not-allowed", t.askAnAdministrator);
}

/** The link itself, to whoever has this address and a sign-in password. */
export const sendReset = command({
  name: "people.sendReset",
  internal: true,
  input: z.strictObject({ mail: mailSchema }),
  by: ["server"],
  allow: () => undefined,
  run: async ({ tx, input, at, app }) => {
    const [person] = await tx.select().from(persons).where(eq(persons.mail, input.mail));
    if (!person?.passwordHash || (await standingOf(tx, person.id, at)) !== "active") return null;
    const required = await requiredProvider(tx, person.id);
    if (required && required.role !== "owner") return null;
    const token = await makeLink(tx, "reset", person.id, at, RESET_MS);
    const home = await loadHome(tx);
    await queueMail(
      tx,
      app.keys,
      {
        to: person.mail,
        subject: t.subject(home.name),
        body: letterOf({
          organisation: home.name,
          paragraphs: [t.hello(person.name), t.someoneAsked],
          act: { word: t.setANewPassword, address: new URL(`/reset#${token}`, app.configuration.publicUrl).href },
          after: [t.worksOnceUntil(sayDate(at + RESET_MS, at, home.zone)), t.ifItWasNotYou],
        }),
        ...{ until: at + RESET_MS, makerId: "", nodeId: null },
      },
      at,
    );
    return { personId: person.id, name: person.name };
  },
  journal: ({ result }) => result && { person: result.personId, names: { [result.personId]: result.name } },
  says: () => "was emailed a link to set a new sign-in password",
  tell: () => [],
});

/** Sets the password and ends what is open. It lets nobody in: the second step still comes at the next sign-in. */
export const resetPassword = command({
  name: "people.resetPassword",
  input: z.strictObject({ token: z.string().max(100), password: signInPasswordSchema }),
  by: ["nobody", "person"],
  mayPrepare: ({ tx, input, at }) => requireLink(tx, input.token, "reset", at),
  prepare: ({ input, app }): Promise<string> => newPassword(app, input.password),
  allow: ({ tx, input, at }) => requireLink(tx, input.token, "reset", at),
  run: async ({ tx, at, prepared, allowed: link }) => {
    const personId = link.personId ?? "";
    if ((await standingOf(tx, personId, at)) !== "active") throw new Refused("ended", t.yourAccessHasEnded);
    await tx.update(links).set({ usedAt: at }).where(eq(links.id, link.id));
    await endAll(tx, personId, at, personId, "a new sign-in password was set");
    await tx.update(persons).set({ passwordHash: prepared }).where(eq(persons.id, personId));
    await addNotice(tx, { to: personId, at, sort: "security", text: t.yourPasswordWasSet });
    const [person] = await tx.select({ name: persons.name }).from(persons).where(eq(persons.id, personId));
    return { personId, name: person?.name ?? "" };
  },
  journal: ({ result }) => ({ person: result.personId, names: { [result.personId]: result.name } }),
  says: () => "set a new sign-in password by an emailed link",
  tell: ({ result }) => [`person:${result.personId}`],
});
