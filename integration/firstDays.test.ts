/** The first days and the odd ones: first steps, a new browser, a forgotten password, another device, what is required. */
import { and, eq, gt, isNull } from "drizzle-orm";
import { afterAll, beforeAll, beforeEach, describe, expect, test } from "vitest";
import { type Fixture, type Kind, makeFixture, PASSWORD } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { USUAL_RULES } from "../src/core/access/houseRules";
import { noteBackup } from "../src/server/backup";
import type { Caller } from "../src/server/caller";
import { deviceSignIns, links, mails, notices, sessions } from "../src/server/database/schema";
import { dismissSteps, firstSteps } from "../src/server/frontdesk/firstSteps";
import { sendMails } from "../src/server/mail/post";
import { sendTestMail } from "../src/server/mail/testMail";
import { addPerson } from "../src/server/people/adding";
import { forgotPassword, resetPassword, sendReset } from "../src/server/people/forgotten";
import { createGroup } from "../src/server/people/groups";
import { setMember } from "../src/server/people/members";
import { wasNotMe } from "../src/server/people/notMe";
import { sessionCaller, signOut } from "../src/server/people/sessions";
import { acceptLink, changePassword, linkFor } from "../src/server/people/setUp";
import { signIn } from "../src/server/people/signIn";
import { tokenHash } from "../src/server/people/tokens";
import {
  answerDevice,
  beginDeviceSignIn,
  DEVICE_MS,
  deviceState,
  finishDeviceSignIn,
  typeDeviceNumber,
} from "../src/server/people/waysIn/device";
import { addPasskey, beginPasskey } from "../src/server/people/waysIn/passkeys";
import { ownNeed, remindWays, waysMissing } from "../src/server/people/waysIn/required";
import { changeRules } from "../src/server/rules/rules";
import { vaultList } from "../src/server/vaults/vaults";
import { makeAuthenticator } from "./authenticator";

const MINUTE = 60_000;
const DAY = 86_400_000;
const NEW = "another four good words";
let app: InProcess;
let f: Fixture;
const db = () => app.galtry;
let last = 0;
type Nobody = Extract<Caller, { kind: "nobody" }>;
const nobody = (knownBrowser: string | null = null): Nobody => ({
  ...{ kind: "nobody", address: `198.51.100.${++last % 250}`, browser: "Firefox on Linux", knownBrowser },
});
const code = (act: Promise<unknown>) =>
  act.then(
    () => "done",
    (error) => error.code as string,
  );
const own = (kind: Kind, provedAt = Date.now()) => ({ ...f.as(kind), provedAt }) as Extract<Caller, { kind: "person" }>;
const mailOf = (kind: Kind) => `${kind}@tarrowick.example`;
const enter = (kind: Kind, by = nobody(), password = PASSWORD, at = Date.now()) =>
  signIn.execute(db(), { mail: mailOf(kind), password }, by, at);
async function letters(): Promise<{ to: string; subject: string; text: string }[]> {
  await db().writer.write((tx) => tx.update(mails).set({ nextAt: 0 }).where(gt(mails.nextAt, 0)));
  await sendMails(db());
  return app.standins.postRoom.letters.splice(0).map(({ to, subject, text }) => ({ to: to[0]!, subject, text }));
}
const linkIn = (text: string, page: string) => new RegExp(`/${page}#(\\S+)`).exec(text)?.[1] ?? "";
const read = async (kind: Kind) =>
  (await db().db.select().from(notices).where(eq(notices.personId, f.ids[kind]))).map(({ text }) => text);
const openSessions = async (kind: Kind) =>
  (
    await db()
      .db.select()
      .from(sessions)
      .where(and(eq(sessions.personId, f.ids[kind]), isNull(sessions.endedAt)))
  ).length;
const rules = (part: Partial<typeof USUAL_RULES>) =>
  changeRules.execute(db(), { ...USUAL_RULES, ...part }, f.as("owner"));

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
});
afterAll(() => app.close());
beforeEach(() => void app.standins.postRoom.letters.splice(0));

