/** The rules for givers, for people and for editing, against a real database. */

import { desc, eq } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { CANARY, CANARY_USER, type Fixture, give, makeFixture, PASSWORD } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { fromBase64 } from "../src/core/crypto";
import { unpack } from "../src/core/packed";
import { keptAlready, userMarkOf } from "../src/core/signin/keptAlready";
import { tellOfExpiry } from "../src/server/access/expiry";
import { changeAccess, endAccess, giveAccess } from "../src/server/access/grants";
import { whoCanDoWhat } from "../src/server/access/who";
import { whyEnded } from "../src/server/access/whyEnded";
import { entryVersions, journal, places, sessions, signIns } from "../src/server/database/schema";
import { frontDesk } from "../src/server/frontdesk/frontDesk";
import { journalFailures } from "../src/server/housekeeping";
import { journalPage } from "../src/server/journal/page";
import { compareLogin, guardedFill, keyList } from "../src/server/lanyard/keys";
import { addPerson } from "../src/server/people/adding";
import { createGroup } from "../src/server/people/groups";
import { leavingPage, markLeaver } from "../src/server/people/leaving";
import { removeMember, setMember } from "../src/server/people/members";
import { ownNotices } from "../src/server/people/notices";
import { changeRole, reinstate, renewLink, suspendPerson } from "../src/server/people/persons";
import { acceptLink } from "../src/server/people/setUp";
import { signIn } from "../src/server/people/signIn";
import { didNotWork } from "../src/server/signin/didNotWork";
import { beginSignIn } from "../src/server/signin/sealed";
import { binEntry, restoreEntry } from "../src/server/vaults/bin";
import { addEntry, changeEntry } from "../src/server/vaults/entries";
import { entryPage } from "../src/server/vaults/entryPage";
import { binFolder, createFolder, DEEPEST, restoreFolder } from "../src/server/vaults/folders";
import { moveNodes, movePreview } from "../src/server/vaults/moving";
import { revealField } from "../src/server/vaults/revealing";
import { changeSigningIn } from "../src/server/vaults/signingIn";
import { openValues } from "../src/server/vaults/vaultKeys";
import { createVault, vaultLedger, vaultList } from "../src/server/vaults/vaults";

let app: InProcess;
let f: Fixture;
const db = () => app.galtry;
const HOUR = 3_600_000;

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
});
afterAll(() => app.close());

const refusal = async (
  work: Promise<unknown>,
): Promise<{ code: string; message: string; field?: string; data?: Record<string, unknown> }> => {
  try {
    await work;
  } catch (error) {
    return error as { code: string; message: string };
  }
  throw new Error("it was not refused");
};

const levelOf = async (kind: Parameters<Fixture["as"]>[0], entryId = f.entryId, at = Date.now()) =>
  entryPage.execute(db(), { entryId }, f.as(kind), at).then(
    (page) => page.level as string,
    () => "none",
  );

