/** A Journal of five million lines: looked through, signed, and a line of it proven. */
import { performance } from "node:perf_hooks";
import { buildDemo } from "../demo/build";
import { inProcess } from "../demo/inProcess";
import { buildLarge } from "../demo/large";
import { checkLineProof } from "../src/core/journal/proof";
import type { Caller } from "../src/server/caller";
import { pinEntry } from "../src/server/frontdesk/frontDesk";
import { growthSince, lineProof, makeAndWrite, makeCheckpoint } from "../src/server/journal/checkpoints";
import { journalPage } from "../src/server/journal/page";
import { middleOf, slowestWhile, tell } from "./measure";

const LIMIT_MS = 300;

export async function benchJournal(journalLines: number): Promise<void> {
  const house = await inProcess();
  try {
    const { galtry, standins } = house;
    const built = await buildDemo(galtry, standins.sites, standins.address);
    const began = performance.now();
    const large = await buildLarge(galtry, {
      ...{ people: 400, groups: 40, vaults: 190, entries: 10_000, grants: 4_000 },
      journalLines,
    });
    console.log(
      `${journalLines.toLocaleString("en-GB")} lines, written in ${((performance.now() - began) / 1000).toFixed(0)} s`,
    );
    const as = (personId: string): Caller => ({
      ...{ kind: "person", personId, sessionId: null, provedAt: Date.now() },
      ...{ address: "127.0.0.1", browser: "Chromium on Linux" },
    });
    const owner = as(built.people.get("ines")!);
    const entryId = built.entries.get("quillbrook.localhost")!;
    const pin = (pinned: boolean) => pinEntry.execute(galtry, { entryId, pinned }, as(built.people.get("maren")!));

    const now = Date.now();
    const days = (from: number, until: number) => ({ from: now - from * 86_400_000, until: now - until * 86_400_000 });
    const personId = large.personIds[7]!;
    const nodeId = large.entryIds[300]!;
    const searches: [string, object][] = [
      ["newest", {}],
      ["of a week, half a year ago", days(187, 180)],
      ["one person", { personId }],
      ["one entry", { nodeId }],
      ["one vault", { nodeId: large.vaultIds[3] }],
      ["a frequent act", { acts: "sign-ins" }],
      ["a rare act", { acts: "Lanyard" }],
      ["a rare word", { words: "scaffolding" }],
      ["the beginning of a frequent word", { words: "sto" }],
      ["two frequent words", { words: "spring mill" }],
      ["a word that is nowhere", { words: "zeppelin" }],
      ["a frequent word and a person", { words: "spring", personId }],
      ["a rare word and a vault", { words: "scaffolding", nodeId: large.vaultIds[3] }],
      ["a person, an act, a month", { personId, acts: "access", ...days(120, 90) }],
      ["a vault, an act, a month", { nodeId: large.vaultIds[3], acts: "revealed", ...days(120, 90) }],
    ];
    for (const [who, caller] of [
      ["an administrator", owner],
      ["a steward", as(large.steward.personId)],
    ] as const)
      for (const [what, filters] of searches) {
        const found = (await journalPage.execute(galtry, filters, caller)).lines.length;
        const taken = await middleOf(5, () => journalPage.execute(galtry, filters, caller));
        tell(`Journal of ${who}: ${what}`, taken, LIMIT_MS, " ms", `${found} lines`);
      }

    const signing = performance.now();
    const slowest = await slowestWhile(pin, () => makeAndWrite(galtry));
    tell("first checkpoint, beside other work", (performance.now() - signing) / 1000, 300, " s");
    tell("meanwhile a command takes at most", slowest, 100, " ms");
    const again = await middleOf(5, async () => {
      await pinEntry.execute(galtry, { entryId, pinned: true }, owner).catch(() => undefined);
      await makeCheckpoint.execute(galtry, {}, owner);
    });
    tell("a checkpoint after that", again, LIMIT_MS, " ms");
    const proven = await middleOf(9, async () => {
      const proof = await lineProof.execute(galtry, { seq: 1 + Math.floor(Math.random() * journalLines) }, owner);
      const checked = checkLineProof(proof!);
      if ("fault" in checked) throw new Error(`the proof does not hold: ${checked.fault}`);
    });
    tell("a line proven and checked", proven, LIMIT_MS, " ms");
    const growth = await middleOf(9, () =>
      growthSince.execute(galtry, { size: 1 + Math.floor(Math.random() * journalLines) }, owner),
    );
    tell("that it began with a checkpoint of any size", growth, LIMIT_MS, " ms");
  } finally {
    await house.close();
  }
}