describe("first steps", () => {
  const steps = async (kind: Kind, at?: number) =>
    Object.fromEntries(
      (await firstSteps.execute(db(), {}, f.as(kind), at))?.steps.map((one) => [one.step, one.done]) ?? [],
    );

  test("are done when they are truly done, and put away for good", async () => {
    expect(await steps("nothing")).toMatchObject({ "sign-in": false, "second-way": false, "own-login": false });
    const authenticator = makeAuthenticator(app.url);
    const { ceremonyId, options } = await beginPasskey.execute(db(), {}, own("nothing"));
    await addPasskey.execute(db(), { ceremonyId, response: authenticator.create(options) }, own("nothing"));
    expect(await steps("nothing")).toMatchObject({ "second-way": true, "sign-in": false });
    expect(await steps("guest")).not.toHaveProperty("own-login");
    await dismissSteps.execute(db(), {}, f.as("nothing"));
    expect(await firstSteps.execute(db(), {}, f.as("nothing"))).toBeNull();
    // Nor of anybody who has long been here.
    expect(await firstSteps.execute(db(), {}, f.as("use"), Date.now() + 61 * DAY)).toBeNull();
  });

  test("of whoever set it up: mail once one has gone out, a backup once one was made", async () => {
    expect(await steps("administrator")).not.toHaveProperty("backup");
    const before = await steps("owner");
    expect(before).toMatchObject({ vault: true, people: true, backup: false, mail: false });
    await sendTestMail.execute(db(), {}, f.as("owner"));
    expect(await steps("owner")).toMatchObject({ mail: false });
    expect((await letters()).map(({ to }) => to)).toEqual([mailOf("owner")]);
    await noteBackup(db().configuration, db().keys);
    expect(await steps("owner")).toMatchObject({ mail: true, backup: true });
    expect(await code(sendTestMail.execute(db(), {}, f.as("steward")))).toBe("not-allowed");
  });
});

describe("a new browser", () => {
  test("is told by mail, the first and a known one are not; what it was not ends everything and asks for a new password", async () => {
    const first = await enter("use");
    expect(first.signedIn).toBe(true);
    expect(await letters()).toEqual([]);
    await enter("use", nobody(first.signedIn ? first.browserToken : null));
    expect(await letters()).toEqual([]);
    const stranger = await enter("use");
    const [letter] = await letters();
    expect(letter).toMatchObject({ to: mailOf("use"), text: expect.stringContaining("Firefox on Linux") });
    const token = linkIn(letter!.text, "not-me");
    expect((await linkFor.execute(db(), { token, purpose: "not-me" }, nobody())).name).toBeTruthy();
    // The link is for nothing else, and no other is for this.
    expect(await code(linkFor.execute(db(), { token, purpose: "sign-in" }, nobody()))).toBe("not-found");
    expect(await code(acceptLink.execute(db(), { token, password: NEW }, nobody()))).toBe("not-found");
    expect(await code(resetPassword.execute(db(), { token, password: NEW }, nobody()))).toBe("not-found");
    const before = (await read("administrator")).length;
    const { link } = await wasNotMe.execute(db(), { token }, nobody());
    expect(await openSessions("use")).toBe(0);
    const from = { address: "::1", browser: "x" };
    expect(await sessionCaller(db().db, stranger.signedIn ? stranger.token : "", Date.now(), from)).toBeNull();
    expect((await enter("use")).signedIn).toBe(false);
    expect((await read("administrator")).slice(before)).toEqual([expect.stringContaining("was not theirs")]);
    expect(await code(wasNotMe.execute(db(), { token }, nobody()))).toBe("not-found");
    await acceptLink.execute(db(), { token: link!, password: NEW }, nobody());
    expect((await enter("use", nobody(), NEW)).signedIn).toBe(true);
    // Nowhere in the open.
    const rows = await db()
      .db.select()
      .from(links)
      .where(eq(links.tokenHash, tokenHash(token)));
    expect(rows).toHaveLength(1);
    expect(JSON.stringify(rows)).not.toContain(token);
  });
});