describe("givers", () => {
  test("a grant that ends before it starts, or ended already, is refused at its field", async () => {
    const terms = {
      nodeId: f.entryId,
      subject: { kind: "person" as const, id: f.ids.nothing },
      level: "use" as const,
      why: "",
    };
    expect(
      await refusal(
        giveAccess.execute(db(), { ...terms, from: Date.now() + 2 * HOUR, until: Date.now() + HOUR }, f.as("steward")),
      ),
    ).toMatchObject({ code: "bad-input", field: "until", message: "The end date must be after the start." });
    expect(
      await refusal(giveAccess.execute(db(), { ...terms, from: null, until: Date.now() - HOUR }, f.as("steward"))),
    ).toMatchObject({ field: "until", message: "The end date is in the past. Choose a later one." });
  });

  test("nobody is left as a node's last steward's victim: withdrawing or lowering the last one is refused", async () => {
    const { vaultId } = await createVault.execute(db(), { name: "Alone", description: "" }, f.as("administrator"));
    const who = await whoCanDoWhat.execute(db(), { nodeId: vaultId }, f.as("administrator"));
    const { grantId } = who.lines[0]!;
    expect(await refusal(endAccess.execute(db(), { grantId }, f.as("administrator")))).toMatchObject({
      code: "not-allowed",
      message: expect.stringContaining("without a steward"),
    });
    expect(
      await refusal(
        changeAccess.execute(db(), { grantId, level: "edit", from: null, until: null, why: "" }, f.as("administrator")),
      ),
    ).toMatchObject({ code: "not-allowed" });
    expect(
      await refusal(
        changeAccess.execute(
          db(),
          { grantId, level: "steward", from: null, until: Date.now() + HOUR, why: "" },
          f.as("administrator"),
        ),
      ),
    ).toMatchObject({ code: "not-allowed" });
    // A steward for a time does not count; one without an end does.
    await give(db(), f.as("administrator"), vaultId, f.ids.edit, "steward", Date.now() + HOUR);
    expect((await refusal(endAccess.execute(db(), { grantId }, f.as("administrator")))).code).toBe("not-allowed");
    await give(db(), f.as("administrator"), vaultId, f.ids.steward, "steward");
    await endAccess.execute(db(), { grantId }, f.as("administrator"));
    expect((await refusal(whoCanDoWhat.execute(db(), { nodeId: vaultId }, f.as("administrator")))).code).toBe(
      "not-found",
    );
  });

  test("no grant outlasts the giver's own stewardship", async () => {
    const end = Date.now() + 2 * HOUR;
    const { grantId } = await give(db(), f.as("steward"), f.otherEntryId, f.ids.edit, "steward", end);
    const terms = {
      nodeId: f.otherEntryId,
      subject: { kind: "person" as const, id: f.ids.nothing },
      level: "use" as const,
      from: null,
      why: "",
    };
    expect(await refusal(giveAccess.execute(db(), { ...terms, until: null }, f.as("edit")))).toMatchObject({
      code: "bad-input",
      field: "until",
    });
    expect(await refusal(giveAccess.execute(db(), { ...terms, until: end + 1 }, f.as("edit")))).toMatchObject({
      field: "until",
    });
    await giveAccess.execute(db(), { ...terms, until: end }, f.as("edit"));
    expect(await levelOf("nothing", f.otherEntryId)).toBe("use");
    // The window closes at its moment, for both.
    expect(await levelOf("nothing", f.otherEntryId, end)).toBe("none");
    expect(await levelOf("edit", f.otherEntryId, end)).toBe("none");
    await endAccess.execute(db(), { grantId }, f.as("steward"));
  });

  test("a guest is never made a steward, and a leaver is given nothing", async () => {
    expect(await refusal(give(db(), f.as("steward"), f.entryId, f.ids.guest, "steward"))).toMatchObject({
      field: "level",
    });
    expect(await refusal(give(db(), f.as("steward"), f.entryId, f.ids.leaver, "use"))).toMatchObject({
      field: "subject",
    });
  });

  test("history is never overwritten: the withdrawn grant keeps its rows", async () => {
    const { grantId } = await give(db(), f.as("steward"), f.otherEntryId, f.ids.use, "use");
    await changeAccess.execute(db(), { grantId, level: "reveal", from: null, until: null, why: "" }, f.as("steward"));
    const rows = (
      await db().opened.client.execute({
        sql: "select level, valid_until from grants where subject_id = ? and node_id = ? order by valid_from",
        args: [f.ids.use, f.otherEntryId],
      })
    ).rows;
    expect(rows.map((row) => [row.level, row.valid_until === null])).toEqual([
      ["use", false],
      ["reveal", true],
    ]);
  });

  test("whoever reaches it through a group is named, each as a person", async () => {
    const { groupId } = await createGroup.execute(db(), { name: "Night Team", description: "" }, f.as("owner"));
    await setMember.execute(
      db(),
      { groupId, personId: f.ids.nothing, from: null, until: null, keeper: false },
      f.as("owner"),
    );
    await giveAccess.execute(
      db(),
      { nodeId: f.entryId, subject: { kind: "group", id: groupId }, level: "use", from: null, until: null, why: "" },
      f.as("steward"),
    );
    const { reached } = await whoCanDoWhat.execute(db(), { nodeId: f.entryId }, f.as("steward"));
    expect(reached.find((one) => one.personId === f.ids.nothing)).toMatchObject({
      level: "use",
      sentence: expect.stringContaining("because Night Team has had Use on this entry"),
    });
    // Nobody adds themselves to a group that gives access.
    expect(
      (
        await refusal(
          setMember.execute(
            db(),
            { groupId, personId: f.ids.owner, from: null, until: null, keeper: false },
            f.as("owner"),
          ),
        )
      ).code,
    ).toBe("not-allowed");
    await removeMember.execute(db(), { groupId, personId: f.ids.nothing }, f.as("owner"));
    expect(await levelOf("nothing")).toBe("none");
  });
});

describe("people", () => {
  test("the last owner can neither be suspended nor leave nor lose the role", async () => {
    const other = await addPerson.execute(
      db(),
      { name: "Second Owner", mail: "second@tarrowick.example", role: "owner" },
      f.as("owner"),
    );
    await acceptLink.execute(db(), { token: new URL(other.link!).hash.slice(1), password: PASSWORD }, f.nobody);
    const asOther = { ...f.as("owner"), personId: other.personId };
    await suspendPerson.execute(db(), { personId: f.ids.owner, why: "" }, asOther);
    expect((await refusal(frontDesk.execute(db(), {}, f.as("owner")))).code).toBe("signed-out");
    await reinstate.execute(db(), { personId: f.ids.owner, why: "" }, asOther);
    await markLeaver.execute(db(), { personId: other.personId, why: "" }, f.as("owner"));
    const third = await addPerson.execute(
      db(),
      { name: "Third", mail: "third@tarrowick.example", role: "owner" },
      f.as("owner"),
    );
    await acceptLink.execute(db(), { token: new URL(third.link!).hash.slice(1), password: PASSWORD }, f.nobody);
    const asThird = { ...f.as("owner"), personId: third.personId };
    await changeRole.execute(db(), { personId: third.personId, role: "administrator" }, f.as("owner"));
    for (const work of [suspendPerson, markLeaver])
      expect((await refusal(work.execute(db(), { personId: f.ids.owner, why: "" }, asThird))).code).toBe("not-allowed");
    // Nor by themselves.
    expect((await refusal(suspendPerson.execute(db(), { personId: f.ids.owner, why: "" }, f.as("owner")))).code).toBe(
      "not-allowed",
    );
  });

  test("a link works once, and a renewed one ends the earlier one", async () => {
    const { link } = await addPerson.execute(
      db(),
      { name: "Once", mail: "once@tarrowick.example", role: "member" },
      f.as("owner"),
    );
    const token = new URL(link!).hash.slice(1);
    await acceptLink.execute(db(), { token, password: PASSWORD }, f.nobody);
    expect((await refusal(acceptLink.execute(db(), { token, password: PASSWORD }, f.nobody))).code).toBe("not-found");
  });

  test("guessing is slowed per account, known and unknown ones alike, and not in a browser one has used", async () => {
    const mail = "use@tarrowick.example";
    const right = await signIn.execute(db(), { mail, password: PASSWORD }, f.nobody);
    if (!right.signedIn) throw new Error("not signed in");
    const known = { ...f.nobody, knownBrowser: right.browserToken };
    const answers = async (address: string) => {
      const seen: string[] = [];
      for (let i = 0; i < 10; i++)
        seen.push(
          await signIn
            .execute(db(), { mail: address, password: "wrong" }, { ...f.nobody, address: "198.51.100.9" })
            .then(
              (answer) => (answer.signedIn ? "in" : answer.message),
              (error) => error.code,
            ),
        );
      return seen;
    };
    const [forKnown, forUnknown] = [await answers(mail), await answers("nobody-at-all@tarrowick.example")];
    expect(forKnown).toEqual(forUnknown);
    expect(forKnown.at(-1)).toBe("too-many");
    // Shut out elsewhere, not here.
    expect(
      (await refusal(signIn.execute(db(), { mail, password: PASSWORD }, { ...f.nobody, address: "198.51.100.10" })))
        .code,
    ).toBe("too-many");
    expect((await signIn.execute(db(), { mail, password: PASSWORD }, known)).signedIn).toBe(true);
    // One counted line, and nothing of the unknown address.
    await journalFailures.execute(db(), {}, { kind: "server" }, Date.now() + 2 * 60_000);
    const lines = await db().db.select().from(journal).where(eq(journal.act, "people.journalFailures"));
    expect(lines.map((line) => line.person)).toEqual([f.ids.use]);
    expect(JSON.parse(lines[0]!.details).count).toBe(8);
    const all = JSON.stringify((await db().opened.client.execute("select * from attempts")).rows);
    expect(all).not.toContain("nobody-at-all");
  });

  test("a session that is over, idle or of a leaver signs nobody in", async () => {
    const answer = await signIn.execute(db(), { mail: "reveal@tarrowick.example", password: PASSWORD }, f.nobody);
    if (!answer.signedIn) throw new Error("not signed in");
    const caller = { ...f.as("reveal"), sessionId: answer.sessionId };
    await frontDesk.execute(db(), {}, caller);
    await db().db.update(sessions).set({ endedAt: Date.now() }).where(eq(sessions.id, answer.sessionId));
    expect((await refusal(frontDesk.execute(db(), {}, caller))).code).toBe("signed-out");
  });
});

