/** Signing in, links, sessions and what ends them; guessing is slowed, and nobody learns who is known. */
import { eq } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { type Fixture, type Kind, makeFixture, PASSWORD } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import type { Caller } from "../src/server/caller";
import { journal, lanyards, sessions } from "../src/server/database/schema";
import { journalFailures } from "../src/server/housekeeping";
import { addPerson } from "../src/server/people/adding";
import { endEverything, renewLink } from "../src/server/people/persons";
import {
  endSession,
  ownDevices,
  proveAgain,
  renewSession,
  SESSION_IDLE_MS,
  SESSION_LONGEST_MS,
  sessionCaller,
  signOut,
} from "../src/server/people/sessions";
import { acceptLink, linkFor } from "../src/server/people/setUp";
import { signIn } from "../src/server/people/signIn";

let app: InProcess;
let f: Fixture;
const db = () => app.galtry;
const MINUTE = 60_000;
const DAY = 86_400_000;
const FROM = { address: "192.0.2.7", browser: "Chromium" };

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
});
afterAll(() => app.close());

type Nobody = Fixture["nobody"];
const from = (address: string, knownBrowser: string | null = null): Nobody => ({ ...f.nobody, address, knownBrowser });
const enter = (mail: string, password = PASSWORD, caller: Nobody = f.nobody, at = Date.now()) =>
  signIn.execute(db(), { mail: `${mail}@tarrowick.example`, password }, caller, at);

async function entered(mail: string, at = Date.now(), caller: Nobody = f.nobody) {
  const answer = await enter(mail, PASSWORD, caller, at);
  if (!answer.signedIn) throw new Error("not signed in");
  return answer;
}
const callerOf = (token: string, at = Date.now()) => sessionCaller(db().db, token, at, FROM);
const devices = async (caller: Caller, at = Date.now()) => (await ownDevices.execute(db(), {}, caller, at)).sessions;

describe("signing in", () => {
  test("the right pair opens a session that is theirs; the token stands nowhere", async () => {
    const { token, sessionId } = await entered("use");
    expect(await callerOf(token)).toMatchObject({ personId: f.ids.use, sessionId });
    const [row] = await db().db.select().from(sessions).where(eq(sessions.id, sessionId));
    expect(JSON.stringify(row)).not.toContain(token);
    expect(await callerOf(`${token.slice(0, -1)}${token.endsWith("A") ? "B" : "A"}`)).toBeNull();
  });

  test("capitals and spaces around a mail address do not matter; those in a password do", async () => {
    expect(await enter("  USE".trim(), PASSWORD)).toMatchObject({ signedIn: true });
    expect(await enter("use", PASSWORD.toUpperCase())).toMatchObject({ signedIn: false });
    expect(await enter("use", ` ${PASSWORD}`)).toMatchObject({ signedIn: false });
  });

  test("unknown, suspended, gone and wrong are told alike", async () => {
    const answers = [];
    for (const [mail, password] of [
      ["nobody-of-that-name", PASSWORD],
      ["suspended", PASSWORD],
      ["leaver", PASSWORD],
      ["reveal", "wrong"],
    ] as const)
      answers.push(await enter(mail, password, from("192.0.2.40")));
    expect(new Set(answers.map((one) => JSON.stringify(one))).size).toBe(1);
    expect(answers[0]).toMatchObject({ signedIn: false });
  });

  test("guessing is slowed per account, known or not, and ends after a quarter of an hour", async () => {
    for (const mail of ["edit", "no-such-person"]) {
      for (let i = 0; i < 8; i++) await enter(mail, `guess ${i}`, from(`192.0.2.${50 + i}`));
      await expect(enter(mail, PASSWORD, from("192.0.2.70"))).rejects.toMatchObject({ code: "too-many" });
    }
    // From a browser that was signed in before, the person themselves still gets in.
    const later = Date.now() + 17 * MINUTE;
    const { browserToken } = await entered("edit", later, from("192.0.2.71"));
    for (let i = 0; i < 8; i++) await enter("edit", `guess ${i}`, from(`192.0.2.${80 + i}`), later);
    await expect(enter("edit", PASSWORD, from("192.0.2.90"), later)).rejects.toMatchObject({ code: "too-many" });
    expect(await enter("edit", PASSWORD, from("192.0.2.90", browserToken), later)).toMatchObject({ signedIn: true });
  });

  test("one address is slowed however many accounts it tries", async () => {
    const busy = from("192.0.2.99");
    for (let i = 0; i < 60; i++) await enter(`somebody-${i}`, "guess", busy);
    await expect(enter("reveal", PASSWORD, busy)).rejects.toMatchObject({ code: "too-many" });
    expect(await enter("reveal", PASSWORD, from("192.0.2.100"))).toMatchObject({ signedIn: true });
  });

  test("failures are one journal line a person and minute, without what was typed", async () => {
    await enter("nothing", "canary-typed-wrong", from("192.0.2.110"));
    await enter("nothing", "canary-typed-wrong", from("192.0.2.110"));
    await journalFailures.execute(db(), {}, { kind: "server" }, Date.now() + 2 * MINUTE);
    const lines = await db().db.select().from(journal).where(eq(journal.act, "people.journalFailures"));
    const line = lines.find((one) => JSON.stringify(one).includes(f.ids.nothing))!;
    expect(JSON.parse(line.details)).toMatchObject({ count: 2 });
    expect(JSON.stringify(await db().db.select().from(journal))).not.toContain("canary-typed-wrong");
  });
});

