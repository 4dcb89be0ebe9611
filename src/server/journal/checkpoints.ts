/**
 * Checkpoints of the Journal: made every hour in which something happened, and as a reader asks for one; each is written
 * to a folder, and one a day is mailed, where the operator has said so.
 */
import { existsSync } from "node:fs";
import { mkdir, rename, writeFile } from "node:fs/promises";
import path from "node:path";
import { eq, isNotNull, max, sql } from "drizzle-orm";
import { z } from "zod";
import { counted } from "../../core/counted";
import { deriveKey, sameBytes, toBase64 } from "../../core/crypto";
import { openCheckpoint, signCheckpoint, verifierOf } from "../../core/journal/checkpoint";
import { type LineProof, PROOF_FORMAT } from "../../core/journal/proof";
import { growthPath, hasGrownFrom, inclusionPath, rootOf } from "../../core/journal/tree";
import { exactTime } from "../../core/time";
import { reachOf } from "../access/load";
import { command, query } from "../command";
import type { Reader } from "../database/client";
import { journal, journalCheckpoints, journalNames, nodes, organisation } from "../database/schema";
import type { Galtry } from "../galtry";
import type { KeyRing } from "../keys/keyFile";
import { endLease, holdLease } from "../lease";
import { letterOf } from "../mail/letter";
import { queueMail } from "../mail/queue";
import { loadHome } from "../organisation";
import { requireReader } from "../people/administrators";
import { Refused } from "../refused";
import { checkpoints as t } from "./strings";
import { growTree, linesInTree, MissingLine, treeOf } from "./tree";

const HOUR = 3_600_000;
const DAY = 24 * HOUR;
/** More lines than this are put into the tree beside other work, not while somebody waits. */
const MOST_AT_ONCE = 20_000;
const WORK = "journal.makeCheckpoint";
const SERVER = { kind: "server" } as const;

const secretOf = (keys: KeyRing) => deriveKey(keys.journal, "checkpoints of the Journal");
const originOf = (app: Pick<Galtry, "configuration">) => `${app.configuration.publicUrl.host}/journal`;

/** The key that checks this Galtry's checkpoints. */
export const verifierFor = async (app: Pick<Galtry, "configuration" | "keys">): Promise<string> =>
  verifierOf(originOf(app), await secretOf(app.keys));

async function newestOf(tx: Reader): Promise<typeof journalCheckpoints.$inferSelect | null> {
  const newest = sql`(select max(size) from ${journalCheckpoints})`;
  const [found] = await tx.select().from(journalCheckpoints).where(eq(journalCheckpoints.size, newest));
  return found ?? null;
}

/** @throws Refused where a line is missing */
const orRefused = (error: unknown): never => {
  throw error instanceof MissingLine ? new Refused("conflict", t.aLineIsMissing) : error;
};

/**
 * Signs the Journal as it is, unless nothing has happened since the newest. What a newer checkpoint says and an older one
 * did not must follow from it: where it does not, nothing is signed.
 */
export const makeCheckpoint = command({
  name: WORK,
  input: z.strictObject({}),
  by: ["server", "person"],
  lowPriority: true,
  // It says what is, and changes nothing of it.
  evenFor: ["auditor"],
  allow: ({ caller, role }) => {
    if (caller.kind === "person") requireReader({ role });
  },
  run: async ({ tx, at, app, caller }) => {
    const [end] = await tx.select({ seq: max(journal.seq) }).from(journal);
    const size = end?.seq ?? 0;
    const newest = await newestOf(tx);
    if (size === 0) return null;
    const due = caller.kind === "server" ? await mailDue(tx, app, at) : null;
    // A reader's browser remembers what it has seen.
    if (caller.kind === "person" || app.configuration.checkpoints.folder || due !== null)
      await tx.update(organisation).set({ checkpointNotedAt: at });
    if (newest?.size === size) {
      if (due !== null && newest.mailedAt === null) {
        await mailIt(tx, app, due, newest, at);
        await tx.update(journalCheckpoints).set({ mailedAt: at }).where(eq(journalCheckpoints.size, size));
      }
      return newest;
    }
    // Lines are only ever added.
    if (newest && newest.size > size) throw new Refused("conflict", t.itDiffers);
    if (size - (await linesInTree(tx)) > MOST_AT_ONCE) throw new Refused("conflict", t.notYet);
    const subtree = treeOf(tx, size);
    const root = await rootOf(subtree, size).catch(orRefused);
    if (newest) await requireGrown(app, newest.note, { size, root }, await growthPath(subtree, newest.size, size));
    const note = signCheckpoint({ origin: originOf(app), size, root, at }, await secretOf(app.keys));
    if (due !== null) await mailIt(tx, app, due, { size, note, at }, at);
    const made = { size, at, note, mailedAt: due === null ? null : at };
    await tx.insert(journalCheckpoints).values(made);
    return made;
  },
  // A line for each would make each hour one in which something happened.
  journal: null,
  tell: () => [],
});

