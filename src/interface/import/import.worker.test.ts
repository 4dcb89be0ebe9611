import { beforeAll, describe, expect, test, vi } from "vitest";
import type { Meaning } from "@/core/formats/columns";
import type { Chunk, ImportMessage, Line, Login, Looked, Opened, OpenedTable } from "./import.worker";

type Asked<T> = T extends unknown ? Omit<T, "id"> : never;
type Reply = { id: number; answer?: unknown; wrong?: string };

let hear: (event: { data: ImportMessage }) => void;
const waiting = new Map<number, (reply: Reply) => void>();
let last = 0;

beforeAll(async () => {
  vi.stubGlobal("addEventListener", (_: string, listener: typeof hear) => {
    hear = listener;
  });
  vi.stubGlobal("postMessage", (reply: Reply) => waiting.get(reply.id)?.(reply));
  await import("./import.worker");
});

/** Asks the worker as the page does. */
function ask<R>(what: Asked<ImportMessage>): Promise<R> {
  last += 1;
  const id = last;
  return new Promise((resolve, reject) => {
    waiting.set(id, ({ answer, wrong }) => (wrong === undefined ? resolve(answer as R) : reject(new Error(wrong))));
    hear({ data: { id, ...what } as ImportMessage });
  });
}
const bytes = (text: string) => new TextEncoder().encode(text);
const open = <R = OpenedTable>(text: string | Uint8Array) =>
  ask<R>({ ask: "open", bytes: typeof text === "string" ? bytes(text) : text, secret: null, own: [] });
const guesses = ({ columns }: OpenedTable): Meaning[] => columns.map(({ guess }) => guess);
const look = async (opened: OpenedTable, keepFolders = true) =>
  ask<Looked>({ ask: "look", meanings: guesses(opened), keepFolders });
const all = () => ask<Line[]>({ ask: "lines", from: 0, count: 100_000 });

const HEAD = "name,url,username,password,folder";

describe("a table", () => {
  test("is read as what it is, and its secrets are no samples of the page's own making", async () => {
    const opened = await open(`${HEAD}\nNordlicht,https://nordlicht.example/in,orders,lantern-9,Suppliers/Books\n`);
    expect(opened).toMatchObject({ shape: "table", format: "CSV", separator: ",", rows: 1 });
    expect(opened.columns.map(({ name, guess }) => [name, guess])).toMatchObject([
      ["name", expect.anything()],
      ["url", expect.anything()],
      ["username", expect.anything()],
      ["password", expect.anything()],
      ["folder", expect.anything()],
    ]);
  });

  test("what cannot be kept is said at its row, and what stands twice is left out once", async () => {
    const opened = await open(
      [
        HEAD,
        "Nordlicht,https://nordlicht.example/in,orders,lantern-9,Suppliers",
        "Nordlicht,https://nordlicht.example/in,orders,lantern-9,Suppliers",
        ",,,,",
        "Suedwind,https://suedwind.example/in,shop,harbour-2,Suppliers",
      ].join("\n"),
    );
    expect(await look(opened)).toMatchObject({ good: 2, twice: 1, folders: 1 });
    const lines = await all();
    expect(lines.filter(({ at }) => at !== null).map(({ name }) => name)).toEqual(["Nordlicht", "Suedwind"]);
    expect(lines.find(({ row }) => row === 2)?.wrong).toBeTruthy();
    expect(lines[0]).toMatchObject({ folder: "Suppliers", login: "nordlicht.example · orders" });
    // A line for the page has no password in it.
    expect(JSON.stringify(lines)).not.toContain("lantern-9");
  });

  test("without folders all of it goes to one place", async () => {
    const opened = await open(`${HEAD}\nA,https://a.example/,x,p1,One\nB,https://b.example/,x,p2,Two/Three\n`);
    expect((await look(opened, true)).folders).toBe(2);
    expect((await look(opened, false)).folders).toBe(0);
    expect((await all()).map(({ folder }) => folder)).toEqual(["", ""]);
  });

  test("a ragged row is kept and remarked on", async () => {
    const opened = await open(`${HEAD}\nA,https://a.example/,x,p1,One,and,more\nB,https://b.example/,x,p2,Two\n`);
    expect(await look(opened)).toMatchObject({ good: 2, remarks: 1 });
    expect((await all())[0]?.remark).toBeTruthy();
  });
});

