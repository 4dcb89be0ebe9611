/** The rows of an import on their way: in pieces, several at once, all of them or none. */
import type { Answer } from "../shared/ask";
import type { Chunk } from "./import.worker";

/** So many pieces are under way: one is written, the next is sealed, and one is on its way. */
export const UNDER_WAY = 3;

export interface Sending {
  begin: () => Promise<Answer<{ importId: string }>>;
  send: (importId: string, rows: Chunk["rows"]) => Promise<Answer<{ entryIds: string[] }>>;
  publish: (importId: string) => Promise<Answer<unknown>>;
  /** Nothing of it stays. */
  cancel: (importId: string) => Promise<unknown>;
  /** The piece that begins at a row. */
  next: (from: number) => Promise<Chunk>;
  /** Its reader has pressed *Stop*. */
  stopped: () => boolean;
  /** How many rows are there. */
  onProgress: (done: number) => void;
}

export type Sent =
  | { end: "published"; importId: string; entryIds: string[] }
  /** Not even begun, stopped by its reader, or refused on the way: nothing was imported. */
  | { end: "not-begun" | "refused" | "not-published"; says: string }
  | { end: "stopped" };

/** @returns how it ended; in every case but `published` nothing of it is there */
export async function sendChunks({ begin, send, publish, cancel, next, stopped, onProgress }: Sending): Promise<Sent> {
  const begun = await begin();
  if (!begun.ok) return { end: "not-begun", says: begun.refused.message };
  const { importId } = begun.result;
  const entryIds: string[] = [];
  const underWay: Promise<{ rows: number; answer: Answer<{ entryIds: string[] }> }>[] = [];
  let [from, done, refused]: [number | null, number, string | null] = [0, 0, null];
  for (;;) {
    onProgress(done);
    while (from !== null && refused === null && !stopped() && underWay.length < UNDER_WAY) {
      const chunk: Chunk = await next(from);
      from = chunk.next;
      underWay.push(send(importId, chunk.rows).then((answer) => ({ rows: chunk.rows.length, answer })));
    }
    const sent = await underWay.shift();
    if (!sent) break;
    if (sent.answer.ok) entryIds.push(...sent.answer.result.entryIds);
    else refused ??= sent.answer.refused.message;
    done += sent.rows;
  }
  if (refused === null && !stopped()) {
    const published = await publish(importId);
    if (published.ok) return { end: "published", importId, entryIds };
    await cancel(importId);
    return { end: "not-published", says: published.refused.message };
  }
  await cancel(importId);
  return refused === null ? { end: "stopped" } : { end: "refused", says: refused };
}