async function requireGrown(
  app: Galtry,
  note: string,
  now: { size: number; root: Uint8Array },
  path: Uint8Array[],
): Promise<void> {
  const before = openCheckpoint(note, await verifierFor(app));
  // Of another address, or of keys that were before these: begun anew.
  if ("fault" in before && (before.fault === "origin" || before.fault === "key")) return;
  if ("fault" in before || !hasGrownFrom(before, now, path)) throw new Refused("conflict", t.itDiffers);
}

/** The newest checkpoint, where the Journal as it is no longer follows from it; null where it does. */
export async function brokenCheckpoint(tx: Reader, app: Galtry): Promise<{ at: number } | null> {
  const newest = await newestOf(tx);
  const before = newest && openCheckpoint(newest.note, await verifierFor(app));
  if (!before || ("fault" in before && (before.fault === "origin" || before.fault === "key"))) return null;
  if ("fault" in before) return newest;
  const [end] = await tx.select({ seq: max(journal.seq) }).from(journal);
  if ((end?.seq ?? 0) < before.size) return newest;
  const root = await rootOf(treeOf(tx, before.size), before.size).catch((error: unknown) => {
    if (error instanceof MissingLine) return null;
    throw error;
  });
  return root && sameBytes(root, before.root) ? null : newest;
}

/** To whom one is to be mailed now; null where none is. */
async function mailDue(tx: Reader, app: Galtry, at: number): Promise<string | null> {
  const [last] = await tx
    .select({ at: max(journalCheckpoints.mailedAt) })
    .from(journalCheckpoints)
    .where(isNotNull(journalCheckpoints.mailedAt));
  // A little less than a day: it would move on from hour to hour.
  return (last?.at ?? 0) <= at - DAY + HOUR / 2 ? app.configuration.checkpoints.mail : null;
}

async function mailIt(
  tx: Parameters<typeof queueMail>[0],
  app: Galtry,
  to: string,
  { size, note, at: madeAt }: { size: number; note: string; at: number },
  at: number,
): Promise<void> {
  const { name, zone } = await loadHome(tx);
  const body = letterOf({
    organisation: name,
    paragraphs: [t.keepThis(counted(size, "line"), exactTime(madeAt, zone)), note.trim()],
    act: null,
    after: [t.whatFor],
  });
  await queueMail(tx, app.keys, { to, subject: t.subject(name), body, until: at + DAY, makerId: "", nodeId: null }, at);
}

/** Makes one beside other work, and writes it down where the operator wants it. */
export async function makeAndWrite(app: Galtry, at = Date.now()): Promise<void> {
  await growTree(app);
  const made = await makeCheckpoint.execute(app, {}, SERVER, at);
  const { folder } = app.configuration.checkpoints;
  if (made && folder) await writeOut(folder, made.size, made.note);
}

async function writeOut(folder: string, size: number, note: string): Promise<void> {
  const file = path.join(folder, `checkpoint-${String(size).padStart(9, "0")}.txt`);
  if (existsSync(file)) return;
  await mkdir(folder, { recursive: true });
  await writeFile(`${file}.new`, note);
  await rename(`${file}.new`, file);
}

