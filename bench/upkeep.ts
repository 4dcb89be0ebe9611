/** Findings in an organisation of 50,000 entries: the first look at all, one change, and the list of leaked passwords. */
import { performance } from "node:perf_hooks";
import { setTimeout as sleep } from "node:timers/promises";
import { and, eq, isNull, sql } from "drizzle-orm";
import { buildDemo } from "../demo/build";
import { inProcess } from "../demo/inProcess";
import { buildLarge, type Size } from "../demo/large";
import type { Caller } from "../src/server/caller";
import { entries, findings } from "../src/server/database/schema";
import { pinEntry } from "../src/server/frontdesk/frontDesk";
import { outgoingFetch } from "../src/server/outgoingFetch";
import { checkSome } from "../src/server/upkeep/checking";
import { rateSome } from "../src/server/upkeep/conditions";
import { upkeepPage } from "../src/server/upkeep/findingsPage";
import { lookUpSome } from "../src/server/upkeep/leaks";
import { changeEntry } from "../src/server/vaults/entries";
import { middleOf, sideBySide, slowestWhile, tell } from "./measure";

const SIZE: Size = { people: 400, groups: 40, vaults: 190, entries: 50_000, grants: 20_000, journalLines: 1_000 };
const LOOKED_UP = 1_000;

export async function benchUpkeep(size: Size = SIZE): Promise<void> {
  const house = await inProcess();
  try {
    const { galtry, standins } = house;
    const built = await buildDemo(galtry, standins.sites, standins.address);
    await buildLarge(galtry, size);
    const by = (key: string): Caller => ({
      ...{ kind: "person", personId: built.people.get(key)!, sessionId: null, provedAt: Date.now() },
      ...{ address: "127.0.0.1", browser: "Chromium on Linux" },
    });
    const entryId = built.entries.get("quillbrook.localhost")!;
    const pin = (pinned: boolean) => pinEntry.execute(galtry, { entryId, pinned }, by("maren"));

    let looks = 0;
    const began = performance.now();
    const slowest = await slowestWhile(pin, async () => {
      while (await checkSome(galtry)) {
        looks += 1;
        await sleep(0);
      }
    });
    const seconds = (performance.now() - began) / 1000;
    const [{ n } = { n: 0 }] = await galtry.db.all<{ n: number }>(sql`select count(*) as n from findings`);
    tell(
      `all of ${size.entries.toLocaleString("en-GB")} entries looked at for the first time`,
      seconds,
      120,
      " s",
      `${looks} turns, ${n} findings`,
    );
    tell("meanwhile a command takes at most", slowest, 100, " ms");

    const times: number[] = [];
    for (let i = 0; i < 9; i++) {
      const start = performance.now();
      await write(i % 2 === 0 ? "weak" : "onyx-Lantern-77-orchard-quill");
      while (await rateSome(galtry, { rate: async (value) => (value === "weak" ? 3 : 15) }));
      while (await checkSome(galtry));
      const weak = await galtry.db
        .select({ id: findings.id })
        .from(findings)
        .where(and(eq(findings.nodeId, entryId), eq(findings.kind, "weak"), isNull(findings.endedAt)));
      if (weak.length !== (i % 2 === 0 ? 1 : 0)) throw new Error("the finding is wrong");
      times.push(performance.now() - start);
    }
    tell("one changed: its findings are right after", times.sort((a, b) => a - b)[4]!, 2_000, " ms");

    const list = galtry.configuration.leakedPasswords!;
    const { floor, taken } = await sideBySide(
      20,
      async () => {
        for (let i = 0; i < 20; i++) await (await outgoingFetch(`${list.href}/0000${i % 10}`)).text();
      },
      () => lookUpSome(galtry, list),
    );
    tell(
      "20 leaked passwords looked up, beside asking the list for 20",
      taken / floor,
      4,
      "×",
      `${floor.toFixed(0)} ms`,
    );
    const waiting = await slowestWhile(pin, async () => {
      for (let done = 0; done < LOOKED_UP; ) done += await lookUpSome(galtry, list);
    });
    tell(`while ${LOOKED_UP} are looked up a command takes at most`, waiting, 100, " ms");

    const page = { vaultId: null, act: null, find: "", most: 200 };
    const small = await middleOf(7, () => upkeepPage.execute(galtry, page, by("bram")));
    tell("Upkeep of a steward of one vault", small, 250, " ms");

    async function write(password: string): Promise<void> {
      const [row] = await galtry.db.select().from(entries).where(eq(entries.nodeId, entryId));
      const values = { name: row!.name, signInPage: row!.signInPage, password };
      const input = { entryId, baseVersionId: row!.versionId, values, captured: false };
      await changeEntry.execute(galtry, input, by("ines"));
    }
  } finally {
    await house.close();
  }
}
