import { describe, expect, test } from "vitest";
import type { Answer } from "../shared/ask";
import type { Chunk, Outgoing } from "./import.worker";
import { type Sending, sendChunks, UNDER_WAY } from "./sendChunks";

const no = (message: string): Answer<never> => ({ ok: false, refused: { code: "conflict", message } });
const row = (i: number) => ({ kind: "website-login", values: { name: `Row ${i}` }, folder: [] }) as unknown as Outgoing;

/** A server that keeps what it is sent, and pieces of a file of so many rows. */
function sending(rows: number, changes: Partial<Sending> = {}) {
  const log: string[] = [];
  const kept: string[] = [];
  let [now, most] = [0, 0];
  const progress: number[] = [];
  const parts: Sending = {
    begin: async () => ({ ok: true, result: { importId: "i" } }),
    send: async (_, chunk) => {
      now += 1;
      most = Math.max(most, now);
      await new Promise((done) => setTimeout(done, chunk.length % 3));
      now -= 1;
      const ids = chunk.map(({ values }) => String(values.name));
      kept.push(...ids);
      return { ok: true, result: { entryIds: ids } };
    },
    publish: async () => {
      log.push("published");
      return { ok: true, result: undefined };
    },
    cancel: async () => {
      log.push("cancelled");
      kept.length = 0;
    },
    next: async (from): Promise<Chunk> => {
      const size = Math.min(100, rows - from);
      return {
        rows: Array.from({ length: size }, (_, i) => row(from + i)),
        next: from + size < rows ? from + size : null,
      };
    },
    stopped: () => false,
    onProgress: (done) => progress.push(done),
    ...changes,
  };
  return { parts, log, kept, progress, most: () => most };
}

describe("all rows", () => {
  test.each([1, 99, 100, 101, 12_345])("%i of them arrive once each, in their order", async (rows) => {
    const { parts, log, kept, progress, most } = sending(rows);
    const sent = await sendChunks(parts);
    const names = Array.from({ length: rows }, (_, i) => `Row ${i}`);
    expect(sent).toEqual({ end: "published", importId: "i", entryIds: names });
    expect([...kept].sort()).toEqual([...names].sort());
    expect(log).toEqual(["published"]);
    expect(most()).toBeLessThanOrEqual(UNDER_WAY);
    expect(progress[0]).toBe(0);
    expect(progress.at(-1)).toBe(rows);
    expect(progress).toEqual([...progress].sort((a, b) => a - b));
  });
});

describe("all or none", () => {
  test("a piece that is refused ends it: no further one is asked for, those under way are waited for, nothing stays", async () => {
    let asked = 0;
    const base = sending(2_000);
    const { parts, log, kept } = sending(2_000, {
      send: async (id, rows) =>
        String(rows[0]?.values.name) === "Row 300" ? no("Row 301: too long.") : base.parts.send(id, rows),
      next: async (from) => {
        asked += 1;
        return base.parts.next(from);
      },
    });
    expect(await sendChunks(parts)).toEqual({ end: "refused", says: "Row 301: too long." });
    expect(log).toEqual(["cancelled"]);
    expect(kept).toEqual([]);
    expect(asked).toBeLessThanOrEqual(4 + UNDER_WAY);
  });

  test("the first refusal is the one that is told", async () => {
    let at = 0;
    const send = async () => {
      at += 1;
      return no(`Refused ${at}`);
    };
    const { parts } = sending(1_000, { send });
    expect(await sendChunks(parts)).toEqual({ end: "refused", says: "Refused 1" });
  });

  test("stopped by its reader, nothing stays and nothing is published", async () => {
    let sent = 0;
    const base = sending(2_000);
    const { parts, log } = sending(2_000, {
      send: (id, rows) => {
        sent += 1;
        return base.parts.send(id, rows);
      },
      stopped: () => sent >= 5,
    });
    expect(await sendChunks(parts)).toEqual({ end: "stopped" });
    expect(log).toEqual(["cancelled"]);
    expect(sent).toBe(5);
  });

  test("stopped when everything has arrived it is stopped all the same", async () => {
    let over = false;
    const { parts, log } = sending(50, {
      onProgress: (done) => {
        over = done === 50;
      },
      stopped: () => over,
    });
    expect(await sendChunks(parts)).toEqual({ end: "stopped" });
    expect(log).toEqual(["cancelled"]);
  });

  test("what cannot begin, or cannot be published, says why", async () => {
    const first = sending(10, { begin: async () => no("You have no Edit here.") });
    expect(await sendChunks(first.parts)).toEqual({ end: "not-begun", says: "You have no Edit here." });
    expect(first.log).toEqual([]);
    const last = sending(10, { publish: async () => no("The folder was deleted.") });
    expect(await sendChunks(last.parts)).toEqual({ end: "not-published", says: "The folder was deleted." });
    expect(last.log).toEqual(["cancelled"]);
  });
});