/** Every hour, the first an hour after the newest there is; one process at a time. What readers ask for puts none of them off. */
export class Checkpoints {
  #next = 0;
  #begun = false;
  #running = false;

  constructor(private readonly app: Galtry) {}

  async look(at = Date.now()): Promise<void> {
    if (this.#running || at < this.#next) return;
    this.#running = true;
    try {
      const newest = this.#begun ? null : await newestOf(this.app.db);
      this.#begun = true;
      this.#next = Math.max(at, (newest?.at ?? 0) + HOUR);
      if (this.#next > at) return;
      this.#next = at + HOUR;
      if (!(await holdLease(this.app, WORK, at))) return;
      await makeAndWrite(this.app, at).finally(() => endLease(this.app, WORK));
    } finally {
      this.#running = false;
    }
  }
}

/** The newest checkpoint, the key that checks it, and how many lines there are by now. */
export const newestCheckpoint = query({
  name: "journal.newestCheckpoint",
  input: z.strictObject({}),
  by: ["person"],
  allow: ({ role }) => requireReader({ role }),
  run: async ({ tx, app }) => ({
    note: (await newestOf(tx))?.note ?? null,
    verifier: await verifierFor(app),
  }),
});

const number = z.number().int().min(0).max(Number.MAX_SAFE_INTEGER);

/** That the newest checkpoint begins with the first `size` lines: the way from the one to the other, base64. */
export const growthSince = query({
  name: "journal.growthSince",
  input: z.strictObject({ size: number }),
  by: ["person"],
  allow: ({ role }) => requireReader({ role }),
  run: async ({ tx, app, input: { size } }) => {
    const newest = await newestOf(tx);
    if (!newest) throw new Refused("not-found", t.thereIsNone);
    const path =
      size > newest.size ? [] : await growthPath(treeOf(tx, newest.size), size, newest.size).catch(orRefused);
    return { note: newest.note, verifier: await verifierFor(app), path: path.map(toBase64) };
  },
});

/** That a line is one of those that the newest checkpoint stands for; null where the line is younger than that. */
export const lineProof = query({
  name: "journal.lineProof",
  input: z.strictObject({ seq: number.min(1) }),
  by: ["person"],
  allow: ({ role }) => requireReader({ role }),
  run: async ({ tx, me, at, app, input: { seq } }): Promise<LineProof | null> => {
    const [row] = await tx.select().from(journal).where(eq(journal.seq, seq));
    if (!row) throw new Refused("not-found", t.thereIsNoSuchLine);
    const newest = await newestOf(tx);
    if (!newest || newest.size < seq) return null;
    const { levels } = reachOf(tx, me, at);
    const named = (id: string) => me.role === "auditor" || levels.has(id);
    // What a line says of something that its reader has no access to is kept from them in its sentence as well.
    const { mac: _, hash, ...line } = row;
    const told = line.node === null || named(line.node) ? line : null;
    return {
      ...{ format: PROOF_FORMAT, seq, hash, line: told },
      names: told ? await namesOf(tx, told.names, named) : [],
      path: (await inclusionPath(treeOf(tx, newest.size), seq - 1, newest.size).catch(orRefused)).map(toBase64),
      ...{ checkpoint: newest.note, verifier: await verifierFor(app) },
    };
  },
});

/** Names that a line refers to, without those of places that its reader does not know. */
async function namesOf(tx: Reader, names: string, named: (id: string) => boolean): Promise<LineProof["names"]> {
  const hashes = JSON.stringify(Object.values(z.record(z.string(), z.string()).parse(JSON.parse(names))));
  const rows = await tx.all<{ ref: string; name: string; salt: string; place: number }>(sql`
    select n.ref, n.name, n.salt, exists (select 1 from ${nodes} where ${nodes.id} = n.ref) as place
    from json_each(${hashes}) h join ${journalNames} n on n.hash = h.value`);
  return rows.filter((row) => row.place === 0 || named(row.ref)).map(({ place: _, ...name }) => name);
}