test("the browser somebody joined in is the first: a sign-in elsewhere is told at once", async () => {
  const mail = "joins-here@tarrowick.example";
  const { link } = await addPerson.execute(db(), { name: "Joins Here", mail, role: "member" }, f.as("administrator"));
  await acceptLink.execute(db(), { token: link!.split("#").at(-1)!, password: NEW }, nobody());
  await letters();
  await signIn.execute(db(), { mail, password: NEW }, nobody());
  expect(await letters()).toEqual([expect.objectContaining({ to: mail })]);
});

describe("a forgotten sign-in password", () => {
  test("goes by mail only where the house rules say so", async () => {
    expect(await code(forgotPassword.execute(db(), { mail: mailOf("edit") }, nobody()))).toBe("not-allowed");
    await rules({ forgottenByMail: true });
    expect(await code(forgotPassword.execute(db(), { mail: mailOf("edit") }, nobody()))).toBe("done");
  });

  test("answers the same for whom there is not, and is limited for each address", async () => {
    const answers = await Promise.all(
      ["nobody-at-all", "suspended", "leaver"].map((name) =>
        forgotPassword.execute(db(), { mail: `${name}@tarrowick.example` }, nobody()),
      ),
    );
    expect(new Set(answers.map((one) => JSON.stringify(one)))).toEqual(new Set([undefined]));
    for (const name of ["nobody-at-all", "suspended", "leaver"])
      expect(await sendReset.execute(db(), { mail: `${name}@tarrowick.example` }, { kind: "server" })).toBeNull();
    const many = () => code(forgotPassword.execute(db(), { mail: mailOf("reveal") }, nobody()));
    expect([await many(), await many(), await many(), await many()]).toEqual(["done", "done", "done", "too-many"]);
  });

  test("the link sets a new one, ends what is open and lets nobody in; it works once and for an hour", async () => {
    await letters();
    await enter("steward");
    await letters();
    await sendReset.execute(db(), { mail: mailOf("steward") }, { kind: "server" });
    const [letter] = (await letters()).filter(({ to }) => to === mailOf("steward"));
    const token = linkIn(letter!.text, "reset");
    const at = Date.now();
    expect(await code(resetPassword.execute(db(), { token, password: NEW }, nobody(), at + 61 * MINUTE))).toBe(
      "not-found",
    );
    expect(await code(resetPassword.execute(db(), { token, password: "short" }, nobody()))).toBe("bad-input");
    const result = await resetPassword.execute(db(), { token, password: NEW }, nobody());
    expect(result).not.toHaveProperty("token");
    expect(await openSessions("steward")).toBe(0);
    expect(await code(resetPassword.execute(db(), { token, password: `${NEW} x` }, nobody()))).toBe("not-found");
    expect((await enter("steward")).signedIn).toBe(false);
    expect((await enter("steward", nobody(), NEW)).signedIn).toBe(true);
  });
});

describe("leaked passwords", () => {
  test("are not taken, and only five digits of their hash leave; where the list is away, others still are", async () => {
    const set = (password: string) => changePassword.execute(db(), { password }, own("guest"));
    app.standins.seen.length = 0;
    const refused = await set("museum museum museum").catch((error) => error);
    expect(refused).toMatchObject({ code: "bad-input", field: "password" });
    const asked = app.standins.seen.filter(({ host }) => host === "leaks.localhost");
    expect(asked.map(({ path }) => path)).toEqual([expect.stringMatching(/^\/range\/[0-9A-F]{5}$/)]);
    await set("nobody has thought of this one");
    const list = db().configuration.leakedPasswords;
    db().configuration.leakedPasswords = new URL("http://127.0.0.1:9/range");
    await set("nobody has thought of that one");
    db().configuration.leakedPasswords = list;
  });
});