describe("who is told", () => {
  const noticesOf = async (kind: Parameters<Fixture["as"]>[0]) =>
    (await ownNotices.execute(db(), {}, f.as(kind))).map((notice) => notice.text);

  test("stewards, when somebody joins a group that reaches their node, and when a link of somebody with Reveal is renewed", async () => {
    const { groupId } = await createGroup.execute(db(), { name: "Tills", description: "" }, f.as("owner"));
    await giveAccess.execute(
      db(),
      { nodeId: f.vaultId, subject: { kind: "group", id: groupId }, level: "reveal", from: null, until: null, why: "" },
      f.as("steward"),
    );
    await setMember.execute(
      db(),
      { groupId, personId: f.ids.administrator, from: null, until: null, keeper: false },
      f.as("owner"),
    );
    expect(await noticesOf("steward")).toContain(
      "Person administrator was added to Tills, which has Reveal on Shop & Tickets.",
    );
    await renewLink.execute(db(), { personId: f.ids.administrator }, f.as("owner"));
    expect(await noticesOf("steward")).toContain(
      "A new sign-in link was created for Person administrator, who has Reveal or more in Shop & Tickets.",
    );
    await removeMember.execute(db(), { groupId, personId: f.ids.administrator }, f.as("owner"));
    expect(await noticesOf("use")).toEqual([]);
  });

  test("owners, when a leaver was something's last steward: that is never refused", async () => {
    const { personId, link } = await addPerson.execute(
      db(),
      { name: "Lone Steward", mail: "lone@tarrowick.example", role: "administrator" },
      f.as("owner"),
    );
    await acceptLink.execute(db(), { token: new URL(link!).hash.slice(1), password: PASSWORD }, f.nobody);
    await createVault.execute(db(), { name: "Orphan", description: "" }, { ...f.as("owner"), personId });
    const { alone } = await leavingPage.execute(db(), { personId }, f.as("owner"));
    const successors = alone.map(({ nodeId }) => ({ nodeId, personId: null }));
    await markLeaver.execute(db(), { personId, why: "", successors }, f.as("owner"));
    expect(await noticesOf("owner")).toContain(
      "The vault Orphan has no steward: Lone Steward was the last one. Nobody can give or end access there.",
    );
  });

  test("owners, a week ahead and once, when the last stewardship of something will end by itself", async () => {
    const { personId, link } = await addPerson.execute(
      db(),
      { name: "Going Away", mail: "going@tarrowick.example", role: "administrator" },
      f.as("owner"),
    );
    await acceptLink.execute(db(), { token: new URL(link!).hash.slice(1), password: PASSWORD }, f.nobody);
    const going = { ...f.as("owner"), personId };
    const { vaultId } = await createVault.execute(db(), { name: "Lent", description: "" }, going);
    const end = Date.now() + 10 * 24 * HOUR;
    await giveAccess.execute(
      db(),
      {
        nodeId: vaultId,
        subject: { kind: "person", id: f.ids.edit },
        level: "steward",
        from: null,
        until: end,
        why: "",
      },
      going,
    );
    const told = async () => (await noticesOf("owner")).filter((text) => text.startsWith("Lent "));
    const look = (at: number) => tellOfExpiry.execute(db(), {}, { kind: "server" }, at);
    // While somebody else is a steward for good, an end is no news.
    await look(end - 2 * 24 * HOUR);
    expect(await told()).toEqual([]);
    const { alone } = await leavingPage.execute(db(), { personId }, f.as("owner"));
    const successors = alone.map(({ nodeId }) => ({ nodeId, personId: null }));
    await markLeaver.execute(db(), { personId, why: "", successors }, f.as("owner"));
    await look(end - 9 * 24 * HOUR);
    expect(await told()).toEqual([]);
    await look(end - 6 * 24 * HOUR);
    await look(end - 5 * 24 * HOUR);
    expect(await told()).toHaveLength(1);
    expect((await told())[0]).toMatch(/^Lent will have no steward from /);
    await look(end + 60_000);
    await look(end + 120_000);
    expect(await told()).toHaveLength(2);
    expect((await told()).some((text) => text.startsWith("Lent has no steward:"))).toBe(true);
  });

  test("stewards, when a colleague says that it did not work: with what was noted, and not without end", async () => {
    const say = (note: string) =>
      didNotWork.execute(db(), { entryId: f.entryId, what: "asks-again", note }, f.as("use"));
    await say("since Monday");
    const [text] = (await noticesOf("steward")).filter((one) => one.includes("cannot sign in with"));
    expect(text).toMatch(
      /^Person use cannot sign in with .+: it still asks to sign in\. .+ They write: “since Monday”$/,
    );
    expect(await noticesOf("edit")).not.toContain(text);
    await say("");
    await say("");
    expect(await refusal(say(""))).toMatchObject({ code: "too-many" });
    expect(
      await refusal(didNotWork.execute(db(), { entryId: f.entryId, what: "asks-again", note: "" }, f.as("nothing"))),
    ).toMatchObject({ code: "not-found" });
  });
});

