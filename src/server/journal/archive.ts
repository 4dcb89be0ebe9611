/**
 * A year of the Journal as a file: its lines as they are chained, to be kept where nobody who runs Galtry can change them. It
 * holds ids and hashes and no names, so that erasing a name needs no file changed; beside the database it is read again.
 */
import { createReadStream } from "node:fs";
import { createGunzip } from "node:zlib";
import { z } from "zod";
import type { Bytes } from "../../core/crypto";
import { type ChainedLine, checkChain } from "../../core/journal/chain";
import { momentsOf } from "../../core/zone";
import { inJson } from "../database/bulk";
import type { Reader } from "../database/client";
import { journal } from "../database/schema";
import { BROKEN, chainedLines } from "./check";

const FORM = "galtry journal archive 1";
/** So many lines are compared with the database in one statement. */
const AT_ONCE = 500;

const text = z.string().nullable();
const lineSchema: z.ZodType<ChainedLine> = z.strictObject({
  ...{ seq: z.number().int().min(1), at: z.number().int(), act: z.string(), outcome: z.enum(["done", "refused"]) },
  ...{ person: text, node: text, vault: text, subject: text, details: z.string(), names: z.string() },
  ...{ previous: z.string(), hash: z.string(), mac: z.string() },
});
const headSchema = z.strictObject({
  form: z.literal(FORM),
  year: z.number().int(),
  /** The line before the first one, and its hash. */
  after: z.strictObject({ seq: z.number().int().min(0), hash: z.string() }),
});

/** The first moment of a year on a clock. */
const yearBegins = (year: number, zone: string): number => momentsOf(zone, Date.UTC(year, 0, 1)).first;

/**
 * The file, line by line (JSON Lines): what it is, then each line of the Journal from the first of that year on to the last
 * before the next year begins.
 */
export async function* archiveOf(db: Reader, year: number, zone: string): AsyncGenerator<string> {
  const [from, until] = [yearBegins(year, zone), yearBegins(year + 1, zone)];
  let begun = false;
  for await (const line of chainedLines(db)) {
    if (line.at >= until) return;
    if (!begun && line.at < from) continue;
    if (!begun) {
      begun = true;
      yield JSON.stringify({ form: FORM, year, after: { seq: line.seq - 1, hash: line.previous } });
    }
    yield JSON.stringify(line);
  }
}

export interface ArchiveCheck {
  year: number | null;
  first: number;
  last: number;
  /** What does not hold, and at which line. */
  fault: { line: number; why: string } | null;
}

const NO_ARCHIVE = "this is no archive of the Journal, or only a part of one";
const MISSING = "the database has a line of that year there which the file has not";
const DIFFERS = "the database has another line there: it was changed after the file was made";
const GONE = "the database has no such line any more";

/**
 * Whether a file holds in itself, has its whole year, and the database still says the same.
 * @param zone of the organisation, on whose clock the year began and ended
 */
export async function checkArchive(
  db: Reader,
  key: Bytes,
  file: AsyncIterable<string>,
  zone: string,
): Promise<ArchiveCheck> {
  const texts = file[Symbol.asyncIterator]();
  const begins = await texts.next();
  const head = headSchema.safeParse(parsed(begins.done ? "" : begins.value));
  if (!head.success) return { year: null, first: 0, last: 0, fault: { line: 0, why: NO_ARCHIVE } };
  const { year, after } = head.data;
  const faults: NonNullable<ArchiveCheck["fault"]>[] = [];
  let waiting: ChainedLine[] = [];
  const compare = async () => {
    const [some, seqs] = [waiting, waiting.map(({ seq }) => seq)];
    waiting = [];
    const rows = await db
      .select({ seq: journal.seq, hash: journal.hash })
      .from(journal)
      .where(inJson(journal.seq, seqs));
    const hashes = new Map(rows.map((row) => [row.seq, row.hash]));
    const other = some.find((line) => hashes.get(line.seq) !== line.hash);
    if (other) faults.push({ line: other.seq, why: hashes.has(other.seq) ? DIFFERS : GONE });
  };
  async function* lines(): AsyncGenerator<ChainedLine> {
    for (;;) {
      const next = await texts.next();
      if (next.done) break;
      const line = lineSchema.safeParse(parsed(next.value));
      if (!line.success) throw new NoArchive();
      yield line.data;
      waiting.push(line.data);
      if (waiting.length >= AT_ONCE) await compare();
    }
    await compare();
  }
  try {
    const { lines: last, broken } = await checkChain(lines(), key, undefined, [], after);
    if (broken) faults.push({ line: broken.seq, why: BROKEN[broken.why] });
    const around = await db
      .select({ seq: journal.seq, at: journal.at })
      .from(journal)
      .where(inJson(journal.seq, [after.seq, last + 1]));
    const [from, until] = [yearBegins(year, zone), yearBegins(year + 1, zone)];
    for (const { seq, at } of around)
      if (seq > last ? at < until : at >= from) faults.push({ line: seq, why: MISSING });
    return { year, first: after.seq + 1, last, fault: faults[0] ?? null };
  } catch (error) {
    if (!(error instanceof NoArchive)) throw error;
    return { year, first: after.seq + 1, last: 0, fault: { line: 0, why: NO_ARCHIVE } };
  }
}

class NoArchive extends Error {}

/** More than any line of the Journal has. */
const LONGEST_LINE = 1024 * 1024;

/**
 * The lines of a file that was written by `archive-journal`. What is cut off or no archive ends early or says so by its lines.
 * @throws where the file cannot be read
 */
export async function* linesOfArchive(file: string): AsyncGenerator<string> {
  const source = createReadStream(file);
  const unpacked = source.pipe(createGunzip()).setEncoding("utf8");
  source.on("error", (error) => unpacked.destroy(error));
  let rest = "";
  try {
    for await (const piece of unpacked) {
      const lines = (rest + piece).split("\n");
      rest = lines.pop()!;
      yield* lines;
      if (rest.length > LONGEST_LINE) break;
    }
  } catch (error) {
    // Of what is packed wrongly the last line is not whole, and does not count as one.
    if (!(error as NodeJS.ErrnoException).code?.startsWith("Z_")) throw error;
    rest ||= "cut off";
  }
  if (rest !== "") yield rest;
}

function parsed(line: string): unknown {
  try {
    return JSON.parse(line);
  } catch {
    return null;
  }
}
