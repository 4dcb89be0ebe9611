/** Passkeys, one-time codes, recovery codes and the second step: how one gets in, and how nobody else does. */
import { and, eq } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { type Fixture, type Kind, makeFixture, PASSWORD } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { codeAt } from "../src/core/signin/code";
import type { Caller } from "../src/server/caller";
import { journal, notices, passkeys, persons, recoveryCodes } from "../src/server/database/schema";
import { addPerson } from "../src/server/people/adding";
import { attemptKey, attemptsOf } from "../src/server/people/attempts";
import { resetWays, suspendPerson } from "../src/server/people/persons";
import { sessionCaller } from "../src/server/people/sessions";
import { acceptLinkWithPasskey, beginJoinPasskey, changePassword } from "../src/server/people/setUp";
import { signIn } from "../src/server/people/signIn";
import { beginCodeApp, confirmCodeApp, makeRecoveryCodes, removeCodeApp } from "../src/server/people/waysIn/codes";
import {
  addPasskey,
  beginPasskey,
  beginPasskeyProof,
  beginPasskeySignIn,
  proveWithPasskey,
  removePasskey,
  signInWithPasskey,
} from "../src/server/people/waysIn/passkeys";
import { beginSecondPasskey, finishSignIn } from "../src/server/people/waysIn/secondStep";
import { ownWays } from "../src/server/people/waysIn/ways";
import { makeAuthenticator } from "./authenticator";

let app: InProcess;
let f: Fixture;
const db = () => app.galtry;
const MINUTE = 60_000;
const FROM = { address: "192.0.2.7", browser: "Chromium" };

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
});
afterAll(() => app.close());

const code = (promise: Promise<unknown>) =>
  promise.then(
    () => "done",
    (error) => error.code as string,
  );
const own = (kind: Kind, at = Date.now()) => ({ ...f.as(kind), provedAt: at }) as Extract<Caller, { kind: "person" }>;
let address = 0;
/** Somebody at the sign-in page, each time from elsewhere: limits by address are tested by themselves. */
const nobody = (): Extract<Caller, { kind: "nobody" }> => ({
  ...(f.nobody as Extract<Caller, { kind: "nobody" }>),
  address: `198.51.100.${++address}`,
});
const enter = (kind: Kind, at = Date.now()) =>
  signIn.execute(db(), { mail: `${kind}@tarrowick.example`, password: PASSWORD }, nobody(), at);

async function withPasskey(kind: Kind, name = "Phone") {
  const authenticator = makeAuthenticator(app.url);
  const { ceremonyId, options } = await beginPasskey.execute(db(), {}, own(kind));
  const response = authenticator.create(options);
  const { passkeyId } = await addPasskey.execute(db(), { ceremonyId, response, name }, own(kind));
  return { authenticator, passkeyId };
}
async function begin() {
  const { ceremonyId, options } = await beginPasskeySignIn.execute(db(), {}, nobody());
  return { ceremonyId, options };
}

