/** A thousand Lanyards that are connected and do nothing: what they cost the server. */
import { readFileSync } from "node:fs";
import { Agent, get } from "node:http";
import { setTimeout as rest } from "node:timers/promises";
import type { App } from "../e2e/house";
import { lanyardByHand } from "../e2e/lanyardByHand";
import { persons } from "../src/server/database/schema";
import { tell } from "./measure";

const LANYARDS = 1_000;
const MEASURED_MS = 20_000;
/** `sysconf(_SC_CLK_TCK)` of Linux. */
const TICKS_A_SECOND = 100;

/** Seconds of processor time that a process has taken, in all its threads. */
function processorTime(pid: number): number {
  const fields = readFileSync(`/proc/${pid}/stat`, "utf8")
    .replace(/^.*\) /, "")
    .split(" ");
  return (Number(fields[11]) + Number(fields[12])) / TICKS_A_SECOND;
}

export async function benchIdle(app: App): Promise<void> {
  const people = await app.galtry.db.select({ id: persons.id }).from(persons);
  const agent = new Agent({ maxSockets: Number.POSITIVE_INFINITY });
  let asked = 0;
  let open = 0;
  const one = async (which: number) => {
    const lanyard = await lanyardByHand(
      app,
      people[which % people.length]!.id,
      app.url,
      `10.0.${which >> 8}.${which & 255}`,
    );
    const headers = { dpop: await lanyard.prove("GET", "live"), authorization: `DPoP ${lanyard.token}` };
    await new Promise<void>((done, failed) => {
      get(`${app.url}/api/lanyard/live`, { agent, headers }, (response) => {
        if (response.statusCode !== 200) failed(new Error(`the stream answered ${response.statusCode}`));
        open += 1;
        response.on("data", (part: Buffer) => {
          if (part.includes("event: look")) asked += 1;
        });
        response.on("error", () => undefined);
        done();
      }).on("error", failed);
    });
  };
  try {
    for (let i = 0; i < LANYARDS; i += 20) await Promise.all(Array.from({ length: 20 }, (_, k) => one(i + k)));
    // What came of connecting is over.
    await rest(10_000);
    asked = 0;
    const before = processorTime(app.pid()!);
    const began = performance.now();
    await rest(MEASURED_MS);
    const share = ((processorTime(app.pid()!) - before) * 1000) / (performance.now() - began);
    tell(`${open.toLocaleString("en-GB")} Lanyards connected and idle take of one core`, share, 0.1, "");
    tell("and are told to look again, where nothing has happened", asked, 0, " times");
  } finally {
    agent.destroy();
  }
}