describe("entries", () => {
  const values = { name: "Shared", signInPage: "https://shared.example/in" };

  test("two people editing at once: the second is shown both, and neither is lost", async () => {
    const { entryId, versionId } = await addEntry.execute(
      db(),
      {
        parentId: f.vaultId,
        captured: false,
        values: { ...values, userName: "first", password: CANARY, notes: "as it was" },
      },
      f.as("steward"),
    );
    await give(db(), f.as("steward"), entryId, f.ids.edit, "edit");
    await changeEntry.execute(
      db(),
      {
        entryId,
        baseVersionId: versionId,
        captured: false,
        values: { ...values, userName: "second", password: "another-password-41", notes: "theirs" },
      },
      f.as("edit"),
    );
    const refused = await refusal(
      changeEntry.execute(
        db(),
        { entryId, baseVersionId: versionId, captured: false, values: { ...values, userName: "mine", notes: "mine" } },
        f.as("steward"),
      ),
    );
    expect(refused).toMatchObject({
      code: "conflict",
      message: "Person edit changed this entry while you were editing it.",
      data: { theirs: { notes: "theirs", userName: "second" }, secretsChanged: ["password"] },
    });
    expect(JSON.stringify(refused.data)).not.toContain("another-password-41");
    const base = refused.data!.versionId as string;
    await changeEntry.execute(
      db(),
      { entryId, baseVersionId: base, captured: false, values: { ...values, userName: "mine", notes: "both" } },
      f.as("steward"),
    );
    const page = await entryPage.execute(db(), { entryId }, f.as("steward"));
    expect(page.notes).toBe("both");
    expect(page.fields.find((field) => field.id === "userName")).toMatchObject({ value: "mine", filled: true });
    // The password that was left out is theirs, and every version is kept.
    expect(
      (await revealField.execute(db(), { entryId, field: "password", how: "revealed" }, f.as("steward"))).value,
    ).toBe("another-password-41");
    expect(page.versions).toHaveLength(3);
  });

  test("a blob moved to another row does not open", async () => {
    const [mine] = await db().db.select().from(entryVersions).where(eq(entryVersions.entryId, f.entryId));
    const [other] = await db().db.select().from(entryVersions).where(eq(entryVersions.entryId, f.otherEntryId));
    await expect(openValues(db().db, db().keys, { ...other!, sealed: mine!.sealed })).rejects.toThrow("does not open");
    expect((await openValues(db().db, db().keys, mine!)).fields.password).toBe(CANARY);
  });

  test("a login can be added to a vault or a folder of it, where one has Edit, and nowhere else", async () => {
    const places = async (kind: Parameters<Fixture["lanyard"]>[0]) =>
      (await keyList.execute(db(), {}, f.lanyard(kind))).mayAdd.map(({ name }) => name);
    const names = await places("steward");
    expect(names).toContain("Shop & Tickets");
    expect(names).toContain("Shop & Tickets › Drawer");
    for (const kind of ["reveal", "use", "guest", "nothing"] as const) expect(await places(kind)).toEqual([]);
  });

  test("binned: nobody uses it or learns of it; its steward restores it with everything", async () => {
    await binEntry.execute(db(), { entryIds: [f.entryId] }, f.as("steward"));
    for (const kind of ["use", "reveal", "edit"] as const) expect(await levelOf(kind)).toBe("none");
    expect((await frontDesk.execute(db(), {}, f.as("use"))).lines.map((line) => line.id)).not.toContain(f.entryId);
    expect((await keyList.execute(db(), {}, f.lanyard("use"))).keys.map((key) => key.id)).not.toContain(f.entryId);
    expect(
      (
        await refusal(
          revealField.execute(db(), { entryId: f.entryId, field: "password", how: "revealed" }, f.as("reveal")),
        )
      ).code,
    ).toBe("not-found");
    await restoreEntry.execute(db(), { entryIds: [f.entryId] }, f.as("steward"));
    expect(await levelOf("use")).toBe("use");
  });

  test("seen by names whoever was shown the current password, and starts anew when it changes", async () => {
    const { entryId, versionId } = await addEntry.execute(
      db(),
      { parentId: f.vaultId, captured: false, values: { ...values, password: "seen-by-somebody-1" } },
      f.as("steward"),
    );
    await give(db(), f.as("steward"), entryId, f.ids.reveal, "reveal");
    await revealField.execute(db(), { entryId, field: "password", how: "copied" }, f.as("reveal"));
    const names = async () =>
      (await entryPage.execute(db(), { entryId }, f.as("steward"))).seenBy!.map((one) => one.name).sort();
    expect(await names()).toEqual(["Person reveal", "Person steward"]);
    await changeEntry.execute(
      db(),
      { entryId, baseVersionId: versionId, captured: false, values: { ...values, password: "seen-by-somebody-2" } },
      f.as("administrator"),
    );
    expect(await names()).toEqual(["Person administrator"]);
  });

  test("guarded fill: only where the steward switched it on, only at that host, and it is a sighting", async () => {
    const ask = (page: string) => guardedFill.execute(db(), { entryId: f.entryId, page }, f.lanyard("use"));
    expect((await refusal(ask("https://pellam.example/sign-in"))).message).toContain("off for this entry");
    await changeSigningIn.execute(db(), { entryId: f.entryId, guardedFill: true, plainHttp: false }, f.as("steward"));
    expect((await refusal(ask("https://www.pellam.example/"))).message).toContain("only at pellam.example");
    expect((await refusal(ask("http://pellam.example/"))).message).toContain("not encrypted");
    // Where the page asks for the user name alone nothing more leaves, nobody has seen it, and nothing was signed in to.
    const part = { entryId: f.entryId, page: "https://pellam.example/sign-in", part: "user-name" as const };
    const first = await guardedFill.execute(db(), part, f.lanyard("use"));
    expect(first).toMatchObject({ userName: CANARY_USER, password: null, code: null, signInId: null });
    expect(JSON.stringify(first)).not.toContain(CANARY);
    expect(
      (await entryPage.execute(db(), { entryId: f.entryId }, f.as("steward"))).seenBy!.map((one) => one.name),
    ).not.toContain("Person use");
    expect(await ask("https://pellam.example/sign-in")).toMatchObject({ password: CANARY });
    expect(
      (await entryPage.execute(db(), { entryId: f.entryId }, f.as("steward"))).seenBy!.map((one) => one.name),
    ).toContain("Person use");
    await changeSigningIn.execute(db(), { entryId: f.entryId, guardedFill: false, plainHttp: false }, f.as("steward"));
  });

  test.each([
    [{ name: "" }, "values.name"],
    [{ name: "\u200b\n" }, "values.name"],
    [{ signInPage: "nonsense" }, "values.signInPage"],
    [{ signInPage: "ftp://pellam.example" }, "values.signInPage"],
    [{ code: "not base32!" }, "values.code"],
    [{ notes: "x".repeat(2_000_000) }, "values.notes"],
    [{ extras: [{ id: "a", label: "", class: "open" as const, value: "" }] }, "values.extras.0.label"],
  ])("bad input is refused at its place: %o", async (part, field) => {
    expect(
      await refusal(
        addEntry.execute(
          db(),
          { parentId: f.vaultId, captured: false, values: { ...values, ...part } },
          f.as("steward"),
        ),
      ),
    ).toMatchObject({ code: "bad-input", field });
  });

  test("names in any script and right-to-left text are kept as they are", async () => {
    for (const name of ["متجر المتحف", "博物館ショップ", "Þjóðminjasafn 🔑", "می\u200cخواهم"]) {
      const { entryId } = await addEntry.execute(
        db(),
        { parentId: f.vaultId, captured: false, values: { ...values, name } },
        f.as("steward"),
      );
      expect((await entryPage.execute(db(), { entryId }, f.as("steward"))).name).toBe(name);
    }
  });
});