describe("approval on another device", () => {
  const begin = (by = nobody()) => beginDeviceSignIn.execute(db(), {}, by);
  const type = (kind: Kind, number: string) => typeDeviceNumber.execute(db(), { number }, own(kind));
  const answer = (kind: Kind, number: string, approve = true, provedAt = Date.now()) =>
    answerDevice.execute(db(), { number, approve }, own(kind, provedAt));
  const wrongNumber = (number: string) => String((Number(number) + 1) % 1_000_000).padStart(6, "0");

  test("shows from where it comes, lets in whoever approves, and once only", async () => {
    const waiting = { ...nobody(), address: "203.0.113.9", browser: "Chromium on a tablet" };
    const { number, waiting: token } = await begin(waiting);
    const state = () => deviceState.execute(db(), { waiting: token }, waiting);
    expect(await state()).toBe("waiting");
    expect(await code(finishDeviceSignIn.execute(db(), { waiting: token }, waiting))).toBe("ended");
    const spaced = `${number.slice(0, 3)} ${number.slice(3)}`;
    expect(await type("reveal", spaced)).toMatchObject({ browser: waiting.browser, address: waiting.address });
    expect(await code(answer("reveal", number, true, Date.now() - 10 * MINUTE))).toBe("prove-again");
    await answer("reveal", number);
    expect(await state()).toBe("approved");
    // Nobody else takes it over meanwhile.
    expect(await type("edit", number)).toBeNull();
    const entered = await finishDeviceSignIn.execute(db(), { waiting: token }, waiting);
    expect(entered).toMatchObject({ signedIn: true, personId: f.ids.reveal });
    expect(await code(finishDeviceSignIn.execute(db(), { waiting: token }, waiting))).toBe("not-found");
    expect(await state()).toBe("expired");
    const rows = await db().db.select().from(deviceSignIns);
    expect(JSON.stringify(rows)).not.toMatch(new RegExp(`${number}|${token}`));
  });

  test("in Lanyard's window only with the sign-in password, whose guesses are few", async () => {
    const lanyard = f.lanyard("reveal");
    const approve = (number: string, password?: string) =>
      code(answerDevice.execute(db(), { number, approve: true, ...(password && { password }) }, lanyard));
    const { number, waiting: token } = await begin();
    expect(await typeDeviceNumber.execute(db(), { number }, lanyard)).toMatchObject({ browser: "Firefox on Linux" });
    // Whoever finds the browser open has Lanyard, and not the password.
    expect(await approve(number)).toBe("prove-again");
    expect(await approve(number, "not this one")).toBe("bad-input");
    expect(await deviceState.execute(db(), { waiting: token }, nobody())).toBe("waiting");
    expect(await approve(number, PASSWORD)).toBe("done");
    expect((await finishDeviceSignIn.execute(db(), { waiting: token }, nobody())).personId).toBe(f.ids.reveal);
    const other = await begin();
    const guesses: string[] = [];
    for (let turn = 0; turn < 12; turn++) guesses.push(await approve(other.number, `guess ${turn}`));
    expect(guesses[0]).toBe("bad-input");
    expect(guesses.at(-1)).toBe("too-many");
    expect(await approve(other.number, PASSWORD)).toBe("too-many");
    // To keep it out takes nothing more.
    await answerDevice.execute(db(), { number: other.number, approve: false }, lanyard);
    expect(await deviceState.execute(db(), { waiting: other.waiting }, nobody())).toBe("declined");
  });

  test("a sign-in password sent along from a page shows nothing: there it is asked for as for other grave acts", async () => {
    const { number } = await begin();
    const input = { number, approve: true, password: PASSWORD };
    expect(await code(answerDevice.execute(db(), input, own("steward", Date.now() - 10 * MINUTE)))).toBe("prove-again");
  });

  test("ends after a hundred seconds, and when it is declined", async () => {
    const at = Date.now();
    const late = await begin();
    expect(await deviceState.execute(db(), { waiting: late.waiting }, nobody(), at + DEVICE_MS + 1000)).toBe("expired");
    expect(
      await code(
        answerDevice.execute(db(), { number: late.number, approve: true }, own("reveal"), at + DEVICE_MS + 1000),
      ),
    ).toBe("ended");
    const no = await begin();
    await answer("administrator", no.number, false);
    expect(await deviceState.execute(db(), { waiting: no.waiting }, nobody())).toBe("declined");
    expect(await code(finishDeviceSignIn.execute(db(), { waiting: no.waiting }, nobody()))).toBe("not-allowed");
  });

  test("guessing rests at the third, also for the right number; others are not held up", async () => {
    const { number, waiting } = await begin();
    for (let turn = 0; turn < 3; turn++) expect(await type("owner", wrongNumber(number))).toBeNull();
    expect(await code(type("owner", number))).toBe("too-many");
    expect(await code(answer("owner", number))).toBe("too-many");
    await answer("guest", number);
    expect((await finishDeviceSignIn.execute(db(), { waiting }, nobody())).personId).toBe(f.ids.guest);
  });

  test("of one address so many are begun and no more", async () => {
    const by = { ...nobody(), address: "203.0.113.77" };
    const all = await Promise.all(Array.from({ length: 30 }, () => code(begin(by))));
    expect(all.filter((one) => one === "done").length).toBe(20);
    expect(all.filter((one) => one === "too-many").length).toBe(10);
  });
});

