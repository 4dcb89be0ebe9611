/** Mail that goes out over SMTP, and handover links that open with a code that is mailed. */
import { eq } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { CANARY, type Fixture, makeFixture } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { randomBytes, toBase64Url } from "../src/core/crypto";
import {
  createHandover,
  handoverList,
  lookAtHandover,
  openHandover,
  sendHandoverCode,
} from "../src/server/access/handover/handover";
import { ConfigurationError, readConfiguration } from "../src/server/configuration";
import { handovers, mails, notices } from "../src/server/database/schema";
import { sendMails } from "../src/server/mail/post";
import { queueMail, takeMail } from "../src/server/mail/queue";

let app: InProcess;
let f: Fixture;
const db = () => app.galtry;
const post = () => app.standins.postRoom;
const MINUTE = 60_000;
const PARTNER = "frames@ostler.example";
const browser = () => toBase64Url(randomBytes(32));

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
});
afterAll(() => app.close());

async function make(more: object = {}) {
  const input = { entryId: f.otherEntryId, fields: ["password"], until: Date.now() + 60 * MINUTE, openings: 1 };
  const { address } = await createHandover.execute(db(), { ...input, mailTo: PARTNER, ...more }, f.as("steward"));
  return new URL(address).hash.slice(1).split(".")[0]!;
}
const ask = (token: string, opener: string, at = Date.now()) =>
  sendHandoverCode.execute(db(), { token, opener }, f.nobody, at);
const press = (token: string, opener: string, more: object = {}, at = Date.now()) =>
  openHandover.execute(db(), { token, opener, ...more }, f.nobody, at);
const look = (token: string, opener: string) => lookAtHandover.execute(db(), { token, opener }, f.nobody);

/** What the latest letter says, once what waits has gone out. */
async function codeSent(): Promise<string> {
  await sendMails(db());
  return /^\d{3} \d{3}/.exec(post().letters.at(-1)!.text)![0];
}

/** Six digits that are not these. */
const another = (code: string) => `${(Number(code[0]) + 1) % 10}${code.slice(1)}`;

describe("a handover link for one mail address", () => {
  test("opens with the code that went there, in the browser that asked for it", async () => {
    const [token, mine, theirs] = [await make(), browser(), browser()];
    expect(await look(token, mine)).toMatchObject({ needsCode: true, code: null });
    await expect(press(token, mine)).rejects.toMatchObject({ field: "code" });
    expect(await ask(token, mine)).toBeUndefined();
    expect(await look(token, mine)).toMatchObject({ code: "on its way" });
    const code = await codeSent();
    expect(await look(token, mine)).toMatchObject({ code: "sent" });
    const letter = post().letters.at(-1)!;
    expect(letter).toMatchObject({ to: [PARTNER], from: "galtry@tarrowick.example" });
    expect(letter.text).toContain("Person steward");
    // Neither what is handed over nor the link stands in it.
    for (const kept of [CANARY, token, "Quillbrook"]) expect(JSON.stringify(letter)).not.toContain(kept);
    // The same digits are of no use in another browser, and count.
    expect(await press(token, theirs, { code })).toEqual({ opened: null, triesLeft: 4 });
    expect((await press(token, mine, { code })).opened).not.toBeNull();
    // A lost answer needs no second code; anybody else does not get it.
    expect((await press(token, mine)).opened).not.toBeNull();
    await expect(press(token, theirs, { code })).rejects.toMatchObject({ code: "ended" });
  });

  test("whoever looks at the link does not learn whose it is; its maker sees it", async () => {
    const token = await make();
    expect(JSON.stringify(await look(token, browser()))).not.toContain("ostler");
    const { links, mails: goesOut } = await handoverList.execute(db(), { entryId: f.otherEntryId }, f.as("steward"));
    expect(goesOut).toBe(true);
    expect(links[0]).toMatchObject({ mailTo: PARTNER });
  });

  test("a code runs out, and is good for one opening", async () => {
    const [token, mine] = [await make({ openings: 2 }), browser()];
    await ask(token, mine);
    const code = await codeSent();
    await expect(press(token, mine, { code }, Date.now() + 11 * MINUTE)).rejects.toMatchObject({ field: "code" });
    expect((await press(token, mine, { code })).opened).not.toBeNull();
    await expect(press(token, browser(), { code })).rejects.toMatchObject({ field: "code" });
  });

  test("with a word too, both must be right, and neither is told apart", async () => {
    const [token, mine] = [await make({ word: "walnut" }), browser()];
    await ask(token, mine);
    const code = await codeSent();
    expect(await press(token, mine, { code, word: "hazel" })).toEqual({ opened: null, triesLeft: 4 });
    expect(await press(token, mine, { code: another(code), word: "walnut" })).toEqual({ opened: null, triesLeft: 3 });
    expect((await press(token, mine, { code, word: "walnut" })).opened).not.toBeNull();
  });

  test("guesses are stopped at the fifth, all at once too, and no new code brings them back", async () => {
    const [token, mine] = [await make(), browser()];
    await ask(token, mine);
    const code = await codeSent();
    const guesses = await Promise.allSettled(
      Array.from({ length: 8 }, () => press(token, mine, { code: another(code) })),
    );
    expect(guesses.filter((one) => one.status === "fulfilled")).toHaveLength(5);
    await expect(press(token, mine, { code })).rejects.toMatchObject({ code: "ended" });
    await expect(ask(token, mine, Date.now() + MINUTE)).rejects.toMatchObject({ code: "ended" });
    const told = await db().db.select().from(notices).where(eq(notices.personId, f.ids.steward));
    expect(told.at(-1)!.text).toContain("was closed after 5 wrong passphrases or codes");
  });

  test("nobody's mailbox is filled with it: one in half a minute, twelve in all", async () => {
    const [token, mine, start] = [await make(), browser(), Date.now()];
    await ask(token, mine, start);
    await expect(ask(token, mine, start + 20_000)).rejects.toMatchObject({ code: "too-many" });
    for (let i = 1; i < 12; i++) await ask(token, mine, start + i * 31_000);
    await expect(ask(token, mine, start + 12 * 31_000)).rejects.toMatchObject({ code: "too-many" });
  });

  test("the code stands nowhere in the database, before it is sent and after", async () => {
    const [token, mine] = [await make(), browser()];
    await ask(token, mine);
    const everything = async () => {
      const { rows: tables } = await db().opened.client.execute("select name from sqlite_master where type = 'table'");
      const texts = [];
      for (const { name } of tables)
        texts.push(
          JSON.stringify((await db().opened.client.execute(`select * from "${name}"`)).rows, (_, value) =>
            value instanceof ArrayBuffer || ArrayBuffer.isView(value)
              ? Buffer.from(value as ArrayBuffer).toString("latin1")
              : value,
          ),
        );
      return texts.join();
    };
    const before = await everything();
    const code = await codeSent();
    for (const text of [before, await everything()])
      for (const written of [code, code.replace(" ", "")]) expect(text).not.toMatch(new RegExp(`\\b${written}\\b`));
    // No code: whoever had only the database could not send the digits either.
    const [row] = await db().db.select().from(handovers).where(eq(handovers.mailTo, PARTNER)).limit(1);
    expect(row!.codeMark ?? "").not.toContain(code.replace(" ", ""));
  });
});

