/** Bringing in many entries: all or nothing, seen by nobody before, undone within a day. */
import { spawn } from "node:child_process";
import { hostname } from "node:os";
import { eq, sql } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { type Fixture, give, makeFixture } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { unpack } from "../src/core/packed";
import { carriesSecret, tracesOf } from "../src/core/signin/carries";
import { setApproval } from "../src/server/access/requests/approvals";
import { entries, importUpdates, journal } from "../src/server/database/schema";
import { frontDesk } from "../src/server/frontdesk/frontDesk";
import { sweepDeadImports } from "../src/server/housekeeping";
import { journalPage } from "../src/server/journal/page";
import { compareLogin, keyList } from "../src/server/lanyard/keys";
import { sweepOld } from "../src/server/upkeep/sweeping";
import { compareRows } from "../src/server/vaults/comparing";
import { addEntry, changeEntry } from "../src/server/vaults/entries";
import { entryPage } from "../src/server/vaults/entryPage";
import { createFolder } from "../src/server/vaults/folders";
import { beginImport, cancelImport, importChunk, publishImport } from "../src/server/vaults/importing";
import { importPage, undoImport } from "../src/server/vaults/importUndo";
import { revealField } from "../src/server/vaults/revealing";
import { setPasswordOnReveal } from "../src/server/vaults/signingIn";
import { vaultLedger } from "../src/server/vaults/vaults";

const CANARY = "canary-brought-in/Quince 81";

let app: InProcess;
let f: Fixture;
const db = () => app.galtry;

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
});
afterAll(() => app.close());

const login = (name: string, more: object = {}, folder: string[] = []) => ({
  kind: "website-login",
  values: {
    name,
    signInPage: `https://${name.toLowerCase()}.example/in`,
    userName: name,
    password: `${CANARY} ${name}`,
    ...more,
  },
  folder,
});

const count = async (table: string) =>
  Number((await db().opened.client.execute(`select count(*) as n from ${table}`)).rows[0]!.n);
const TABLES = ["nodes", "places", "entries", "entry_versions", "fingerprints", "sightings", "met", "import_rows"];
const sizes = async () =>
  Object.fromEntries(await Promise.all(TABLES.map(async (table) => [table, await count(table)])));
const refusal = async (work: Promise<unknown>) =>
  work.then(
    () => ({ code: "", message: "" }),
    (error: { code: string; message: string }) => error,
  );

async function begun(rows: object[], parentId = f.vaultId) {
  const { importId } = await beginImport.execute(db(), { parentId }, f.as("steward"));
  await importChunk.execute(db(), { importId, rows }, f.as("steward"));
  return importId;
}