describe("a session", () => {
  test("ends when it is idle for half a day, is kept by use, and is over after thirty days however it is used", async () => {
    const start = Date.now();
    const { token } = await entered("reveal", start);
    expect(await callerOf(token, start + SESSION_IDLE_MS - 1)).not.toBeNull();
    expect(await callerOf(token, start + SESSION_IDLE_MS + 1)).toBeNull();
    const step = SESSION_IDLE_MS - MINUTE;
    for (let at = start + step; at < start + SESSION_LONGEST_MS; at += step) {
      const caller = await callerOf(token, at);
      expect(caller).not.toBeNull();
      await renewSession.execute(db(), {}, caller!, at);
    }
    expect(await callerOf(token, start + SESSION_LONGEST_MS + 1)).toBeNull();
  });

  test("signing out ends this one and no other; the others are seen and ended one by one, by no other colleague", async () => {
    const [one, two, three] = [await entered("guest"), await entered("guest"), await entered("guest")];
    const caller = (await callerOf(one.token))!;
    expect((await devices(caller)).filter((row) => row.current).map(({ id }) => id)).toEqual([one.sessionId]);
    await signOut.execute(db(), {}, (await callerOf(two.token))!);
    expect(await callerOf(two.token)).toBeNull();
    expect(await callerOf(one.token)).not.toBeNull();
    await expect(endSession.execute(db(), { sessionId: three.sessionId }, f.as("steward"))).rejects.toMatchObject({
      code: "not-found",
    });
    await endSession.execute(db(), { sessionId: three.sessionId }, caller);
    expect(await callerOf(three.token)).toBeNull();
    const left = (await devices(caller)).map(({ id }) => id);
    expect([left.includes(one.sessionId), left.includes(two.sessionId), left.includes(three.sessionId)]).toEqual([
      true,
      false,
      false,
    ]);
  });

  test("proves again with the sign-in password; wrong ones are counted and shut it for a while", async () => {
    const start = Date.now();
    const { token } = await entered("steward", start);
    const later = start + 10 * MINUTE;
    const caller = (await callerOf(token, later))!;
    expect(caller.provedAt).toBe(start);
    expect(await proveAgain.execute(db(), { password: "wrong" }, caller, later)).toEqual({ right: false });
    expect((await callerOf(token, later))!.provedAt).toBe(start);
    expect(await proveAgain.execute(db(), { password: PASSWORD }, caller, later)).toEqual({ right: true });
    expect((await callerOf(token, later))!.provedAt).toBe(later);
    for (let i = 0; i < 8; i++) await proveAgain.execute(db(), { password: `guess ${i}` }, caller, later);
    await expect(proveAgain.execute(db(), { password: PASSWORD }, caller, later)).rejects.toMatchObject({
      code: "too-many",
    });
  });

  test("an administrator ends all of somebody's, Lanyards too, never their own by that way", async () => {
    const { token } = await entered("use");
    await expect(endEverything.execute(db(), { personId: f.ids.use }, f.as("steward"))).rejects.toMatchObject({
      code: "not-allowed",
    });
    await endEverything.execute(db(), { personId: f.ids.use, why: "lost telephone" }, f.as("administrator"));
    expect(await callerOf(token)).toBeNull();
    const [lanyard] = await db().db.select().from(lanyards).where(eq(lanyards.personId, f.ids.use));
    expect(lanyard).toMatchObject({ endedAt: expect.any(Number), endedWhy: "lost telephone" });
    await expect(
      endEverything.execute(db(), { personId: f.ids.administrator }, f.as("administrator")),
    ).rejects.toMatchObject({ code: "not-allowed" });
  });
});

