import { describe, expect, test } from "vitest";
import { randomBytes } from "../crypto";
import { type ChainedLine, checkChain, FIRST_PREVIOUS, type JournalLine, lineHash, lineMac } from "./chain";

const key = randomBytes(32);

async function chain(length: number): Promise<ChainedLine[]> {
  const lines: ChainedLine[] = [];
  for (let seq = 1; seq <= length; seq++) {
    const line: JournalLine = {
      seq,
      at: seq * 1000,
      act: "access.giveAccess",
      outcome: "done",
      person: "p",
      node: "n",
      vault: "v",
      subject: "s",
      details: "{}",
      names: "{}",
    };
    const previous = lines.at(-1)?.hash ?? FIRST_PREVIOUS;
    const hash = lineHash(line, previous);
    lines.push({ ...line, previous, hash, mac: lineMac(key, hash) });
  }
  return lines;
}

describe("the chain", () => {
  test("holds as it was written, and names its head", async () => {
    const lines = await chain(5);
    expect(await checkChain(lines, key)).toEqual({ lines: 5, head: lines[4]!.hash, broken: null });
  });

  test.each(["at", "act", "person", "node", "vault", "subject", "details", "names", "outcome"] as const)(
    "a changed %s breaks its own line",
    async (field) => {
      const lines = await chain(5);
      (lines[2] as unknown as Record<string, unknown>)[field] = field === "at" ? 7 : "changed";
      expect((await checkChain(lines, key)).broken).toEqual({ seq: 3, why: "hash" });
    },
  );

  test("a line taken out, moved or put in is found where it happened", async () => {
    const lines = await chain(5);
    expect(
      (
        await checkChain(
          lines.filter((line) => line.seq !== 3),
          key,
        )
      ).broken,
    ).toEqual({ seq: 3, why: "sequence" });
    const [first, second, ...rest] = lines as [ChainedLine, ChainedLine, ...ChainedLine[]];
    expect((await checkChain([second, first, ...rest], key)).broken?.seq).toBe(1);
  });

  test("a line rewritten with a fitting hash lacks the MAC", async () => {
    const lines = await chain(3);
    const forged = { ...lines[2]!, person: "someone else" };
    forged.hash = lineHash(forged, forged.previous);
    expect((await checkChain([lines[0]!, lines[1]!, forged], key)).broken).toEqual({ seq: 3, why: "mac" });
  });

  test("a cut or rewritten tail is found with a head noted earlier, and only then", async () => {
    const lines = await chain(5);
    const cut = lines.slice(0, 3);
    expect((await checkChain(cut, key)).broken).toBeNull();
    expect((await checkChain(cut, key, lines[4]!.hash)).broken).toEqual({ seq: 3, why: "missing-head" });
    expect((await checkChain(lines, key, lines[1]!.hash)).broken).toBeNull();
  });
});