describe("a passkey", () => {
  test("signs its owner in without anything typed, and counts up", async () => {
    const { authenticator } = await withPasskey("edit");
    for (let i = 0; i < 2; i++) {
      const { ceremonyId, options } = await begin();
      const response = authenticator.get(options);
      const answer = await signInWithPasskey.execute(db(), { ceremonyId, response }, nobody());
      if (!answer.signedIn) throw new Error(answer.message);
      expect(await sessionCaller(db().db, answer.token, Date.now(), FROM)).toMatchObject({ personId: f.ids.edit });
    }
    expect((await ownWays.execute(db(), {}, own("edit"))).keys).toMatchObject([
      { name: "Phone", lastUsedAt: expect.any(Number) },
    ]);
  });

  test("an office behind one address signs in as it likes; what is only begun there ends at some point", async () => {
    const { authenticator } = await withPasskey("owner");
    const office = { ...nobody(), address: "203.0.113.9" };
    const begun = async (response: boolean) => {
      const { ceremonyId, options } = await beginPasskeySignIn.execute(db(), {}, office);
      if (response) await signInWithPasskey.execute(db(), { ceremonyId, response: authenticator.get(options) }, office);
    };
    for (let i = 0; i < 310; i++) await begun(true);
    for (let i = 0; i < 300; i++) await begun(false);
    expect(await code(begun(false))).toBe("too-many");
  });

  test("a sign-in that begins in one minute and ends in the next is given back as well", async () => {
    const { authenticator } = await withPasskey("steward");
    const office = { ...nobody(), address: "203.0.113.19" };
    const before = Math.ceil(Date.now() / MINUTE) * MINUTE - 1;
    for (let i = 0; i < 3; i++) {
      const { ceremonyId, options } = await beginPasskeySignIn.execute(db(), {}, office, before);
      const response = authenticator.get(options);
      expect((await signInWithPasskey.execute(db(), { ceremonyId, response }, office, before + 2)).signedIn).toBe(true);
    }
    const key = attemptKey(db().keys, "passkey", office.address);
    expect(await attemptsOf(db().db, key, before + 2)).toBe(0);
  });

  test("what another site, another challenge, nobody or a replay signed is refused", async () => {
    const { authenticator } = await withPasskey("reveal");
    const tried = async (said: Parameters<typeof authenticator.get>[1]) => {
      const { ceremonyId, options } = await begin();
      const response = authenticator.get(options, said);
      return (await signInWithPasskey.execute(db(), { ceremonyId, response }, nobody())).signedIn;
    };
    expect(await tried({ origin: "https://galtry.attacker.example" })).toBe(false);
    expect(await tried({ rpId: "attacker.example" })).toBe(false);
    expect(await tried({ challenge: "AAAA" })).toBe(false);
    expect(await tried({ verified: false })).toBe(false);
    expect(await tried({ userHandle: Buffer.from(f.ids.owner).toString("base64url") })).toBe(false);
    expect(await tried({})).toBe(true);
    const { ceremonyId, options } = await begin();
    const response = authenticator.get(options);
    const use = () => signInWithPasskey.execute(db(), { ceremonyId, response }, nobody());
    expect((await use()).signedIn).toBe(true);
    expect(await code(use())).toBe("ended");
    // A challenge of another one, and one that is too old.
    const other = await begin();
    const stolen = authenticator.get(options);
    expect(
      (await signInWithPasskey.execute(db(), { ceremonyId: other.ceremonyId, response: stolen }, nobody())).signedIn,
    ).toBe(false);
    const old = await begin();
    expect(
      await code(
        signInWithPasskey.execute(
          db(),
          { ceremonyId: old.ceremonyId, response: authenticator.get(old.options) },
          nobody(),
          Date.now() + 6 * MINUTE,
        ),
      ),
    ).toBe("ended");
  });

  test("a copy of it is found by its count: refused, written down, told to its owner", async () => {
    const { authenticator } = await withPasskey("steward", "Security key");
    const once = async (counter: number) => {
      const { ceremonyId, options } = await begin();
      const response = authenticator.get(options, { counter });
      return (await signInWithPasskey.execute(db(), { ceremonyId, response }, nobody())).signedIn;
    };
    expect(await once(40)).toBe(true);
    expect(await once(40)).toBe(false);
    expect(await once(12)).toBe(false);
    expect(await once(41)).toBe(true);
    const told = await db().db.select().from(notices).where(eq(notices.personId, f.ids.steward));
    expect(told.filter(({ text }) => text.includes("there is probably a copy")).length).toBe(2);
    const lines = await db().db.select().from(journal).where(eq(journal.person, f.ids.steward));
    expect(lines.filter((line) => line.details.includes("copied")).length).toBe(2);
  });

  test("is added only by whoever has just shown that it is them, only for themselves, and never twice", async () => {
    const stale = own("use", Date.now() - 6 * MINUTE);
    expect(await code(beginPasskey.execute(db(), {}, stale))).toBe("prove-again");
    const authenticator = makeAuthenticator(app.url);
    const { ceremonyId, options } = await beginPasskey.execute(db(), {}, own("use"));
    const response = authenticator.create(options);
    expect(await code(addPasskey.execute(db(), { ceremonyId, response, name: "x" }, own("owner")))).toBe("not-found");
    const again = await beginPasskey.execute(db(), {}, own("use"));
    const bad = authenticator.create(again.options, { origin: "https://attacker.example" });
    const add = (id: string, made: object) =>
      code(addPasskey.execute(db(), { ceremonyId: id, response: made, name: "Phone" } as never, own("use")));
    expect(await add(again.ceremonyId, bad)).toBe("bad-input");
    const third = await beginPasskey.execute(db(), {}, own("use"));
    expect(await add(third.ceremonyId, authenticator.create(third.options))).toBe("done");
    const fourth = await beginPasskey.execute(db(), {}, own("use"));
    expect(await add(fourth.ceremonyId, authenticator.create(fourth.options))).toBe("conflict");
    const [row] = await db().db.select().from(passkeys).where(eq(passkeys.credentialId, authenticator.id));
    expect(await code(removePasskey.execute(db(), { passkeyId: row!.id }, own("owner")))).toBe("not-found");
    await removePasskey.execute(db(), { passkeyId: row!.id }, own("use"));
  });

  test("proves oneself again; another person's does not", async () => {
    const { authenticator } = await withPasskey("administrator");
    const mine = { ...f.as("administrator") } as Extract<Caller, { kind: "person" }>;
    const prove = async (who: Caller, of: typeof authenticator) => {
      const { ceremonyId, options } = await beginPasskeyProof.execute(db(), {}, who);
      return proveWithPasskey.execute(db(), { ceremonyId, response: of.get(options) }, who);
    };
    expect(await prove(mine, authenticator)).toEqual({ right: true });
    expect(await prove(f.as("owner"), authenticator)).toEqual({ right: false });
  });
});