describe("mail on its way out", () => {
  const letter = (more: object = {}) => ({
    ...{
      to: PARTNER,
      subject: "Grüße aus dem Haus",
      body: { text: "Ein Gruß\n\nüber zwei Zeilen.", html: "<p>Ein Gruß</p><p>über zwei Zeilen.</p>" },
      until: Date.now() + MINUTE,
    },
    ...{ makerId: f.ids.steward, nodeId: null, ...more },
  });
  const queue = (more: object = {}, at = Date.now()) =>
    db().writer.write((tx) => queueMail(tx, db().keys, letter(more), at));
  const rowOf = async (id: string) => (await db().db.select().from(mails).where(eq(mails.id, id)))[0]!;

  test("arrives as it was written, once, and is erased here", async () => {
    const id = await queue();
    const before = post().letters.length;
    await Promise.all([sendMails(db()), sendMails(db())]);
    await sendMails(db());
    expect(post().letters).toHaveLength(before + 1);
    const arrived = post().letters.at(-1)!;
    expect(arrived.subject).toBe("Grüße aus dem Haus");
    expect(arrived.text.trim()).toBe("Ein Gruß\n\nüber zwei Zeilen.");
    expect(await rowOf(id)).toMatchObject({ sealed: null, sentAt: expect.any(Number) });
  });

  test("an address with a line break or a second one in it goes to nobody else", async () => {
    for (const mailTo of ["a@ostler.example\r\nBcc: b@evil.example", "a@ostler.example, b@evil.example"])
      await expect(make({ mailTo })).rejects.toMatchObject({ code: "bad-input" });
  });

  test("turned away, it is tried again; given up, its maker is told and what it said is erased", async () => {
    // Codes of other tests that are due at some later minute are not to come between.
    await db().writer.write((tx) => tx.delete(mails));
    post().closed = "The post room is closed";
    const id = await queue({ until: Date.now() + 30_000 });
    await sendMails(db());
    expect(await rowOf(id)).toMatchObject({ sealed: expect.anything(), wrong: expect.stringContaining("closed") });
    post().closed = null;
    const taken = await takeMail.execute(db(), {}, { kind: "server" }, Date.now() + 21_000);
    expect(taken).toMatchObject({ id, to: PARTNER });
    post().closed = "The post room is closed";
    const late = await queue({ until: Date.now() + 1_000 });
    await sendMails(db());
    post().closed = null;
    expect(await rowOf(late)).toMatchObject({ sealed: null, failedAt: expect.any(Number) });
    const told = await db().db.select().from(notices).where(eq(notices.personId, f.ids.steward));
    expect(told.at(-1)!.text).toMatch(/^A mail to frames@ostler\.example did not go out: .*The post room is closed/);
  });

  test("what the mail server will never take is given up at once", async () => {
    post().closed = "No such mailbox";
    post().code = 550;
    const id = await queue();
    await sendMails(db());
    Object.assign(post(), { closed: null, code: 451 });
    expect(await rowOf(id)).toMatchObject({ sealed: null, failedAt: expect.any(Number) });
  });

  test("without a mail server nothing is offered and nothing bound", async () => {
    const { mail } = db().configuration;
    db().configuration.mail = null;
    try {
      await expect(make()).rejects.toMatchObject({ field: "mailTo" });
      const { mails: goesOut } = await handoverList.execute(db(), { entryId: f.otherEntryId }, f.as("steward"));
      expect(goesOut).toBe(false);
    } finally {
      db().configuration.mail = mail;
    }
  });

  test("half a setting is refused in one line", () => {
    expect(() => readConfiguration({ GALTRY_MAIL_SERVER: "smtp://mail.tarrowick.example" })).toThrow(
      ConfigurationError,
    );
    expect(() =>
      readConfiguration({ GALTRY_MAIL_SERVER: "https://mail.tarrowick.example", GALTRY_MAIL_FROM: "a@b.example" }),
    ).toThrow(/GALTRY_MAIL_SERVER/);
  });
});
