/** Joining without an invitation, by an address in a domain that the house rules name. */
import { eq, gt } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { type Fixture, makeFixture } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { type HouseRules, USUAL_RULES } from "../src/core/access/houseRules";
import { EVERYBODY } from "../src/core/people/peopleFilter";
import type { Caller } from "../src/server/caller";
import { joinCodes, mails, notices, personStates, persons, providers } from "../src/server/database/schema";
import { frontDesk } from "../src/server/frontdesk/frontDesk";
import { journalPage } from "../src/server/journal/page";
import { sendMails } from "../src/server/mail/post";
import { addPerson } from "../src/server/people/adding";
import { askToJoin, CODE_MS, joinWithCode, sendJoinCode } from "../src/server/people/joining";
import { personList } from "../src/server/people/peopleList";
import { acceptLink, linkFor } from "../src/server/people/setUp";
import { changeRules } from "../src/server/rules/rules";
import { KEPT } from "../src/server/upkeep/sweeping";

const DOMAIN = "volunteers.example";
const NEW = "another four good words";
let app: InProcess;
let f: Fixture;
const db = () => app.galtry;
let last = 0;
const nobody = (): Extract<Caller, { kind: "nobody" }> => ({
  ...{ kind: "nobody", address: `198.51.100.${++last % 250}`, browser: "Firefox on Linux", knownBrowser: null },
});
const code = (act: Promise<unknown>) =>
  act.then(
    () => "done",
    (error) => error.code as string,
  );
const rules = (part: Partial<HouseRules>) =>
  changeRules.execute(db(), { ...USUAL_RULES, ...part }, f.as("owner")).catch(() => undefined);
const ask = (mail: string, by = nobody()) => askToJoin.execute(db(), { mail }, by);
const join = (mail: string, typed: string, { name = "Nia Rowe", by = nobody(), at = Date.now() } = {}) =>
  joinWithCode.execute(db(), { mail, name, code: typed }, by, at);

async function letters(): Promise<{ to: string; subject: string; text: string }[]> {
  await db().writer.write((tx) => tx.update(mails).set({ nextAt: 0 }).where(gt(mails.nextAt, 0)));
  await sendMails(db());
  return app.standins.postRoom.letters.splice(0).map(({ to, subject, text }) => ({ to: to[0]!, subject, text }));
}
/** The code that is mailed to an address. */
async function mailed(mail: string, at = Date.now()): Promise<string> {
  await sendJoinCode.execute(db(), { mail }, { kind: "server" }, at);
  const letter = (await letters()).find(({ to }) => to === mail);
  return /code is (\d{4} \d{4})/.exec(letter?.text ?? "")?.[1] ?? "";
}
const other = (typed: string) => String((Number(typed.replace(" ", "")) + 1) % 100_000_000).padStart(8, "0");
const personAt = async (mail: string) => (await db().db.select().from(persons).where(eq(persons.mail, mail)))[0];

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
  await letters();
});
afterAll(() => app.close());