describe("bringing in", () => {
  test("nobody reaches it before it is published, not even who brings it; then all of it, in its folders", async () => {
    const importId = await begun([
      login("Auk"),
      login("Bittern", {}, ["Birds", "Marsh"]),
      login("Crake", {}, ["Birds"]),
    ]);
    const everything = async () =>
      JSON.stringify([
        await vaultLedger.execute(db(), { vaultId: f.vaultId }, f.as("steward")),
        await frontDesk.execute(db(), {}, f.as("steward")),
        await keyList.execute(db(), {}, f.lanyard("steward")),
        await journalPage.execute(db(), {}, f.as("owner")),
      ]);
    for (const name of ["Auk", "Bittern", "Birds"]) expect(await everything()).not.toContain(name);
    const published = await publishImport.execute(db(), { importId }, f.as("steward"));
    expect(published).toMatchObject({ entries: 3, folders: 2 });
    const rows = unpack((await vaultLedger.execute(db(), { vaultId: f.vaultId }, f.as("steward"))).rows);
    const way = (name: string): string => {
      const row = rows.find((one) => one.name === name)!;
      return row.parentId === null ? name : `${way(rows.find((one) => one.id === row.parentId)!.name)}/${name}`;
    };
    expect(["Auk", "Bittern", "Crake"].map(way)).toEqual(["Auk", "Birds/Marsh/Bittern", "Birds/Crake"]);
    const bittern = rows.find((row) => row.name === "Bittern")!.id;
    const revealed = await revealField.execute(
      db(),
      { entryId: bittern, field: "password", how: "revealed" },
      f.as("steward"),
    );
    expect(revealed.value).toBe(`${CANARY} Bittern`);
    expect((await entryPage.execute(db(), { entryId: bittern }, f.as("administrator"))).seenBy?.[0]).toMatchObject({
      name: "Person steward",
    });
    expect(await everything()).toContain("imported 3 entries to Shop & Tickets");
    // No answer but the reveal holds what was brought in.
    expect(carriesSecret([await everything()], tracesOf(`${CANARY} Bittern`, ""))).toBe(false);
  });

  test("folders that are there are used, not made twice", async () => {
    await createFolder.execute(db(), { parentId: f.vaultId, name: "Shelf" }, f.as("steward"));
    const importId = await begun([login("Dotterel", {}, ["Shelf"]), login("Dunnock", {}, ["Shelf"])]);
    expect(await publishImport.execute(db(), { importId }, f.as("steward"))).toMatchObject({ entries: 2, folders: 0 });
  });

  test("what is stopped leaves nothing behind", async () => {
    const before = await sizes();
    const importId = await begun([
      login("Eider"),
      login("Egret", { extras: [{ id: "a", label: "A", class: "secret", value: "x" }] }),
    ]);
    expect((await sizes()).entries).toBe(before.entries + 2);
    await cancelImport.execute(db(), { importId }, f.as("steward"));
    await sweepDeadImports(db());
    expect(await sizes()).toEqual(before);
    expect((await refusal(publishImport.execute(db(), { importId }, f.as("steward")))).message).toContain("is over");
  });

  test("so does what was left alone, and what a process began that is no more", async () => {
    const before = await sizes();
    const alone = await begun([login("Fulmar")]);
    const orphan = await begun([login("Finch")]);
    await db().opened.client.execute({ sql: "update imports set moved_at = 0 where id = ?", args: [alone] });
    // No process has the number 0 beside this one.
    await db().opened.client.execute({
      sql: "update imports set process = ? where id = ?",
      args: [`${hostname()}:4194000`, orphan],
    });
    await sweepDeadImports(db());
    expect(await sizes()).toEqual(before);
  });

  test("only who began it goes on with it, and only with Edit there", async () => {
    const importId = await begun([login("Gannet")]);
    for (const kind of ["administrator", "owner", "use"] as const)
      for (const work of [
        () => importChunk.execute(db(), { importId, rows: [login("Gull")] }, f.as(kind)),
        () => publishImport.execute(db(), { importId }, f.as(kind)),
        () => cancelImport.execute(db(), { importId }, f.as(kind)),
      ])
        expect((await refusal(work())).code).toBe("not-found");
    expect((await refusal(beginImport.execute(db(), { parentId: f.vaultId }, f.as("use")))).code).toBe("not-found");
    await cancelImport.execute(db(), { importId }, f.as("steward"));
  });

  test("a row that cannot be kept is refused with its chunk, and nothing of it stays", async () => {
    const { importId } = await beginImport.execute(db(), { parentId: f.vaultId }, f.as("steward"));
    const before = await sizes();
    const rows = [login("Heron"), login("Hobby", { signInPage: "ftp://x" })];
    expect((await refusal(importChunk.execute(db(), { importId, rows }, f.as("steward")))).code).toBe("bad-input");
    expect(await sizes()).toEqual(before);
    await cancelImport.execute(db(), { importId }, f.as("steward"));
  });
});