describe("what is sent", () => {
  const rows = (count: number) =>
    `${HEAD}\n${Array.from({ length: count }, (_, i) => `Row ${i},https://r${i}.example/in,user ${i},pass-${i},`).join("\n")}\n`;

  test("is what was decided: some left out, some in place of an entry", async () => {
    await look(await open(rows(5)));
    expect(await ask<number>({ ask: "decide", leave: [1, 3], updates: [[2, "entry-2"]] })).toBe(3);
    const { rows: sent, next } = await ask<Chunk>({ ask: "chunk", from: 0 });
    expect(sent.map(({ values, updates }) => [values.name, updates])).toEqual([
      ["Row 0", undefined],
      ["Row 2", "entry-2"],
      ["Row 4", undefined],
    ]);
    expect(next).toBeNull();
  });

  test("twelve thousand rows come in pieces that a request can hold, each row once", async () => {
    const opened = await open(rows(12_000));
    expect(await look(opened)).toMatchObject({ good: 12_000, wrongs: 0, twice: 0 });
    await ask<number>({ ask: "decide", leave: [], updates: [] });
    const names: unknown[] = [];
    let from: number | null = 0;
    while (from !== null) {
      const chunk: Chunk = await ask<Chunk>({ ask: "chunk", from });
      expect(chunk.rows.length).toBeLessThanOrEqual(100);
      names.push(...chunk.rows.map(({ values }) => values.name));
      from = chunk.next;
    }
    expect(names).toEqual(Array.from({ length: 12_000 }, (_, i) => `Row ${i}`));
    // The page asks for the lines that it shows, and no more.
    expect(await ask<Line[]>({ ask: "lines", from: 11_990, count: 40 })).toHaveLength(10);
  });

  test("large rows go in smaller pieces", async () => {
    const note = "A line of a long note. ".repeat(400);
    const long = Array.from({ length: 200 }, (_, i) => `Row ${i},https://r${i}.example/in,user,pass-${i},,${note}`);
    expect(await look(await open(`${HEAD},notes\n${long.join("\n")}\n`))).toMatchObject({ good: 200 });
    await ask<number>({ ask: "decide", leave: [], updates: [] });
    const sizes: number[] = [];
    let from: number | null = 0;
    while (from !== null) {
      const chunk: Chunk = await ask<Chunk>({ ask: "chunk", from });
      sizes.push(JSON.stringify(chunk.rows).length);
      expect(chunk.rows.length).toBeGreaterThan(0);
      from = chunk.next;
    }
    expect(sizes.length).toBeGreaterThan(1);
    expect(Math.max(...sizes)).toBeLessThan(760_000);
  });

  test("logins to compare are site, user name and password of the rows that are asked for", async () => {
    await look(await open(rows(3)));
    const logins = await ask<Login[]>({ ask: "logins", from: 1, count: 10 });
    expect(logins).toEqual([
      { page: "https://r1.example/in", userName: "user 1", password: "pass-1" },
      { page: "https://r2.example/in", userName: "user 2", password: "pass-2" },
    ]);
  });
});

describe("other files", () => {
  test("an encrypted one asks for its passphrase, and a wrong one is told in words", async () => {
    const { Encrypter } = await import("age-encryption");
    const encrypter = new Encrypter();
    encrypter.setScryptWorkFactor(1);
    encrypter.setPassphrase("four good plain words");
    const locked = await encrypter.encrypt(`${HEAD}\nA,https://a.example/,x,p1,One\n`);
    expect(await open<Opened>(locked)).toEqual({ shape: "locked" });
    const opened = await ask<OpenedTable>({ ask: "open", bytes: locked, secret: "four good plain words", own: [] });
    expect(opened.rows).toBe(1);
    await expect(ask({ ask: "open", bytes: locked, secret: "not these", own: [] })).rejects.toThrow(/[a-z]/i);
  });

  test("one that nobody can read is refused in words and not with an error's own", async () => {
    const said = await open(new Uint8Array([0, 1, 2, 3, 0, 255, 254])).then(
      () => "",
      (error: Error) => error.message,
    );
    expect(said).toMatch(/^[A-Z].*\.$/);
  });
});
