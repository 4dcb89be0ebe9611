/** How a page and the server agree on one's open slip: each change goes there, one after the other, and the newest counts. */

import type { Change } from "@/core/access";
import type { ownSlip } from "@/server/access/slip/slip";
import type { InputOf } from "@/server/registry";
import type { Answer } from "../shared/ask";

export type OwnSlip = Awaited<ReturnType<(typeof ownSlip)["execute"]>>;

/** As the server takes it: it knows the zone and who keeps stewardship. */
export function toSend(change: Change): DraftInput["changes"][number] {
  if (change.type === "set")
    return {
      ...change,
      grants: change.grants.map(({ level, from, until, weekly }) => ({
        ...{ level, from, until },
        weekly: weekly ? { days: weekly.days, start: weekly.start, end: weekly.end } : null,
      })),
    };
  if (change.type === "separate") return { type: change.type, nodeId: change.nodeId, separate: change.separate };
  return change;
}

export interface DraftInput {
  changes: InputOf<"access.draftSlip">["changes"];
  revision: number;
  /** In place of what another page drafted meanwhile. */
  anew: boolean;
}

export interface SlipServer {
  read: () => Promise<Answer<OwnSlip>>;
  draft: (input: DraftInput) => Promise<Answer<{ slipId: string | null; revision: number }>>;
}

export interface SyncedSlip {
  slip: OwnSlip;
  /** As they stand on this page, sent or not. */
  changes: readonly Change[];
  /** What they would do is still being worked out. */
  pending: boolean;
  wrong: string | null;
}

type Step = (before: readonly Change[]) => readonly Change[];

const changesOf = ({ draft }: OwnSlip): readonly Change[] => (draft?.changes ?? []).map((one) => one.change);

const draftOf = ({ draft }: OwnSlip) => ({ slipId: draft?.id ?? null, revision: draft?.revision ?? 0 });

export class SlipSync {
  #state: SyncedSlip;
  /** What this page knows that the server has: it counts from there. */
  #known: { slipId: string | null; revision: number };
  /** What is to be sent next. */
  #wanted: readonly Change[] | null = null;
  #anew = false;
  /** What was done on this page and the server does not have yet. */
  #steps: Step[] = [];
  #sending = false;
  /** Of the last change or look; what was asked for before it is out of date when it comes. */
  #turn = 0;
  readonly #heard = new Set<() => void>();

  constructor(
    start: OwnSlip,
    private readonly server: SlipServer,
  ) {
    this.#state = { slip: start, changes: changesOf(start), pending: false, wrong: null };
    this.#known = draftOf(start);
  }

  get state(): SyncedSlip {
    return this.#state;
  }

  /** @returns a function that stops it */
  listen = (heard: () => void): (() => void) => {
    this.#heard.add(heard);
    return () => this.#heard.delete(heard);
  };

  change = (next: Step, anew = false): void => {
    const changes = next(this.#state.changes);
    this.#steps.push(next);
    this.#wanted = changes;
    this.#turn += 1;
    this.#anew ||= anew;
    this.#say({ changes, pending: true });
    // What comes while this is under way goes together, after it.
    void this.#send();
  };

  /** @param withChanges what is there takes the place of what stands here */
  read = async (withChanges = true): Promise<void> => {
    this.#turn += 1;
    const turn = this.#turn;
    const answer = await this.server.read();
    if (!answer.ok) return this.setWrong(answer.refused.message);
    if (turn === this.#turn) this.#adopt(answer.result, withChanges);
  };

  /**
   * The page was drawn anew, because something changed. When it was asked for nobody knows: with another slip than the
   * one that is known here it may be newer, or older than what was just sent, and the server is asked which.
   */
  drawn = (start: OwnSlip): void => {
    if (this.#wanted !== null || this.#sending) return;
    const { slipId, revision } = draftOf(start);
    if (slipId !== this.#known.slipId || revision !== this.#known.revision) void this.read();
    else if (start.at >= this.#state.slip.at) this.#adopt(start, false);
  };

  setWrong = (wrong: string | null): void => this.#say({ wrong });

  async #send(): Promise<void> {
    if (this.#sending || this.#wanted === null) return;
    this.#sending = true;
    const [sending, anew, steps] = [this.#wanted, this.#anew, this.#steps];
    this.#wanted = null;
    this.#anew = false;
    this.#steps = [];
    const answer = await this.server.draft({ changes: sending.map(toSend), revision: this.#known.revision, anew });
    this.#sending = false;
    if (answer.ok) this.#known = answer.result;
    else if (answer.refused.code === "conflict" && (await this.#begunAnew(steps))) return this.#send();
    this.setWrong(answer.ok ? null : answer.refused.message);
    if (this.#wanted !== null) return this.#send();
    await this.read(!answer.ok);
    this.#say({ pending: this.#wanted !== null });
  }

  /**
   * The slip that this page counted from may be no more: discarded, or carried out. Then what was done here since begins
   * the next one. Where another page has begun one meanwhile, its person decides.
   */
  async #begunAnew(steps: readonly Step[]): Promise<boolean> {
    // Of a refusal of nothing on nothing there is no end.
    if (this.#known.revision === 0) return false;
    this.#sending = true;
    const answer = await this.server.read();
    this.#sending = false;
    if (!answer.ok || answer.result.draft) return false;
    this.#adopt(answer.result, true);
    this.#steps = [...steps, ...this.#steps];
    this.#wanted = this.#steps.reduce<readonly Change[]>((before, step) => step(before), []);
    this.#turn += 1;
    this.#say({ changes: this.#wanted, pending: true });
    return true;
  }

  #adopt(fresh: OwnSlip, withChanges: boolean): void {
    this.#known = draftOf(fresh);
    this.#say({ slip: fresh, ...(withChanges && { changes: changesOf(fresh) }) });
  }

  #say(more: Partial<SyncedSlip>): void {
    this.#state = { ...this.#state, ...more };
    for (const heard of this.#heard) heard();
  }
}