describe("what is already in Galtry", () => {
  const ask = (kind: Parameters<Fixture["as"]>[0], password: string) =>
    compareRows.execute(
      db(),
      { rows: [{ page: "https://kestrel.example/elsewhere", userName: "Kestrel", password }] },
      f.as(kind),
    );

  test("is recognised by those who may reveal it; others learn nothing, whatever they try", async () => {
    const importId = await begun([login("Kestrel")]);
    await publishImport.execute(db(), { importId }, f.as("steward"));
    expect(await ask("steward", `${CANARY} Kestrel`)).toEqual([{ likeness: "same", entryId: null }]);
    const rows = unpack((await vaultLedger.execute(db(), { vaultId: f.vaultId }, f.as("steward"))).rows);
    const kestrel = rows.find((row) => row.name === "Kestrel")!.id;
    expect(await ask("steward", "another")).toEqual([{ likeness: "other password", entryId: kestrel }]);
    await give(db(), f.as("steward"), kestrel, f.ids.use, "use");
    await give(db(), f.as("steward"), kestrel, f.ids.reveal, "reveal");
    // Who may reveal it and not edit it may bring theirs in beside it, and no more.
    expect(await ask("reveal", "another")).toEqual([{ likeness: "other password", entryId: null }]);
    for (const kind of ["use", "nothing"] as const)
      for (const password of [`${CANARY} Kestrel`, "another"])
        expect(await ask(kind, password)).toEqual([{ likeness: "new", entryId: null }]);
  });
});

describe("comparing is no way to guess", () => {
  const row = (password: string) => ({ page: "https://kestrel.example/", userName: "Kestrel", password });
  const compare = (rows: ReturnType<typeof row>[], at: number, kind: Parameters<Fixture["as"]>[0] = "reveal") =>
    compareRows.execute(db(), { rows }, f.as(kind), at);
  const DAY = 86_400_000;

  test("five wrong passwords for one login in a quarter of an hour, one by one or at once", async () => {
    let at = Date.now() + DAY;
    for (let i = 0; i < 5; i++) await compare([row(`guess ${i}`)], at);
    expect((await refusal(compare([row("guess 5")], at))).code).toBe("too-many");
    // What was compared already says nothing new: a file may be looked at again.
    await compare([row("guess 1"), row("guess 4")], at);
    at += DAY;
    const many = Array.from({ length: 500 }, (_, i) => row(`guess ${i}`));
    expect((await refusal(compare(many, at))).code).toBe("too-many");
    await compare([row("guess 7")], at);
  });

  test("rows count, not questions, and each question is a line of the Journal", async () => {
    const at = Date.now() + 3 * DAY;
    const other = (i: number) => ({ page: `https://site${i}.example/`, userName: "x", password: "y" });
    const rows = Array.from({ length: 500 }, (_, i) => other(i));
    for (let i = 0; i < 120; i++) await compare(rows, at, "nothing");
    expect((await refusal(compare(rows, at, "nothing"))).code).toBe("too-many");
    const lines = (await db().db.select().from(journal)).filter(
      (line) => line.person === f.ids.nothing && line.at === at,
    );
    expect(lines.filter((line) => line.act === "vaults.compareRows" && line.outcome === "done")).toHaveLength(120);
    const page = await journalPage.execute(db(), {}, f.as("nothing"), at);
    expect(
      page.lines.filter(({ says }) => says === "compared 500 rows of a file with the entries in Galtry").length,
    ).toBeGreaterThan(40);
  });

  test("with an entry that requires an approval or the sign-in password nothing is compared", async () => {
    const rows = unpack((await vaultLedger.execute(db(), { vaultId: f.vaultId }, f.as("steward"))).rows);
    const entryId = rows.find(({ name }) => name === "Kestrel")!.id;
    const at = Date.now() + 5 * DAY;
    const right = row(`${CANARY} Kestrel`);
    const twin = await addEntry.execute(
      db(),
      {
        parentId: f.vaultId,
        captured: false,
        values: { name: "Twin", signInPage: "https://twin.example/", password: right.password },
      },
      f.as("steward"),
    );
    const alikeOf = async (id: string) =>
      (await entryPage.execute(db(), { entryId: id }, f.as("steward"))).conditions.password?.alike.map(
        ({ name }) => name,
      );
    expect(await alikeOf(twin.entryId)).toContain("Kestrel");
    for (const gate of ["asksFirst", "askAgain"] as const) {
      if (gate === "asksFirst") await setApproval.execute(db(), { entryId, stewards: 1, minutes: 5 }, f.as("steward"));
      else await setPasswordOnReveal.execute(db(), { entryId, askAgain: true }, f.as("steward"));
      expect(await compare([right], at, "steward")).toEqual([{ likeness: "new", entryId: null }]);
      // Neither is it told where the same password is used, on either side.
      expect(await alikeOf(twin.entryId)).not.toContain("Kestrel");
      expect(await alikeOf(entryId)).toEqual([]);
      const asked = { entryIds: [entryId], password: right.password };
      expect((await refusal(compareLogin.execute(db(), asked, f.lanyard("steward"), at))).code).toBe("not-allowed");
      if (gate === "asksFirst") await db().db.update(entries).set({ asksFirst: 0 }).where(eq(entries.nodeId, entryId));
      else await setPasswordOnReveal.execute(db(), { entryId, askAgain: false }, f.as("steward"));
    }
  });
});