describe("who may know what", () => {
  test("a colleague reads their own acts; a steward what happened at hers; an administrator no names of what she does not reach", async () => {
    const { vaultId } = await createVault.execute(db(), { name: "Money", description: "" }, f.as("owner"));
    const { entryId } = await addEntry.execute(
      db(),
      {
        parentId: vaultId,
        captured: false,
        values: { name: "Secret supplier", signInPage: "https://supplier.example/" },
      },
      f.as("owner"),
    );
    expect(entryId).toBeTruthy();
    const text = async (kind: Parameters<Fixture["as"]>[0]) =>
      JSON.stringify(
        await journalPage.execute(db(), { before: null, personId: null, nodeId: null, acts: null }, f.as(kind)),
      );
    expect(await text("owner")).toContain("Secret supplier");
    expect(await text("administrator")).not.toContain("Secret supplier");
    expect(await text("administrator")).toContain("an entry in Money");
    expect(await text("use")).not.toContain("Person steward");
    expect(await text("steward")).toContain("gave Person use Use on Pellam Tickets");
    expect(await text("steward")).not.toContain("Money");
  });

  test("a guest learns of nobody but the person who asked them in", async () => {
    const page = JSON.stringify(await entryPage.execute(db(), { entryId: f.entryId }, f.as("guest")));
    expect(page).toContain("Hanna Owner");
    for (const name of ["Person steward", "Person administrator", "Person edit", "Night Team"])
      expect(page).not.toContain(name);
  });
});

