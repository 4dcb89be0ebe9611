/** Reads a table beside the page and keeps its rows here: a hundred thousand of them never stand in the page. */
import { guessMeanings, type Meaning } from "@/core/formats/columns";
import { readCsv, type Table } from "@/core/formats/csv";
import { type Incoming, readRow } from "@/core/formats/rows";
import { decodeText } from "@/core/formats/text";

export interface Opened {
  encoding: string;
  separator: string;
  rows: number;
  columns: { name: string; guess: Meaning; samples: string[] }[];
}

export interface Looked {
  good: number;
  /** The first of those that cannot be kept, and how many there are. */
  wrong: { row: number; why: string }[];
  wrongs: number;
  /** Rows that stand in the file once more, to the letter: left out. */
  twice: number;
  folders: number;
}

export interface Login {
  page: string;
  userName: string;
  password: string;
}

export type BringInAsk =
  | { id: number; ask: "open"; bytes: Uint8Array }
  | { id: number; ask: "look"; meanings: Meaning[]; keepFolders: boolean }
  | { id: number; ask: "logins"; from: number; count: number }
  | { id: number; ask: "leave"; these: number[] }
  | { id: number; ask: "chunk"; from: number };

export interface Chunk {
  rows: Incoming[];
  /** Where the next one begins; null at the end. */
  next: number | null;
}

const SAMPLES = 3;
const MOST_WRONG = 200;
const CHUNK_ROWS = 100;
/** What one request holds stays well below what the server takes. */
const CHUNK_CHARACTERS = 700_000;

let table: Table | null = null;
/** All that can be kept, and what of it is to be sent. */
let ready: Incoming[] = [];
let chosen: Incoming[] = [];

function open(bytes: Uint8Array): Opened {
  const { text, encoding } = decodeText(bytes);
  table = readCsv(text);
  const guesses = guessMeanings(table.header, table.rows);
  return {
    encoding,
    separator: table.separator,
    rows: table.rows.length,
    columns: table.header.map((name, i) => ({
      name,
      guess: guesses[i]!,
      samples: samplesOf(table!, i),
    })),
  };
}

function samplesOf({ rows }: Table, column: number): string[] {
  const found: string[] = [];
  for (const row of rows) {
    const value = row[column]!.trim();
    if (value !== "" && !found.includes(value)) found.push(value.slice(0, 80));
    if (found.length === SAMPLES) break;
  }
  return found;
}

function look(meanings: Meaning[], keepFolders: boolean): Looked {
  const wrong: Looked["wrong"] = [];
  const known = new Set<string>();
  let [wrongs, twice] = [0, 0];
  ready = [];
  for (const [i, cells] of table!.rows.entries()) {
    const read = readRow(table!.header, meanings, cells, i + 1);
    if (read.incoming) {
      const one = keepFolders ? read.incoming : { ...read.incoming, folder: [] };
      const mark = JSON.stringify(one);
      if (known.has(mark)) twice++;
      else ready.push(one);
      known.add(mark);
    } else {
      wrongs++;
      if (wrong.length < MOST_WRONG) wrong.push({ row: read.row, why: read.wrong });
    }
  }
  return {
    good: ready.length,
    wrong,
    wrongs,
    twice,
    folders: new Set(ready.map((one) => one.folder.join("\u0000")).filter(Boolean)).size,
  };
}

function chunk(from: number): Chunk {
  const rows: Incoming[] = [];
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

const text = (value: unknown) => (typeof value === "string" ? value : "");

function answer(data: BringInAsk): unknown {
  switch (data.ask) {
    case "open":
      return open(data.bytes);
    case "look":
      return look(data.meanings, data.keepFolders);
    case "logins":
      return ready.slice(data.from, data.from + data.count).map(
        ({ values }): Login => ({
          page: text(values.signInPage),
          userName: text(values.userName).slice(0, 500),
          password: text(values.password).slice(0, 1000),
        }),
      );
    case "leave": {
      const these = new Set(data.these);
      chosen = ready.filter((_, i) => !these.has(i));
      return chosen.length;
    }
    case "chunk":
      return chunk(data.from);
  }
}

addEventListener("message", ({ data }: MessageEvent<BringInAsk>) => {
  try {
    postMessage({ id: data.id, answer: answer(data) });
  } catch (error) {
    postMessage({ id: data.id, wrong: error instanceof RangeError ? error.message : "This file cannot be read." });
  }
});