describe("updating what is kept", () => {
  const update = async (entryId: string, password: string) => {
    const { importId } = await beginImport.execute(db(), { parentId: f.vaultId }, f.as("steward"));
    const rows = [{ ...login("Updated", { password }), updates: entryId }];
    await importChunk.execute(db(), { importId, rows }, f.as("steward"));
    return importId;
  };
  const password = async (entryId: string) =>
    (await revealField.execute(db(), { entryId, field: "password", how: "revealed" }, f.as("steward"))).value;

  test("is seen by nobody before it is published, keeps the rest, and is taken back with the whole", async () => {
    const { entryId } = await addEntry.execute(
      db(),
      { parentId: f.vaultId, values: { ...login("Updated").values, password: "before 1", notes: "stays" } },
      f.as("steward"),
    );
    const importId = await update(entryId, CANARY);
    expect((await entryPage.execute(db(), { entryId }, f.as("steward"))).versions).toHaveLength(1);
    expect(await password(entryId)).toBe("before 1");
    const { updated } = await publishImport.execute(db(), { importId }, f.as("steward"));
    expect(updated).toHaveLength(1);
    const view = await entryPage.execute(db(), { entryId }, f.as("steward"));
    expect([view.notes, view.versions!.length, await password(entryId)]).toEqual(["stays", 2, CANARY]);
    expect((await importPage.execute(db(), { importId }, f.as("steward"))).updated).toBe(1);
    await undoImport.execute(db(), { importId }, f.as("steward"));
    expect([await password(entryId), (await entryPage.execute(db(), { entryId }, f.as("steward"))).notes]).toEqual([
      "before 1",
      "stays",
    ]);
  });

  test("Edit that is gone by the time it is published is not used; what is cancelled is swept away", async () => {
    const values = { ...login("Fleeting").values, password: "before 3" };
    const { entryId } = await addEntry.execute(db(), { parentId: f.vaultId, values }, f.as("steward"));
    await give(db(), f.as("steward"), entryId, f.ids.edit, "edit");
    await give(db(), f.as("steward"), f.folderId, f.ids.edit, "edit");
    const begin = async () => {
      const { importId } = await beginImport.execute(db(), { parentId: f.folderId }, f.as("edit"));
      const rows = [{ ...login("Fleeting", { password: "theirs 3" }), updates: entryId }];
      await importChunk.execute(db(), { importId, rows }, f.as("edit"));
      return importId;
    };
    const importId = await begin();
    await give(db(), f.as("steward"), entryId, f.ids.edit, "blocked");
    expect((await refusal(publishImport.execute(db(), { importId }, f.as("edit")))).code).toBe("not-found");
    expect(await password(entryId)).toBe("before 3");
    await cancelImport.execute(db(), { importId }, f.as("edit"));
    await sweepDeadImports(db());
    expect(await db().db.select().from(importUpdates).where(eq(importUpdates.importId, importId))).toEqual([]);
  });

  test("what somebody changed meanwhile stops the whole; what one may not edit cannot be updated", async () => {
    const values = { ...login("Meanwhile").values, password: "before 2" };
    const { entryId, versionId } = await addEntry.execute(db(), { parentId: f.vaultId, values }, f.as("steward"));
    const importId = await update(entryId, "mine");
    await changeEntry.execute(
      db(),
      { entryId, baseVersionId: versionId, values: { ...values, password: "theirs" } },
      f.as("steward"),
    );
    const refused = await refusal(publishImport.execute(db(), { importId }, f.as("steward")));
    expect(refused.message).toContain("has changed Meanwhile");
    expect(await password(entryId)).toBe("theirs");
    const other = await beginImport.execute(db(), { parentId: f.folderId }, f.as("edit"));
    const rows = [{ ...login("Meanwhile"), updates: entryId }];
    expect((await refusal(importChunk.execute(db(), { ...other, rows }, f.as("edit")))).code).toBe("not-found");
  });
});

