/**
 * The same pages in a small organisation and in one a hundred times as large, in one run: what a page costs follows what its
 * reader reaches. Asked over HTTP of the built server, which runs in a process of its own.
 */
import { readFileSync } from "node:fs";
import { buildLarge, type Large, type Size } from "../demo/large";
import { DEMO_PASSWORD } from "../demo/organisation";
import { type App, startHouse } from "../e2e/house";
import { lanyardByHand } from "../e2e/lanyardByHand";
import { tell } from "./measure";

const SMALL: Size = { people: 40, groups: 10, vaults: 10, entries: 2_500, grants: 400, journalLines: 5_000 };
const LARGE: Size = {
  people: 4_960,
  groups: 290,
  vaults: 190,
  entries: 50_000,
  grants: 60_000,
  journalLines: 1_000_000,
};
const OWNER = "hanna.quist@tarrowick.example";
const ROUNDS = 21;
const AT_ONCE = 20;
const BUSY_MS = 8_000;

type Get = (path: string) => Promise<string>;

interface Figures {
  pages: Record<string, number>;
  perSecond: number;
  slowest95: number;
  keys: number;
  start: number;
  megabytes: number;
  bare: number;
}

/** @param sizes both, or for a quick look at one: the same twice */
export async function benchSize(sizes: readonly [Size, Size] = [SMALL, LARGE]): Promise<void> {
  const [small, large] = [await figuresOf(sizes[0]), await figuresOf(sizes[1])];
  for (const [name, taken] of Object.entries(large.pages)) {
    const before = small.pages[name]!;
    // Each beside the bare page of its own half: the machine is not the same from one minute to the next.
    const ratio = taken / large.bare / (before / small.bare);
    const times = `${before.toFixed(1)} → ${taken.toFixed(1)} ms, bare ${small.bare.toFixed(1)} → ${large.bare.toFixed(1)} ms`;
    tell(`${name}: large beside small`, ratio, 1.5, "×", times);
    tell(`${name}, small, beside a bare page`, before / small.bare, 2, "×", `bare ${small.bare.toFixed(1)} ms`);
  }
  tell("keys of a Lanyard, large", large.keys, 10, " ms", `small ${small.keys.toFixed(1)} ms`);
  tell(
    `${AT_ONCE} colleagues at once, large: a Front desk takes at most`,
    1000 / large.perSecond,
    40,
    " ms",
    `${large.perSecond.toFixed(1)} a second, small ${small.perSecond.toFixed(1)}`,
  );
  tell("95 of 100 of them within", large.slowest95, 1000, " ms", `small ${small.slowest95.toFixed(0)} ms`);
  tell("the large organisation starts in", large.start / 1000, 5, " s", `small ${(small.start / 1000).toFixed(1)} s`);
  tell("and its server takes", large.megabytes, 800, " MB", `small ${small.megabytes.toFixed(0)} MB`);
}

async function figuresOf(size: Size): Promise<Figures> {
  const app = await startHouse();
  try {
    await app.kill();
    const built = await buildLarge(app.galtry, size);
    const began = performance.now();
    await app.start();
    const start = performance.now() - began;
    const [owner, colleague, steward] = await Promise.all(
      [OWNER, built.colleague.mail, built.steward.mail].map((mail) => signedIn(app, mail)),
    );
    // First, so that each page after it is asked of a server that has been at work for a while.
    await busy(colleague!, BUSY_MS / 4);
    const { perSecond, slowest95 } = await busy(colleague!, BUSY_MS);
    const { "a bare page": bare, ...pages } = await pagesOf(built, owner!, colleague!, steward!);
    return {
      ...{ pages, perSecond, slowest95, start },
      bare: bare!,
      keys: await keysOf(app, built),
      megabytes: residentOf(app.pid()!),
    };
  } finally {
    await app.close();
  }
}

async function pagesOf(
  { colleague, steward }: Large,
  owner: Get,
  asColleague: Get,
  asSteward: Get,
): Promise<Record<string, number>> {
  const asked: [string, Get, string][] = [
    ["a bare page", owner, "/sign-in"],
    ["the Front desk of a colleague with 27 entries", asColleague, "/"],
    ["an entry at Use", asColleague, `/entry/${colleague.entryId}`],
    ["the same for its steward", asSteward, `/entry/${colleague.entryId}`],
    ["a vault of 250 entries", asSteward, `/vaults/${steward.vaultId}`],
    ["its grid", asSteward, `/access/${steward.vaultId}`],
    ["People", owner, "/people"],
    ["Upkeep of a steward", asSteward, "/upkeep"],
    ["the Journal", owner, "/journal"],
    ["the Journal of a steward", asSteward, "/journal"],
  ];
  const taken = new Map<string, number[]>(asked.map(([name]) => [name, []]));
  // By turns: whatever else the machine does meets all of them alike.
  for (let i = -4; i < ROUNDS; i++)
    for (const [name, get, path] of asked) {
      const begun = performance.now();
      await get(path);
      if (i >= 0) taken.get(name)!.push(performance.now() - begun);
    }
  return Object.fromEntries([...taken].map(([name, some]) => [name, middle(some)]));
}

const middle = (taken: number[]): number => taken.sort((a, b) => a - b)[Math.floor(taken.length / 2)]!;

async function middleOf(work: () => Promise<unknown>): Promise<number> {
  const taken: number[] = [];
  for (let i = -4; i < ROUNDS; i++) {
    const begun = performance.now();
    await work();
    if (i >= 0) taken.push(performance.now() - begun);
  }
  return middle(taken);
}

/** Front desks of some colleagues, each asking again as soon as it has its answer. */
async function busy(get: Get, longMs: number): Promise<{ perSecond: number; slowest95: number }> {
  const taken: number[] = [];
  const begun = performance.now();
  const one = async () => {
    while (performance.now() - begun < longMs) {
      const asked = performance.now();
      await get("/");
      taken.push(performance.now() - asked);
    }
  };
  await Promise.all(Array.from({ length: AT_ONCE }, one));
  const seconds = (performance.now() - begun) / 1000;
  return {
    perSecond: taken.length / seconds,
    slowest95: taken.sort((a, b) => a - b)[Math.floor(taken.length * 0.95)]!,
  };
}

async function keysOf(app: App, { colleague }: Large): Promise<number> {
  const lanyard = await lanyardByHand(app, colleague.personId);
  return middleOf(async () => {
    const answer = await lanyard.post("run/lanyard.keyList", {});
    if (!answer.ok) throw new Error(`keys: ${answer.status}`);
    await answer.text();
  });
}

async function signedIn(app: App, mail: string): Promise<Get> {
  const answer = await fetch(`${app.url}/api/command/people.signIn`, {
    method: "POST",
    headers: { "content-type": "application/json", origin: app.url },
    body: JSON.stringify({ mail, password: DEMO_PASSWORD }),
  });
  const cookie = answer.headers
    .getSetCookie()
    .map((line) => line.split(";")[0])
    .join("; ");
  return async (path) => {
    const page = await fetch(`${app.url}${path}`, { headers: { cookie }, redirect: "manual" });
    if (page.status !== 200) throw new Error(`${path}: ${page.status}`);
    return page.text();
  };
}

/** Resident memory of a process, in MB. */
const residentOf = (pid: number): number =>
  Number(/VmRSS:\s+(\d+) kB/.exec(readFileSync(`/proc/${pid}/status`, "utf8"))![1]) / 1024;