describe("guesses", () => {
  const page = "https://pellam.example/sign-in";
  const compare = (kind: Parameters<Fixture["lanyard"]>[0], password: string, entryIds = [f.entryId]) =>
    compareLogin
      .execute(db(), { entryIds, password }, f.lanyard(kind), Date.now() + Math.random() * 1e9 + 1e9)
      .then(JSON.stringify, (error) => error.code as string);
  /** What that Lanyard does with a login that its person has typed. */
  const judged = async (kind: Parameters<Fixture["lanyard"]>[0], userName: string, at = page) => {
    const keys = await keyList.execute(db(), {}, f.lanyard(kind));
    return keptAlready(keys.keys, at, userMarkOf(fromBase64(keys.markKey), userName)).answer;
  };

  test("a password is compared by those who may Reveal it, and by nobody else", async () => {
    for (const kind of ["use", "guest"] as const)
      for (const password of [CANARY, "not the password"]) expect(await compare(kind, password)).toBe("not-allowed");
    for (const password of [CANARY, "not the password"]) expect(await compare("nothing", password)).toBe("not-found");
    // One that may be revealed does not open the way to one that may not.
    expect(await compare("reveal", CANARY, [f.entryId, f.otherEntryId])).toBe("not-found");
    expect(await compare("reveal", "not the password")).toBe(JSON.stringify({ answer: "kept" }));
  });

  test("Lanyard tells by what it has: at Use whatever was typed is kept, at Reveal what has the same user name", async () => {
    for (const userName of [CANARY_USER, "other", ""]) {
      expect(await judged("use", userName)).toBe("kept");
      expect(await judged("nothing", userName)).toBe("new");
    }
    expect(await judged("reveal", CANARY_USER)).toBe("compare");
    expect(await judged("reveal", "other")).toBe("new");
    expect(await judged("reveal", CANARY_USER, "https://elsewhere.example/in")).toBe("new");
  });

  test("what Lanyard has for that holds no user name, and is another Lanyard's nothing", async () => {
    const [edit, reveal] = await Promise.all(
      (["edit", "reveal"] as const).map((kind) => keyList.execute(db(), {}, f.lanyard(kind))),
    );
    expect(JSON.stringify([edit, reveal])).not.toContain(CANARY_USER);
    expect(edit!.markKey).not.toBe(reveal!.markKey);
    const marks = [edit, reveal].map((list) => list!.keys.find(({ id }) => id === f.entryId)!.userMark);
    expect(new Set(marks).size).toBe(2);
    const use = await keyList.execute(db(), {}, f.lanyard("use"));
    expect(use.keys.find(({ id }) => id === f.entryId)).toMatchObject({ userMark: null, comparable: false });
  });

  test("an editor is told which entry would get the new password; tries are limited", async () => {
    expect(await compare("edit", "the new password")).toContain('"changed"');
    expect(await compare("edit", CANARY)).toContain("kept");
    const at = Date.now() + 2.2e9;
    const ask = () => compareLogin.execute(db(), { entryIds: [f.entryId], password: "y" }, f.lanyard("reveal"), at);
    for (let i = 0; i < 30; i++) await ask();
    expect((await refusal(ask())).code).toBe("too-many");
  });
});