describe("undone", () => {
  test("as a whole, but for what others have touched since, unless it is ticked", async () => {
    const names = ["Lapwing", "Linnet", "Longspur", "Loon"];
    const importId = await begun(names.map((name) => login(name, {}, ["Lakes", "North"])));
    await publishImport.execute(db(), { importId }, f.as("steward"));
    const ledger = async () => unpack((await vaultLedger.execute(db(), { vaultId: f.vaultId }, f.as("steward"))).rows);
    const idOf = async (name: string) => (await ledger()).find((row) => row.name === name)!.id;
    await give(db(), f.as("steward"), await idOf("Linnet"), f.ids.use, "use");
    const longspur = await idOf("Longspur");
    const { reveal } = await entryPage.execute(db(), { entryId: longspur }, f.as("steward"));
    await changeEntry.execute(
      db(),
      {
        entryId: longspur,
        baseVersionId: reveal!.versionId,
        values: { name: "Longspur", signInPage: "https://longspur.example/in", notes: "x" },
      },
      f.as("steward"),
    );
    const page = await importPage.execute(db(), { importId }, f.as("steward"));
    expect(page.stays.map((one) => [one.name, one.since])).toEqual([
      ["Linnet", "given to someone"],
      ["Longspur", "changed"],
    ]);
    const { entries } = await undoImport.execute(db(), { importId, also: [longspur] }, f.as("steward"));
    expect(entries).toBe(3);
    const left = (await ledger()).map((row) => row.name);
    expect(names.filter((name) => left.includes(name))).toEqual(["Linnet"]);
    // Its folders stay: something lies in them.
    expect(left).toEqual(expect.arrayContaining(["Lakes", "North"]));
    expect((await refusal(undoImport.execute(db(), { importId }, f.as("steward")))).message).toContain("already");
  });

  test("empty folders that it made go too; after a day it stands", async () => {
    const importId = await begun([login("Merlin", {}, ["Moor", "High"])]);
    const at = Date.now();
    await publishImport.execute(db(), { importId }, f.as("steward"), at);
    expect(
      (await refusal(undoImport.execute(db(), { importId }, f.as("steward"), at + 25 * 3_600_000))).message,
    ).toContain("for a day");
    expect((await refusal(undoImport.execute(db(), { importId }, f.as("edit")))).code).toBe("not-found");
    await undoImport.execute(db(), { importId }, f.as("administrator"));
    const { rows, bin } = await vaultLedger.execute(db(), { vaultId: f.vaultId }, f.as("steward"));
    expect(unpack(rows).some((row) => ["Moor", "High", "Merlin"].includes(row.name))).toBe(false);
    expect(bin.map((row) => row.name)).toEqual(expect.arrayContaining(["Merlin", "Moor"]));
  });

  test("what undoing needs is kept for a week, the import for a year, and what came with it for good", async () => {
    const importId = await begun([login("Nuthatch")]);
    await publishImport.execute(db(), { importId }, f.as("steward"));
    const DAY = 86_400_000;
    const left = async (days: number) => {
      await sweepOld.execute(db(), {}, { kind: "server" }, Date.now() + days * DAY);
      const [rows] = await db().db.all<{ n: number }>(
        sql`select count(*) as n from import_rows where import_id = ${importId}`,
      );
      const [whole] = await db().db.all<{ n: number }>(sql`select count(*) as n from imports where id = ${importId}`);
      return [rows!.n, whole!.n];
    };
    expect([await left(6), await left(8), await left(366)]).toEqual([
      [1, 1],
      [0, 1],
      [0, 0],
    ]);
    const { rows } = await vaultLedger.execute(db(), { vaultId: f.vaultId }, f.as("steward"));
    expect(unpack(rows).map((row) => row.name)).toContain("Nuthatch");
  });

  test("says what needs a look", async () => {
    const importId = await begun([
      login("Nuthatch", { password: "same", signInPage: "https://nuthatch.example/" }),
      login("Nightjar", { password: "same" }),
      login("Noddy", { signInPage: "http://noddy.example/in" }),
      { kind: "password", values: { name: "Nestbox", password: "own" }, folder: [] },
      login("Nene"),
    ]);
    await publishImport.execute(db(), { importId }, f.as("steward"));
    const { look } = await importPage.execute(db(), { importId }, f.as("steward"));
    expect(Object.fromEntries(look.map((one) => [one.name, one.reasons]))).toEqual({
      Nestbox: ["no sign-in page"],
      Nightjar: ["the same password 2 times"],
      Noddy: ["plain http, which anyone on the network can read"],
      Nuthatch: ["the home page instead of the sign-in page", "the same password 2 times"],
    });
  });
});