describe("nobody makes an account without being invited", () => {
  test("where the rules name no domain, nor where they name another", async () => {
    expect(await code(ask(`nia@${DOMAIN}`))).toBe("not-allowed");
    expect(await code(join(`nia@${DOMAIN}`, "12345678"))).toBe("not-allowed");
    await rules({ joinDomains: [DOMAIN] });
    for (const mail of [
      `nia@sub.${DOMAIN}`,
      `nia@not${DOMAIN}`,
      `nia@${DOMAIN}.evil.example`,
      `nia+@${DOMAIN}@evil.example`,
      "nia@evil.example",
    ])
      expect(await code(ask(mail)), mail).toMatch(/^(not-allowed|bad-input)$/);
    expect(await code(ask(`nia@${DOMAIN.toUpperCase()}`))).toBe("done");
  });

  test("without mail there is no code, and so nobody", async () => {
    const { mail } = db().configuration;
    db().configuration.mail = null;
    expect(await code(ask(`nia@${DOMAIN}`))).toBe("not-allowed");
    db().configuration.mail = mail;
  });

  test("a domain whose people sign in with a provider only is theirs to let in", async () => {
    await db()
      .db.insert(providers)
      .values({
        ...{
          id: "0190a000-0000-7000-8000-00000000aaaa",
          name: "Trust Accounts",
          protocol: "oidc",
          issuer: "x",
          settings: {},
        },
        ...{ domains: [{ domain: DOMAIN, token: "t", provedAt: 1, how: "dns", by: null }], enabled: true },
        ...{ required: true, joins: "invited", createdAt: 1 },
      } as never);
    const refused = await ask(`nia@${DOMAIN}`).catch((error) => error);
    expect(refused).toMatchObject({ code: "not-allowed", message: "Sign in with Trust Accounts instead." });
    await db().db.delete(providers);
  });

  test("a domain is one, as the rules are kept", async () => {
    for (const domain of ["com", "@x.example", "x..example", "x example.org", "*.example.org", ""])
      expect(
        await code(changeRules.execute(db(), { ...USUAL_RULES, joinDomains: [domain] }, f.as("owner"))),
        domain,
      ).toBe("bad-input");
  });
});

describe("with a code", () => {
  test("somebody new is a member with nothing, and sets up how they sign in", async () => {
    const mail = `new@${DOMAIN}`;
    const typed = await mailed(mail);
    expect(typed).toMatch(/^\d{4} \d{4}$/);
    // Neither stands anywhere before it is used.
    const kept = JSON.stringify(await db().db.select().from(joinCodes));
    expect(kept).not.toContain(mail);
    expect(kept).not.toContain(typed.replace(" ", ""));
    expect(await personAt(mail)).toBeUndefined();
    const joined = await join(mail, typed);
    const { token } = joined!;
    expect(await linkFor.execute(db(), { token, purpose: "sign-in" }, nobody())).toMatchObject({
      name: "Nia Rowe",
      mail,
    });
    const { personId } = await acceptLink.execute(db(), { token, password: NEW }, nobody());
    const me = { ...f.as("use"), personId };
    expect((await frontDesk.execute(db(), {}, me)).lines).toEqual([]);
    const { people } = await personList.execute(db(), EVERYBODY, f.as("administrator"));
    expect(people.find(({ name }) => name === "Nia Rowe")).toMatchObject({ role: "member", standing: "active" });
    const { lines } = await journalPage.execute(db(), {}, f.as("owner"));
    expect(lines.map(({ says }) => says)).toContain(`joined with an email address at ${DOMAIN}`);
    for (const kind of ["owner", "administrator"] as const)
      expect(
        (await db().db.select().from(notices).where(eq(notices.personId, f.ids[kind]))).map(({ text }) => text),
      ).toContainEqual(expect.stringContaining(`Nia Rowe joined with a code sent to ${mail}`));
  });

  test("it works once, for its own address, until the next one and for a quarter of an hour", async () => {
    const mail = `once@${DOMAIN}`;
    const [first, second] = [await mailed(mail), await mailed(mail)];
    if (first !== second) expect(await join(mail, first)).toBeNull();
    expect(await join(`elsewhere@${DOMAIN}`, second)).toBeNull();
    expect(await join(mail, second, { at: Date.now() + CODE_MS + 1 })).toBeNull();
    const both = await Promise.all([join(mail, second), join(mail, second, { name: "Another" })]);
    expect(both.filter(Boolean)).toHaveLength(1);
    expect(await join(mail, second)).toBeNull();
  });

  test("guessing ends it: after five wrong ones the right one is none", async () => {
    const mail = `guessed@${DOMAIN}`;
    const typed = await mailed(mail);
    for (let i = 0; i < 5; i++) expect(await join(mail, other(typed))).toBeNull();
    expect(await join(mail, typed)).toBeNull();
    expect(await personAt(mail)).toBeUndefined();
    // From one address so many for all accounts together.
    const by = nobody();
    const tries: string[] = [];
    for (let i = 0; i < 21; i++) tries.push(await code(join(`n${i}@${DOMAIN}`, "00000000", { by })));
    expect(tries.filter((one) => one === "done")).toHaveLength(20);
    expect(tries.at(-1)).toBe("too-many");
  });

  test("addresses made up by the thousand, from anywhere, are no way to guess one", async () => {
    await rules({ joinDomains: [DOMAIN, "other.example"] });
    const tries: string[] = [];
    for (let i = 0; i < 62; i++) tries.push(await code(join(`made-up-${i}@other.example`, "00000000")));
    expect(tries.filter((one) => one === "done")).toHaveLength(60);
    expect(tries.at(-1)).toBe("too-many");
    // It rests for that domain, and not for another.
    expect(await code(join(`someone-else@tarrowick.example`, "00000000"))).toBe("not-allowed");
    await rules({ joinDomains: [DOMAIN, "third.example"] });
    expect(await code(join("someone@third.example", "00000000"))).toBe("done");
  });

  test("mails to one address are few", async () => {
    const mail = `flooded@${DOMAIN}`;
    expect([await code(ask(mail)), await code(ask(mail)), await code(ask(mail)), await code(ask(mail))]).toEqual([
      ...["done", "done", "done", "too-many"],
    ]);
  });
});