describe("the second step", () => {
  /** An app for codes that is set up, as its owner's phone has it. */
  async function withCodes(kind: Kind, at: number) {
    const { secret } = await beginCodeApp.execute(db(), {}, own(kind, at), at);
    const settings = { secret, digits: 6, period: 30, algorithm: "SHA1" as const };
    const shown = (when: number) => codeAt(settings, when).code;
    await confirmCodeApp.execute(db(), { code: shown(at) }, own(kind, at), at);
    return shown;
  }
  const stepOf = async (kind: Kind, at: number) => {
    const answer = await enter(kind, at);
    if (answer.signedIn || !("second" in answer) || !answer.second) throw new Error("no second step");
    return answer.second;
  };
  const finish = (token: string, given: string, at: number) =>
    finishSignIn.execute(db(), { token, code: given }, nobody(), at);

  test("comes after the password once codes are set up; each code works once", async () => {
    const start = Date.now();
    const { secret } = await beginCodeApp.execute(db(), {}, own("nothing", start), start);
    // Until a code was given nothing has changed.
    expect(await enter("nothing", start)).toMatchObject({ signedIn: true });
    expect(await code(confirmCodeApp.execute(db(), { code: "000000" }, own("nothing", start), start))).toBe(
      "bad-input",
    );
    const shown = (when: number) => codeAt({ secret, digits: 6, period: 30, algorithm: "SHA1" }, when).code;
    await confirmCodeApp.execute(db(), { code: shown(start) }, own("nothing", start), start);
    const step = await stepOf("nothing", start);
    expect(step).toMatchObject({ code: true, passkey: false, recovery: false });
    // The code that set it up is used up.
    expect((await finish(step.token, shown(start), start)).signedIn).toBe(false);
    const later = start + MINUTE;
    expect(await finish(step.token, shown(later), later)).toMatchObject({ signedIn: true, personId: f.ids.nothing });
    expect(await code(finish(step.token, shown(later + MINUTE), later))).toBe("ended");
    const another = await stepOf("nothing", later);
    expect((await finish(another.token, shown(later), later)).signedIn).toBe(false);
    await removeCodeApp.execute(db(), {}, own("nothing", later), later);
    expect(await enter("nothing", later)).toMatchObject({ signedIn: true });
  });

  test("guesses are stopped: five of a step, all at once too, and ten of a person", async () => {
    const start = Date.now() + 60 * MINUTE;
    const shown = await withCodes("use", start);
    const right = shown(start + MINUTE);
    const wrong = right === "000000" ? "000001" : "000000";
    const step = await stepOf("use", start + MINUTE);
    const tries = await Promise.allSettled(Array.from({ length: 9 }, () => finish(step.token, wrong, start + MINUTE)));
    expect(tries.filter((one) => one.status === "fulfilled")).toHaveLength(5);
    expect(await code(finish(step.token, right, start + MINUTE))).toBe("ended");
    const next = await stepOf("use", start + MINUTE);
    let counted = 0;
    for (let i = 0; i < 5; i++) if ((await code(finish(next.token, wrong, start + MINUTE))) === "done") counted++;
    expect(counted).toBeLessThan(5);
    expect(await code(finish((await stepOf("use", start + MINUTE)).token, right, start + MINUTE))).toBe("too-many");
    // After a while the right one lets in.
    const calm = start + 40 * MINUTE;
    expect((await finish((await stepOf("use", calm)).token, shown(calm), calm)).signedIn).toBe(true);
    await removeCodeApp.execute(db(), {}, own("use", calm), calm);
  });

  test("by a passkey of the person, and of nobody else; a wrong password opens none", async () => {
    const { authenticator, passkeyId } = await withPasskey("guest");
    const at = Date.now();
    const second = await stepOf("guest", at);
    expect(second).toMatchObject({ passkey: true, code: false });
    const begun = await beginSecondPasskey.execute(db(), { token: second.token }, nobody(), at);
    const { authenticator: theirs } = await withPasskey("owner");
    const passkey = { ceremonyId: begun.ceremonyId, response: theirs.get(begun.options) };
    expect((await finishSignIn.execute(db(), { token: second.token, passkey }, nobody(), at)).signedIn).toBe(false);
    const again = await beginSecondPasskey.execute(db(), { token: second.token }, nobody(), at);
    const mine = { ceremonyId: again.ceremonyId, response: authenticator.get(again.options) };
    expect((await finishSignIn.execute(db(), { token: second.token, passkey: mine }, nobody(), at)).signedIn).toBe(
      true,
    );
    const wrong = await signIn.execute(
      db(),
      { mail: "guest@tarrowick.example", password: "not it at all, no" },
      nobody(),
      at,
    );
    expect(wrong).toEqual({ signedIn: false, message: expect.any(String) });
    await removePasskey.execute(db(), { passkeyId }, own("guest"));
  });

  test("a recovery code lets in once, is told, and new ones end the old", async () => {
    const start = Date.now() + 200 * MINUTE;
    const shown = await withCodes("nothing", start);
    const { codes } = await makeRecoveryCodes.execute(db(), {}, own("nothing", start), start);
    expect(new Set(codes).size).toBe(10);
    for (const one of codes) expect(one).toMatch(/^[a-z2-9]{5}-[a-z2-9]{5}$/);
    const [one = "", two = ""] = codes;
    const used = await stepOf("nothing", start);
    expect(used.recovery).toBe(true);
    expect((await finish(used.token, one.toUpperCase().replace("-", " "), start)).signedIn).toBe(true);
    expect((await finish((await stepOf("nothing", start)).token, one, start)).signedIn).toBe(false);
    const told = await db().db.select().from(notices).where(eq(notices.personId, f.ids.nothing));
    expect(
      told.some(({ text }) => text.includes("A recovery code was used to sign in as you; 9 of them are left")),
    ).toBe(true);
    await makeRecoveryCodes.execute(db(), {}, own("nothing", start), start);
    expect((await finish((await stepOf("nothing", start)).token, two, start)).signedIn).toBe(false);
    // Nowhere in the clear.
    const rows = await db().db.select().from(recoveryCodes).where(eq(recoveryCodes.personId, f.ids.nothing));
    for (const row of rows) expect(codes).not.toContain(row.hash);
    expect(shown(start)).toMatch(/^\d{6}$/);
  });

  test("an administrator resets what was lost; the password stays, the person is told", async () => {
    const reset = (as: Kind) => code(resetWays.execute(db(), { personId: f.ids.nothing }, f.as(as)));
    expect(await reset("steward")).toBe("not-allowed");
    expect(await reset("administrator")).toBe("done");
    expect(await reset("administrator")).toBe("conflict");
    expect(await enter("nothing")).toMatchObject({ signedIn: true });
  });
});