describe("folders", () => {
  const folder = async (name: string, parentId = f.vaultId) =>
    (await createFolder.execute(db(), { parentId, name }, f.as("steward"))).folderId;
  const entry = async (name: string, parentId: string) =>
    (
      await addEntry.execute(
        db(),
        { parentId, values: { name, signInPage: `https://${name.toLowerCase()}.example/in` } },
        f.as("steward"),
      )
    ).entryId;
  const move = (kind: Parameters<Fixture["as"]>[0], nodeIds: string[], parentId: string) =>
    moveNodes.execute(db(), { nodeIds, parentId }, f.as(kind));

  test("what is given on a folder reaches all that lies in it, and says so", async () => {
    const outer = await folder("Ticketing");
    const inner = await folder("Season", outer);
    const entryId = await entry("Linnet", inner);
    expect(await levelOf("nothing", entryId)).toBe("none");
    const { grantId } = await give(db(), f.as("steward"), outer, f.ids.nothing, "use");
    const page = await entryPage.execute(db(), { entryId }, f.as("nothing"));
    expect(page.own.sentence).toContain("because you have had Use on the folder Ticketing");
    expect(page.folders.map((one) => one.name)).toEqual(["Ticketing", "Season"]);
    const ledger = await vaultLedger.execute(db(), { vaultId: f.vaultId }, f.as("nothing"));
    const rows = unpack(ledger.rows);
    const linnet = rows.find((row) => row.id === entryId)!;
    const season = rows.find((row) => row.id === linnet.parentId)!;
    expect([season.type, season.name, season.parentId]).toEqual(["folder", "Season", outer]);
    await endAccess.execute(db(), { grantId }, f.as("steward"));
    expect(await levelOf("nothing", entryId)).toBe("none");
  });

  test("a guest learns neither the vault's name nor those of the folders around", async () => {
    const outer = await folder("Secret plans");
    const entryId = await entry("Plover", outer);
    await give(db(), f.as("steward"), entryId, f.ids.guest, "use");
    const answers = JSON.stringify([
      await entryPage.execute(db(), { entryId }, f.as("guest")),
      await vaultLedger.execute(db(), { vaultId: f.vaultId }, f.as("guest")),
      await frontDesk.execute(db(), {}, f.as("guest")),
      await vaultList.execute(db(), {}, f.as("guest")),
      await keyList.execute(db(), {}, f.lanyard("guest")),
    ]);
    expect(answers).toContain("Plover");
    for (const name of ["Secret plans", "Shop & Tickets"]) expect(answers).not.toContain(name);
  });

  test("to the bin as one thing, and back as one thing; what lay there before stays there", async () => {
    const outer = await folder("Old shop");
    const inner = await folder("Tills", outer);
    const [kept, gone] = [await entry("Heron", inner), await entry("Egret", outer)];
    await give(db(), f.as("steward"), kept, f.ids.nothing, "use");
    await binEntry.execute(db(), { entryIds: [gone] }, f.as("steward"));
    await binFolder.execute(db(), { folderId: outer }, f.as("steward"));
    expect(await levelOf("nothing", kept)).toBe("none");
    expect((await refusal(restoreEntry.execute(db(), { entryIds: [gone] }, f.as("steward")))).message).toContain(
      "Restore that first",
    );
    expect((await refusal(restoreFolder.execute(db(), { folderId: inner }, f.as("steward")))).message).toContain(
      "Restore that folder",
    );
    for (const parentId of [outer, inner])
      expect((await refusal(createFolder.execute(db(), { parentId, name: "x" }, f.as("steward")))).message).toContain(
        "in the bin",
      );
    await restoreFolder.execute(db(), { folderId: outer }, f.as("steward"));
    expect(await levelOf("nothing", kept)).toBe("use");
    const ledger = await vaultLedger.execute(db(), { vaultId: f.vaultId }, f.as("steward"));
    expect(ledger.bin.map((row) => row.id)).toContain(gone);
    expect(unpack(ledger.rows).find((row) => row.id === kept)?.parentId).toBe(inner);
  });

  test("a folder with something of other stewards is not binned over their heads", async () => {
    const outer = await folder("Shared shelf");
    const entryId = await entry("Avocet", outer);
    await give(db(), f.as("steward"), entryId, f.ids.edit, "steward");
    await give(db(), f.as("edit"), entryId, f.ids.steward, "use");
    expect((await refusal(binFolder.execute(db(), { folderId: outer }, f.as("steward")))).message).toContain(
      "other stewards",
    );
  });

  test("moving: grants travel, what is inherited changes; only stewards change anybody's access by it", async () => {
    const [from, to] = [await folder("From"), await folder("To")];
    const entryId = await entry("Curlew", from);
    await give(db(), f.as("steward"), from, f.ids.edit, "edit");
    await give(db(), f.as("steward"), to, f.ids.edit, "edit");
    await give(db(), f.as("steward"), entryId, f.ids.reveal, "reveal");
    // The same for everybody: Edit is enough, there and back.
    const preview = await movePreview.execute(db(), { nodeIds: [entryId], parentId: to }, f.as("edit"));
    expect(preview).toEqual({ may: true, changes: false, effects: [] });
    await move("edit", [entryId], to);
    expect((await refusal(move("edit", [entryId], to))).message).toBe("It is already there.");
    await move("edit", [entryId], from);
    // Somebody would gain: no longer.
    await give(db(), f.as("steward"), to, f.ids.nothing, "use");
    expect(await movePreview.execute(db(), { nodeIds: [entryId], parentId: to }, f.as("edit"))).toEqual({
      may: false,
      changes: true,
      effects: [],
    });
    expect((await refusal(move("edit", [entryId], to))).code).toBe("not-allowed");
    const told = await movePreview.execute(db(), { nodeIds: [entryId], parentId: to }, f.as("steward"));
    expect(told.effects).toMatchObject([{ name: "Person nothing", node: "Curlew", before: "none", after: "use" }]);
    await move("steward", [entryId], to);
    expect(await levelOf("nothing", entryId)).toBe("use");
    expect(await levelOf("reveal", entryId)).toBe("reveal");
    // As it was stays on record.
    const rows = await db().db.select().from(places).where(eq(places.nodeId, entryId));
    expect(rows.map((row) => row.parentId).sort()).toEqual([from, from, to, to].sort());
    expect(rows.filter((row) => row.validUntil === null).map((row) => row.parentId)).toEqual([to]);
  });

  test("an access that only begins later counts as changed too", async () => {
    const [from, to] = [await folder("Now"), await folder("Later")];
    const entryId = await entry("Dunlin", from);
    await giveAccess.execute(
      db(),
      {
        nodeId: to,
        subject: { kind: "person", id: f.ids.nothing },
        level: "use",
        from: Date.now() + HOUR,
        until: null,
        why: "",
      },
      f.as("steward"),
    );
    const told = await movePreview.execute(db(), { nodeIds: [entryId], parentId: to }, f.as("steward"));
    expect(told.effects).toMatchObject([{ name: "Person nothing", before: "none", after: "use" }]);
  });

  test("not into itself, not out of its vault, not without end", async () => {
    const outer = await folder("Outer");
    let inner = await folder("Inner", outer);
    expect((await refusal(move("steward", [outer], inner))).message).toBe("A folder cannot go into itself.");
    expect((await refusal(move("steward", [f.vaultId], outer))).message).toBe("A vault cannot be moved.");
    const { vaultId } = await createVault.execute(db(), { name: "Elsewhere", description: "" }, f.as("administrator"));
    await give(db(), f.as("administrator"), vaultId, f.ids.steward, "steward");
    expect((await refusal(move("steward", [outer], vaultId))).message).toBe("It stays in its vault.");
    for (let depth = 3; depth <= DEEPEST; depth++) inner = await folder(`Depth ${depth}`, inner);
    expect((await refusal(folder("Too deep", inner))).message).toContain("at most 30 deep");
    const pair = await folder("Pair");
    await folder("Half", pair);
    expect((await refusal(move("steward", [pair], inner))).message).toContain("at most 30 deep");
  });
});