describe("people who are known", () => {
  const known = async (mail: string) => {
    await rules({ joinDomains: [DOMAIN, "tarrowick.example"] });
    await letters();
    await sendJoinCode.execute(db(), { mail }, { kind: "server" });
    return (await letters()).filter(({ to }) => to === mail);
  };

  test("get the same answer; who is here is told so by mail, and gets no code", async () => {
    await rules({ joinDomains: [DOMAIN, "tarrowick.example"] });
    const answers = await Promise.all(
      ["use", "suspended", "leaver", "new-here"].map((n) => ask(`${n}@tarrowick.example`)),
    );
    expect(new Set(answers)).toEqual(new Set([undefined]));
    const [letter] = await known("use@tarrowick.example");
    expect(letter!.text).toContain("You have joined already");
    expect(letter!.text).not.toMatch(/code is/);
    expect(await join("use@tarrowick.example", "00000000")).toBeNull();
  });

  test("nobody comes back by it who was suspended or has left", async () => {
    for (const who of ["suspended", "leaver"]) {
      expect(await known(`${who}@tarrowick.example`)).toEqual([]);
      expect(await join(`${who}@tarrowick.example`, "00000000")).toBeNull();
    }
  });

  test("somebody invited keeps what they were invited to", async () => {
    const mail = `invited@${DOMAIN}`;
    const person = { name: "As Invited", mail, role: "administrator" as const };
    const { personId } = await addPerson.execute(db(), person, f.as("owner"));
    const joined = await join(mail, await mailed(mail), { name: "Another Name" });
    expect(joined).toMatchObject({ personId, name: "As Invited", invited: true });
    await acceptLink.execute(db(), { token: joined!.token, password: NEW }, nobody());
    const { people } = await personList.execute(db(), EVERYBODY, f.as("owner"));
    expect(people.find(({ id }) => id === personId)).toMatchObject({ role: "administrator", name: "As Invited" });
  });

  test("left while the code was on its way: it opens nothing", async () => {
    const mail = `leaves@${DOMAIN}`;
    const typed = await mailed(mail);
    const { personId } = await addPerson.execute(db(), { name: "Leaves", mail, role: "member" }, f.as("owner"));
    await db().writer.write((tx) =>
      tx.update(personStates).set({ standing: "leaver" }).where(eq(personStates.personId, personId)),
    );
    expect(await join(mail, typed)).toBeNull();
  });
});

test("codes are swept once they are over", async () => {
  const kept = KEPT.find(({ table }) => table === joinCodes);
  expect(kept).toBeDefined();
});