describe("ways in that the house rules require", () => {
  test("of a group, from a day on: until then they are named and reminded; then led through it, and nowhere past", async () => {
    const { groupId } = await createGroup.execute(db(), { name: "Finance" }, f.as("administrator"));
    await setMember.execute(db(), { groupId, personId: f.ids.edit }, f.as("administrator"));
    const rule = {
      groupId,
      needs: "passkey" as const,
      from: new Date(Date.now() + 10 * DAY).toISOString().slice(0, 10),
    };
    await rules({ waysIn: [rule] });
    const missing = () => waysMissing.execute(db(), {}, f.as("administrator"));
    expect(await missing()).toMatchObject([{ group: "Finance", now: false, count: 1, people: [{ id: f.ids.edit }] }]);
    const before = (await read("edit")).length;
    await remindWays.execute(db(), rule, f.as("administrator"));
    expect((await read("edit")).slice(before)).toEqual([expect.stringContaining("a passkey or single sign-on")]);
    expect(await code(remindWays.execute(db(), rule, f.as("administrator")))).toBe("too-many");
    const from = { address: "::1", browser: "Firefox" };
    const callerOf = async (token: string, at: number) => (await sessionCaller(db().db, token, at, from))!;
    const now = await enter("edit");
    const caller = await callerOf(now.signedIn ? now.token : "", Date.now());
    expect(caller.limited).toBeUndefined();

    const later = Date.now() + 11 * DAY;
    const then = await enter("edit", nobody(), PASSWORD, later);
    expect(then.signedIn).toBe(true);
    const limited = await callerOf(then.signedIn ? then.token : "", later);
    expect(limited.limited).toBe(true);
    const tries = () => code(vaultList.execute(db(), {}, limited, later));
    expect(await tries()).toBe("add-way");
    expect(await code(changePassword.execute(db(), { password: NEW }, limited, later))).toBe("add-way");
    expect(await code(answerDevice.execute(db(), { number: "123456", approve: true }, limited, later))).toBe("add-way");
    expect(await ownNeed.execute(db(), {}, limited, later)).toEqual({ needs: "passkey" });
    // Others are not held up.
    const other = await enter("reveal", nobody(), PASSWORD, later);
    expect((await callerOf(other.signedIn ? other.token : "", later)).limited).toBeUndefined();
    const authenticator = makeAuthenticator(app.url);
    const { ceremonyId, options } = await beginPasskey.execute(db(), {}, limited, later);
    await addPasskey.execute(db(), { ceremonyId, response: authenticator.create(options) }, limited, later);
    const free = await callerOf(then.signedIn ? then.token : "", later);
    expect(free.limited).toBeUndefined();
    expect(await code(vaultList.execute(db(), {}, free, later))).toBe("done");
    expect(await missing()).toMatchObject([{ count: 0 }]);
    await signOut.execute(db(), {}, free, later);
  });

  test("a rule of a group that there is not is refused, and one that goes is told", async () => {
    const rule = { groupId: "0190a000-0000-7000-8000-000000000000", needs: "passkey" as const, from: "2026-12-01" };
    expect(await code(rules({ waysIn: [rule] }))).toBe("conflict");
    const { changed } = await rules({});
    expect(changed).toEqual([expect.stringMatching(/^No longer: From .* Finance need a passkey/)]);
    expect(await code(rules({}))).toBe("conflict");
  });
});
