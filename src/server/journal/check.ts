/** Is the Journal whole? Its chain and its names, walked from the first line. */
import { asc, gt } from "drizzle-orm";
import { z } from "zod";
import { type Bytes, toHex } from "../../core/crypto";
import { type ChainedLine, checkChain, FIRST_PREVIOUS } from "../../core/journal/chain";
import { type Checkpoint, openCheckpoint } from "../../core/journal/checkpoint";
import { checkNames, type KeptName } from "../../core/journal/names";
import { query } from "../command";
import type { Reader } from "../database/client";
import { journal, journalCheckpoints, journalNames } from "../database/schema";
import { requireReader } from "../people/administrators";
import { Refused } from "../refused";
import { verifierFor } from "./checkpoints";
import { CHECKPOINT_FAULTS } from "./strings";

const READ = 2_000;

export async function* chainedLines(db: Reader): AsyncGenerator<ChainedLine> {
  for (let from = 0; ; ) {
    const rows = await db.select().from(journal).where(gt(journal.seq, from)).orderBy(asc(journal.seq)).limit(READ);
    const last = rows.at(-1);
    if (!last) return;
    yield* rows;
    from = last.seq;
  }
}

async function* keptNames(db: Reader): AsyncGenerator<KeptName> {
  for (let from = ""; ; ) {
    const rows = await db
      .select()
      .from(journalNames)
      .where(gt(journalNames.hash, from))
      .orderBy(asc(journalNames.hash))
      .limit(READ);
    const last = rows.at(-1);
    if (!last) return;
    yield* rows;
    from = last.hash;
  }
}

/** The hashes that lines refer to, as the chain holds them. */
async function* mentions(db: Reader): AsyncGenerator<Record<string, string>> {
  for await (const line of chainedLines(db)) yield JSON.parse(line.names);
}

export const BROKEN = {
  sequence: "its number does not follow",
  previous: "it does not follow the line before it",
  hash: "what it says was changed",
  mac: "Galtry did not write it",
  "missing-head": "the noted head is gone: the tail was cut or rewritten",
  checkpoint: "up to here it is not what was signed as a checkpoint: lines were changed, added or removed",
  "missing-lines": "a checkpoint stands for more lines than there are: the tail was cut",
};

const ALTERED = "its checkpoint was altered in the database";

export interface JournalCheck {
  lines: number;
  /** Hash of the last line: noted elsewhere, a later check also finds what was cut off. */
  head: string;
  /** The first line that does not hold, and why. */
  broken: { line: number; why: string } | null;
  /** Hash of a name that is not the one written with its line. */
  altered: string | null;
  /** Names that were erased: their lines stay. */
  erased: number;
}

/** What an earlier check or mail has given, and must still hold. */
export interface Noted {
  /** Hash of a line. */
  head?: string | undefined;
  checkpoint?: Checkpoint | undefined;
}

/** @param verifier the key of the checkpoints; those of the database are checked where it is theirs */
export async function checkWholeJournal(
  db: Reader,
  key: Bytes,
  verifier: string,
  { head, checkpoint }: Noted = {},
): Promise<JournalCheck> {
  const kept = await db
    .select({ size: journalCheckpoints.size, note: journalCheckpoints.note })
    .from(journalCheckpoints);
  const opened: Checkpoint[] = [];
  for (const { size, note } of kept) {
    const found = openCheckpoint(note, verifier);
    if (!("fault" in found)) opened.push(found);
    // Of another address, or of keys that were before these, it says nothing here; altered it says that somebody was at it.
    else if (found.fault === "signature" || found.fault === "form")
      return { lines: 0, head: FIRST_PREVIOUS, broken: { line: size, why: ALTERED }, altered: null, erased: 0 };
  }
  const chain = await checkChain(chainedLines(db), key, head, checkpoint ? [...opened, checkpoint] : opened);
  const found = { lines: chain.lines, head: chain.head };
  if (chain.broken)
    return { ...found, broken: { line: chain.broken.seq, why: BROKEN[chain.broken.why] }, altered: null, erased: 0 };
  const { altered, erased } = await checkNames(keptNames(db), mentions(db));
  return { ...found, broken: null, altered, erased };
}

/** Walks that are under way, by what was noted: whoever asks for the same waits for the same. */
const underWay = new Map<string, Promise<JournalCheck>>();

export const checkJournal = query({
  name: "journal.checkJournal",
  input: z.strictObject({
    head: z
      .string()
      .trim()
      .regex(/^([0-9a-f]{64})?$/, "A head has 64 digits and letters from a to f.")
      .default(""),
    /** A whole mail too. */
    checkpoint: z.string().max(20_000).default(""),
  }),
  by: ["person"],
  offMainThread: true,
  allow: ({ role }) => requireReader({ role }),
  run: async ({ app, input: { head, checkpoint } }) => {
    const verifier = await verifierFor(app);
    const opened = checkpoint ? openCheckpoint(checkpoint, verifier) : undefined;
    if (opened && "fault" in opened) throw new Refused("bad-input", CHECKPOINT_FAULTS[opened.fault], "checkpoint");
    const noted = JSON.stringify([head, opened?.size, opened && toHex(opened.root)]);
    const going = underWay.get(noted);
    if (going) return going;
    const walk = checkWholeJournal(app.db, app.keys.journal, verifier, { head: head || undefined, checkpoint: opened });
    underWay.set(noted, walk);
    return walk.finally(() => underWay.delete(noted));
  },
});