describe("kinds", () => {
  const door = (more: object = {}) =>
    addEntry.execute(
      db(),
      {
        parentId: f.vaultId,
        kind: "door",
        values: { name: "Back door", where: "Yard", "code-to-enter": "90210#", ...more },
      },
      f.as("steward"),
    );

  test("open fields at Use, what is hidden from Reveal up, one at a time, and nobody signs in with it", async () => {
    const { entryId } = await door();
    await give(db(), f.as("steward"), entryId, f.ids.use, "use");
    const page = await entryPage.execute(db(), { entryId }, f.as("use"));
    expect(page.fields.map((field) => [field.id, field.value])).toEqual([
      ["where", "Yard"],
      ["keyholder", ""],
      ["line", ""],
    ]);
    expect(JSON.stringify(page)).not.toContain("90210");
    const reveal = (kind: "use" | "reveal", field: string) =>
      revealField.execute(db(), { entryId, field, how: "revealed" }, f.as(kind));
    expect((await refusal(reveal("use", "code-to-enter"))).code).toBe("not-allowed");
    await give(db(), f.as("steward"), entryId, f.ids.reveal, "reveal");
    expect(await reveal("reveal", "code-to-enter")).toMatchObject({ value: "90210#" });
    for (const field of ["where", "constructor", "__proto__", "password"])
      expect((await refusal(reveal("reveal", field))).code).toBe("not-found");
    expect((await entryPage.execute(db(), { entryId }, f.as("steward"))).seenBy?.map((one) => one.name)).toEqual([
      "Person reveal",
      "Person steward",
    ]);
    expect((await refusal(beginSignIn.execute(db(), { entryId }, f.lanyard("use")))).message).toContain(
      "no sign-in page",
    );
    const keys = await keyList.execute(db(), {}, f.lanyard("use"));
    expect(keys.keys.some((key) => key.id === entryId)).toBe(false);
    const desk = await frontDesk.execute(db(), {}, f.as("use"));
    expect(desk.lines.find((line) => line.id === entryId)).toMatchObject({ how: "opened", kind: "Door or alarm" });
  });

  test("what does not belong to the kind is refused at its place; no other kind is made up", async () => {
    expect(await refusal(door({ "code-to-enter": "12a" }))).toMatchObject({ field: "values.code-to-enter" });
    expect(await refusal(door({ userName: "x" }))).toMatchObject({ code: "bad-input", field: "values" });
    const made = addEntry.execute(
      db(),
      { parentId: f.vaultId, kind: "spaceship", values: { name: "x" } },
      f.as("steward"),
    );
    expect(await refusal(made)).toMatchObject({ code: "bad-input", field: "kind" });
  });

  test("changed in one field, the others stay; the change names the field", async () => {
    const { entryId, versionId } = await door({ "code-under-duress": "90219#" });
    const { changed } = await changeEntry.execute(
      db(),
      { entryId, baseVersionId: versionId, values: { name: "Back door", where: "Yard", "code-to-enter": "1111#" } },
      f.as("steward"),
    );
    expect(changed).toBe("code");
    const [version] = await db()
      .db.select()
      .from(entryVersions)
      .where(eq(entryVersions.entryId, entryId))
      .orderBy(desc(entryVersions.number))
      .limit(1);
    expect((await openValues(db().db, db().keys, version!)).fields).toEqual({
      "code-to-enter": "1111#",
      "code-under-duress": "90219#",
    });
  });
});

describe("why it ended", () => {
  const why = async (kind: Parameters<Fixture["as"]>[0], entryId: string, at = Date.now()) =>
    (await whyEnded.execute(db(), { entryId }, f.as(kind), at))?.says ?? null;

  test("said to whom it concerns, of their own line only", async () => {
    const { entryId } = await addEntry.execute(
      db(),
      { parentId: f.vaultId, values: { name: "Marlow Sails", signInPage: "https://marlow.example/in" } },
      f.as("steward"),
    );
    // Who never had it learns nothing, not even that it exists; who has it is told nothing either.
    expect(await why("nothing", entryId)).toBeNull();
    expect(await why("steward", entryId)).toBeNull();
    expect(await why("nothing", "0190a000-0000-7000-8000-000000000000")).toBeNull();

    const until = Date.now() + HOUR;
    const { grantId } = await give(db(), f.as("steward"), entryId, f.ids.nothing, "use", until);
    expect(await why("nothing", entryId)).toBeNull();
    expect(await why("nothing", entryId, until + 1)).toMatch(
      /^It was given until today, \d\d:\d\d\.$|^It was given until tomorrow/,
    );
    await endAccess.execute(db(), { grantId }, f.as("administrator"));
    expect(await why("nothing", entryId)).toMatch(/^Person administrator ended it \(today, \d\d:\d\d\)\.$/);
    expect(await why("use", entryId)).toBeNull();

    await give(db(), f.as("steward"), entryId, f.ids.nothing, "blocked");
    expect(await why("nothing", entryId)).toMatch(/^Person steward set you to Blocked/);

    await give(db(), f.as("steward"), entryId, f.ids.use, "use");
    await binEntry.execute(db(), { entryIds: [entryId] }, f.as("steward"));
    expect(await why("use", entryId)).toMatch(/^It was put in the bin/);
  });

  test("a guest is told no name", async () => {
    const { grantId } = await give(db(), f.as("steward"), f.otherEntryId, f.ids.guest, "use");
    await endAccess.execute(db(), { grantId }, f.as("steward"));
    expect(await why("guest", f.otherEntryId)).toMatch(/^Its steward ended it/);
  });

  test("through a group, once somebody has signed in with it", async () => {
    const { entryId } = await addEntry.execute(
      db(),
      { parentId: f.vaultId, values: { name: "Oakum Rope", signInPage: "https://oakum.example/in" } },
      f.as("steward"),
    );
    const { groupId } = await createGroup.execute(db(), { name: "Rope Walk", description: "" }, f.as("owner"));
    const terms = { from: null, until: null };
    await setMember.execute(db(), { groupId, personId: f.ids.nothing, keeper: false, ...terms }, f.as("owner"));
    await giveAccess.execute(
      db(),
      { nodeId: entryId, subject: { kind: "group", id: groupId }, level: "use", why: "", ...terms },
      f.as("steward"),
    );
    const at = Date.now();
    await db().db.insert(signIns).values({
      id: "0190a000-0000-7000-8000-00000000aaaa",
      entryId,
      versionId: "v",
      personId: f.ids.nothing,
      lanyardId: "l",
      how: "sealed",
      queueKey: "q",
      process: "p",
      begunAt: at,
      endedAt: at,
      outcome: "signed-in",
    });
    expect(await why("nothing", entryId)).toBeNull();
    await removeMember.execute(db(), { groupId, personId: f.ids.nothing }, f.as("owner"));
    expect(await why("nothing", entryId)).toMatch(/^You are no longer in Rope Walk/);
  });
});
