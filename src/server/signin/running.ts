/** Works on runs, as long as this process lives: whatever process began them, and whether or not anybody looks on. */
import { setTimeout as sleep } from "node:timers/promises";
import { CHANGE_OUTCOMES } from "../../core/signin/changing";
import { FAILURES } from "../../core/signin/outcome";
import type { Caller } from "../caller";
import type { Galtry } from "../galtry";
import { failed, goesOn } from "../log";
import { Refused } from "../refused";
import { type ChangeEngines, changePasswordOf } from "./changePassword";
import { SERVER_SEEN_AS } from "./engine";
import { endRunItem, PAUSE_MS, runWaits, type Taken, takeRunItem } from "./runs";
import { runs as t } from "./strings";
import { testEntry } from "./testing";

const SERVER = { kind: "server" } as const;
const WORK = "signIn.run";
const LOOK_EVERY_MS = 500;

interface Ended {
  good: boolean;
  says: string;
}

export class Running {
  readonly #under = new Set<Promise<void>>();

  constructor(
    private readonly app: Galtry,
    private readonly engines?: ChangeEngines,
    private readonly pauseMs = PAUSE_MS,
  ) {}

  /** Begins what may begin now. @returns how many that were */
  async look(): Promise<number> {
    for (let begun = 0; ; begun += 1) {
      if (!(await runWaits(this.app.db))) return begun;
      const taken = await takeRunItem.execute(this.app, { pauseMs: this.pauseMs }, SERVER);
      if (!taken) return begun;
      const work = this.#bringToItsEnd(taken).catch(goesOn(WORK));
      this.#under.add(work);
      void work.finally(() => this.#under.delete(work));
    }
  }

  /** When all that is under way here has ended. */
  async settled(): Promise<void> {
    await Promise.all(this.#under);
  }

  async #bringToItsEnd(taken: Taken): Promise<void> {
    const { good, says } = await this.#visit(taken).catch((error: unknown): Ended => {
      if (error instanceof Refused) return { good: false, says: error.message };
      failed(WORK, error);
      return { good: false, says: t.unexpected };
    });
    const { run, number } = taken;
    await endRunItem.execute(this.app, { runId: run.id, number, good, says: says.slice(0, 300) }, SERVER);
  }

  async #visit({ run, entryId }: Taken): Promise<Ended> {
    // Once begun it is brought to its end.
    const { signal } = new AbortController();
    const seenAs = run.browser === "" ? SERVER_SEEN_AS : { userAgent: run.browser, acceptLanguage: run.language };
    if (run.what === "change") {
      const { outcome } = await changePasswordOf(this.app, callerOf(run), seenAs, entryId, signal, "", this.engines);
      return { good: outcome === "changed", says: CHANGE_OUTCOMES[outcome].title };
    }
    const caller = callerOf(run);
    if (caller.kind !== "person") throw new Error("only people have logins tested in a run");
    const { outcome } = await testEntry(this.app, caller, seenAs, entryId, signal, undefined, this.engines?.signsIn);
    return outcome === "signed-in"
      ? { good: true, says: t.signedIn }
      : { good: false, says: t.theSite(FAILURES[outcome].title) };
  }
}

/** As they began it: their session may be over, their access may not. */
function callerOf({
  personId,
  provedAt,
  address,
  browser,
}: Taken["run"]): Extract<Caller, { kind: "person" | "server" }> {
  return personId === null ? SERVER : { kind: "person", personId, sessionId: null, provedAt, address, browser };
}

/** As long as this process lives. */
export async function keepRunning(app: Galtry): Promise<void> {
  const running = new Running(app);
  for (;;) {
    await running.look().catch(goesOn(WORK));
    await sleep(LOOK_EVERY_MS, undefined, { ref: false });
  }
}
