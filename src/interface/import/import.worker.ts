/** Reads a file beside the page and keeps its rows here: a hundred thousand of them never stand in the page. */
import { guessMeanings, type Meaning } from "@/core/formats/columns";
import { type Incoming, type ReadRow, readRow } from "@/core/formats/rows";
import { isAge, openAge, readSource, type Source } from "@/core/formats/source";
import type { Part } from "@/core/formats/tree";
import type { Kind } from "@/core/kinds/kind";
import { hostOf } from "@/core/signin/address";
import { importWorker as t } from "./strings";

export interface OpenedTable {
  shape: "table";
  format: "CSV" | "XML" | "JSON";
  encoding: string;
  separator: string | null;
  /** Records that repeat, where there are several sorts of them; `part` is the one that is shown. */
  parts: { name: string; rows: number }[];
  part: number;
  rows: number;
  /** The place in the file makes folders. */
  folders: boolean;
  columns: { name: string; guess: Meaning; samples: string[] }[];
}

export interface OpenedEntries {
  shape: "entries";
  format: "credential exchange" | "one-time codes" | "contacts";
  rows: number;
  folders: boolean;
  /** Kinds of another Galtry that are not here; its entries of them become plain ones with extra fields. */
  missing: Kind[];
}

export type Opened = OpenedTable | OpenedEntries | { shape: "locked" };

export interface Looked {
  good: number;
  /** How many rows cannot be kept. */
  wrongs: number;
  /** Rows that stand in the file once more, to the letter: left out. */
  twice: number;
  /** Rows that can be kept, and may have been meant otherwise. */
  remarks: number;
  folders: number;
}

export interface Login {
  page: string;
  userName: string;
  password: string;
}

/** A row of the file as it will fare. */
export interface Line {
  row: number;
  name: string;
  folder: string;
  /** Place among those that can be kept; null where it cannot. */
  at: number | null;
  wrong: string | null;
  /** The site and the user name, where it has them. */
  login: string;
  /** What to look at twice. */
  remark: string | null;
}

export type ImportMessage =
  | { id: number; ask: "open"; bytes: Uint8Array; secret: string | null; own: Kind[] }
  | { id: number; ask: "again"; own: Kind[] }
  | { id: number; ask: "part"; part: number }
  | { id: number; ask: "look"; meanings: Meaning[]; keepFolders: boolean }
  | { id: number; ask: "lines"; from: number; count: number }
  | { id: number; ask: "logins"; from: number; count: number }
  | { id: number; ask: "decide"; leave: number[]; updates: [number, string][] }
  | { id: number; ask: "chunk"; from: number };

export type Outgoing = Incoming & { updates?: string };

export interface Chunk {
  rows: Outgoing[];
  /** Where the next one begins; null at the end. */
  next: number | null;
}

const SAMPLES = 3;
const CHUNK_ROWS = 100;
/** What one request holds stays well below what the server takes. */
const CHUNK_CHARACTERS = 700_000;

let source: Source | null = null;
/** The file in the clear, while it is to be read again with the kinds that it brings. */
let clear: Uint8Array | null = null;
let part = 0;
let lines: Line[] = [];
/** All that can be kept, and what of it is to be sent. */
let ready: Incoming[] = [];
let chosen: Outgoing[] = [];

async function open(bytes: Uint8Array, secret: string | null, own: Kind[]): Promise<Opened> {
  if (isAge(bytes)) {
    if (secret === null) return { shape: "locked" };
    return open(await openAge(bytes, secret), null, own);
  }
  source = readSource(bytes, own);
  clear = source.shape === "entries" && source.missing.length > 0 ? bytes : null;
  part = 0;
  return opened();
}

function opened(): Opened {
  const now = source!;
  if (now.shape === "entries")
    return {
      shape: "entries",
      format: now.format,
      rows: now.rows.length,
      folders: now.rows.some((row) => (row.incoming?.folder.length ?? 0) > 0),
      missing: now.missing,
    };
  const table = now.parts[part]!;
  const guesses = guessMeanings(table.header, table.rows);
  return {
    shape: "table",
    format: now.format,
    encoding: now.encoding,
    separator: now.separator,
    parts: now.parts.map(({ name, rows }) => ({ name, rows: rows.length })),
    part,
    rows: table.rows.length,
    folders: table.folders.some((folder) => folder.length > 0),
    columns: table.header.map((name, i) => ({ name, guess: guesses[i]!, samples: samplesOf(table, i) })),
  };
}