describe("a sign-in link", () => {
  let count = 0;
  async function invited() {
    const mail = `new-${count++}@tarrowick.example`;
    const { personId, link } = await addPerson.execute(
      db(),
      { name: "Wenna New", mail, role: "member" },
      f.as("owner"),
    );
    return { personId, mail, token: new URL(link!).hash.slice(1) };
  }
  const look = (token: string, at = Date.now()) => linkFor.execute(db(), { token, purpose: "sign-in" }, f.nobody, at);
  const accept = (token: string, at = Date.now(), password = PASSWORD) =>
    acceptLink.execute(db(), { token, password }, f.nobody, at);

  test("says whom it is for, works once, and not after seven days", async () => {
    const { token, mail } = await invited();
    expect(await look(token)).toEqual({ name: "Wenna New", mail });
    await expect(look(token, Date.now() + 8 * DAY)).rejects.toMatchObject({ code: "not-found" });
    await expect(accept(token, Date.now() + 8 * DAY)).rejects.toMatchObject({ code: "not-found" });
    expect(await accept(token)).toMatchObject({ token: expect.any(String) });
    await expect(accept(token)).rejects.toMatchObject({ code: "not-found" });
    expect((await entered(mail.split("@")[0]!)).signedIn).toBe(true);
  });

  test("pressed twice at once, it makes one sign-in", async () => {
    const { token } = await invited();
    const both = await Promise.allSettled([accept(token), accept(token)]);
    expect(both.filter((one) => one.status === "fulfilled")).toHaveLength(1);
  });

  test("a renewed one ends the one before, and with its use all that was open", async () => {
    const { token, personId, mail } = await invited();
    const { link } = await renewLink.execute(db(), { personId }, f.as("administrator"));
    await expect(look(token)).rejects.toMatchObject({ code: "not-found" });
    await accept(new URL(link!).hash.slice(1));
    const open = await entered(mail.split("@")[0]!);
    const again = await renewLink.execute(db(), { personId }, f.as("administrator"));
    expect(await callerOf(open.token)).toBeNull();
    await accept(new URL(again.link!).hash.slice(1), Date.now(), "another long passphrase");
    expect(await enter(mail.split("@")[0]!, PASSWORD)).toMatchObject({ signedIn: false });
    expect(await enter(mail.split("@")[0]!, "another long passphrase")).toMatchObject({ signedIn: true });
  });

  test("a password that is too short or too long is refused with words, and the link still works", async () => {
    const { token } = await invited();
    for (const weak of ["short", "elevenchars", "x".repeat(201)])
      await expect(accept(token, Date.now(), weak)).rejects.toMatchObject({ code: "bad-input", field: "password" });
    expect(await look(token)).toMatchObject({ name: "Wenna New" });
  });

  test("of another purpose, or nobody's, it is not told apart from a used one", async () => {
    const { token } = await invited();
    const messages = [];
    for (const [given, purpose] of [
      [token, "set-up"],
      ["x".repeat(43), "sign-in"],
    ] as const)
      messages.push(
        await linkFor.execute(db(), { token: given, purpose }, f.nobody).then(
          () => "told",
          (error: Error) => error.message,
        ),
      );
    expect(new Set(messages)).toEqual(
      new Set(["This link has been used or replaced, or has expired. Ask for a new one."]),
    );
  });
});

test("nobody signs in for somebody else while signed in", async () => {
  for (const kind of ["use", "owner"] satisfies Kind[])
    await expect(
      signIn.execute(db(), { mail: "use@tarrowick.example", password: PASSWORD }, f.as(kind)),
    ).rejects.toMatchObject({ code: "not-allowed" });
});