describe("joining and changing", () => {
  test("a newcomer joins with a passkey alone; there is no password to steal then, and the last way in stays", async () => {
    const mail = "passkey-only@tarrowick.example";
    const { link, personId } = await addPerson.execute(
      db(),
      { name: "Passkey Only", mail, role: "member" },
      f.as("administrator"),
    );
    const token = new URL(link!).hash.slice(1);
    const authenticator = makeAuthenticator(app.url);
    const { ceremonyId, options } = await beginJoinPasskey.execute(db(), { token }, nobody());
    const input = { token, ceremonyId, response: authenticator.create(options), name: "Laptop" };
    const joined = await acceptLinkWithPasskey.execute(db(), input, nobody());
    expect(joined.personId).toBe(personId);
    expect(await code(acceptLinkWithPasskey.execute(db(), input, nobody()))).toBe("not-found");
    const [person] = await db().db.select().from(persons).where(eq(persons.id, personId));
    expect(person?.passwordHash).toBeNull();
    expect(await signIn.execute(db(), { mail, password: "" }, nobody())).toMatchObject({ signedIn: false });
    const me = (await sessionCaller(db().db, joined.token, Date.now(), FROM))!;
    const [key] = (await ownWays.execute(db(), {}, me)).keys;
    expect(await code(removePasskey.execute(db(), { passkeyId: key!.id }, me))).toBe("conflict");
    // Suspended, the passkey lets nobody in.
    await suspendPerson.execute(db(), { personId, why: "" }, f.as("administrator"));
    const next = await begin();
    const response = authenticator.get(next.options);
    const answer = await signInWithPasskey.execute(db(), { ceremonyId: next.ceremonyId, response }, nobody());
    expect(answer.signedIn).toBe(false);
  });

  test("a password is changed by whoever has just shown that it is them, is long enough, and ends other sessions", async () => {
    const first = await enter("reveal");
    const at = Date.now();
    if (!("second" in first)) throw new Error("no second step");
    expect(await code(changePassword.execute(db(), { password: "too short" }, own("use")))).toBe("bad-input");
    const other = await enter("use");
    if (!other.signedIn) throw new Error("not signed in");
    const stale = own("use", at - 6 * MINUTE);
    expect(await code(changePassword.execute(db(), { password: "another one, long enough" }, stale))).toBe(
      "prove-again",
    );
    await changePassword.execute(db(), { password: "another one, long enough" }, own("use"));
    expect(await sessionCaller(db().db, other.token, Date.now(), FROM)).toBeNull();
    expect(await enter("use")).toMatchObject({ signedIn: false });
    const rows = await db()
      .db.select()
      .from(notices)
      .where(and(eq(notices.personId, f.ids.use)));
    expect(rows.some(({ text }) => text.startsWith("Your sign-in password was changed"))).toBe(true);
  });
});