function samplesOf({ rows }: Part, column: number): string[] {
  const found: string[] = [];
  for (const row of rows) {
    const value = row[column]!.trim();
    if (value !== "" && !found.includes(value)) found.push(value.slice(0, 80));
    if (found.length === SAMPLES) break;
  }
  return found;
}

function* readRows(meanings: Meaning[]): Generator<ReadRow> {
  if (source!.shape === "entries") return yield* source!.rows;
  const table = source!.parts[part]!;
  for (const [i, cells] of table.rows.entries()) {
    const read = readRow(table.header, meanings, cells, i + 1, table.folders[i] ?? []);
    const count = table.ragged?.get(i);
    yield count === undefined || read.incoming === null ? read : { ...read, remark: t.cells(count) };
  }
}

function look(meanings: Meaning[], keepFolders: boolean): Looked {
  const known = new Set<string>();
  let [wrongs, twice, remarks] = [0, 0, 0];
  ready = [];
  lines = [];
  for (const read of readRows(meanings)) {
    if (read.incoming) {
      const one = keepFolders ? read.incoming : { ...read.incoming, folder: [] };
      const mark = JSON.stringify(one);
      const again = known.has(mark);
      known.add(mark);
      const line = {
        ...{ row: read.row, name: text(one.values.name), folder: one.folder.join(" › ") },
        ...{ login: loginOf(one.values), remark: read.remark ?? null },
      };
      if (again) {
        twice++;
        lines.push({ ...line, at: null, wrong: t.repeatedInTheFile });
      } else {
        if (line.remark) remarks++;
        lines.push({ ...line, at: ready.length, wrong: null });
        ready.push(one);
      }
    } else {
      wrongs++;
      lines.push({ row: read.row, name: "", folder: "", at: null, wrong: read.wrong, login: "", remark: null });
    }
  }
  return {
    good: ready.length,
    remarks,
    wrongs,
    twice,
    folders: new Set(ready.map((one) => one.folder.join("\u0000")).filter(Boolean)).size,
  };
}

function decide(leave: number[], updates: [number, string][]): number {
  const left = new Set(leave);
  const changed = new Map(updates);
  chosen = ready.flatMap((one, at): Outgoing[] => {
    if (left.has(at)) return [];
    const entryId = changed.get(at);
    return [entryId ? { ...one, updates: entryId } : one];
  });
  return chosen.length;
}

function chunk(from: number): Chunk {
  const rows: Outgoing[] = [];
  let size = 0;
  let next = from;
  while (next < chosen.length && rows.length < CHUNK_ROWS) {
    size += JSON.stringify(chosen[next]).length;
    if (rows.length > 0 && size > CHUNK_CHARACTERS) break;
    rows.push(chosen[next]!);
    next++;
  }
  return { rows, next: next < chosen.length ? next : null };
}

const loginOf = ({ signInPage, userName }: Record<string, unknown>): string =>
  [hostOf(text(signInPage)) ?? "", text(userName)].filter(Boolean).join(" · ");

const text = (value: unknown) => (typeof value === "string" ? value : "");

async function answer(data: ImportMessage): Promise<unknown> {
  switch (data.ask) {
    case "open":
      return open(data.bytes, data.secret, data.own);
    case "again":
      return open(clear!, null, data.own);
    case "part":
      part = data.part;
      return opened();
    case "look":
      return look(data.meanings, data.keepFolders);
    case "lines":
      return lines.slice(data.from, data.from + data.count);
    case "logins":
      return ready.slice(data.from, data.from + data.count).map(
        ({ values }): Login => ({
          page: text(values.signInPage),
          userName: text(values.userName).slice(0, 500),
          password: text(values.password).slice(0, 1000),
        }),
      );
    case "decide":
      return decide(data.leave, data.updates);
    case "chunk":
      return chunk(data.from);
  }
}

addEventListener("message", ({ data }: MessageEvent<ImportMessage>) => {
  answer(data).then(
    (given) => postMessage({ id: data.id, answer: given }),
    (error) =>
      postMessage({ id: data.id, wrong: error instanceof RangeError ? error.message : t.thisFileCannotBeRead }),
  );
});