describe("sudden ends", () => {
  test("SIGKILL at any step: all or nothing, and nothing left over", { timeout: 120_000 }, async () => {
    const said: string[] = [];
    for (let round = 0; round < 5; round++) {
      const child = spawn(process.execPath, ["--import", "tsx", "integration/importer.ts", f.vaultId, f.ids.steward], {
        env: app.environment,
        stdio: ["ignore", "pipe", "inherit"],
      });
      let text = "";
      const started = new Promise<void>((resolve) => {
        child.stdout!.on("data", (part: Buffer) => {
          text += part.toString();
          if (text.includes("importing")) resolve();
        });
      });
      await started;
      await new Promise((resolve) => setTimeout(resolve, 60 + Math.random() * 900));
      child.kill("SIGKILL");
      await new Promise((resolve) => child.once("exit", resolve));
      said.push(...[...text.matchAll(/published (\S+)\n/g)].map((match) => match[1]!));
      await sweepDeadImports(db());
      const rows = (
        await db().opened.client.execute(`
          select i.id, i.published_at is not null as published, count(r.entry_id) as rows, count(p.id) as placed
          from imports i left join import_rows r on r.import_id = i.id left join places p on p.id = r.place_id
          where i.process <> '${db().process}' group by i.id`)
      ).rows;
      for (const row of rows) {
        // Of a hundred rows all are there, or not one, not even hidden.
        const expected = row.published === 1 ? 100 : 0;
        expect(`${row.published} ${row.rows} ${row.placed}`).toBe(`${row.published} ${expected} ${expected}`);
      }
      const published = new Set(rows.filter((row) => row.published === 1).map((row) => String(row.id)));
      for (const importId of said) expect(published.has(importId)).toBe(true);
    }
    expect(said.length).toBeGreaterThan(0);
    const [orphans] = (
      await db().opened.client.execute(
        "select count(*) as n from entries e where not exists (select 1 from places p where p.node_id = e.node_id)",
      )
    ).rows;
    expect(orphans!.n).toBe(0);
  });
});
