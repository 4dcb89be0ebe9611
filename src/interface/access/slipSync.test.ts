import { describe, expect, test } from "vitest";
import type { Change } from "@/core/access";
import type { Answer } from "../shared/ask";
import { type DraftInput, type OwnSlip, SlipSync, type SyncedSlip, toSend } from "./slipSync";

const separate = (nodeId: string): Change => ({ type: "separate", nodeId, separate: true, keeper: null });
const nodesOf = (changes: readonly Change[]) => changes.map((one) => (one.type === "separate" ? one.nodeId : one.type));

/** As the server answers it. */
const slip = (at: number, revision: number, nodes: string[], id = "slip"): OwnSlip =>
  ({
    at,
    draft: { id, revision, changes: nodes.map((nodeId) => ({ change: separate(nodeId), text: "", moved: false })) },
  }) as unknown as OwnSlip;

/** A server whose answers are given by hand, in any order. */
function byHand() {
  const drafts: { input: DraftInput; answer: (answer: Answer<{ slipId: string | null; revision: number }>) => void }[] =
    [];
  const reads: ((answer: Answer<OwnSlip>) => void)[] = [];
  return {
    drafts,
    reads,
    draft: (input: DraftInput) =>
      new Promise<Answer<{ slipId: string | null; revision: number }>>((answer) => drafts.push({ input, answer })),
    read: () => new Promise<Answer<OwnSlip>>((answer) => reads.push(answer)),
  };
}

/** Lets what waits for an answer go on. */
const turn = () => new Promise((done) => setTimeout(done, 0));
const sent = (input: DraftInput) => (input.changes as readonly { nodeId: string }[]).map((one) => one.nodeId);
const plus = (nodeId: string) => (before: readonly Change[]) => [...before, separate(nodeId)];

function begun() {
  const server = byHand();
  const sync = new SlipSync(slip(100, 1, ["a"]), server);
  const states: SyncedSlip[] = [];
  sync.listen(() => states.push(sync.state));
  return { server, sync, states };
}

describe("a change", () => {
  test("stands on the page at once, goes to the server, and what it would do is read after", async () => {
    const { server, sync } = begun();
    sync.change(plus("b"));
    expect([nodesOf(sync.state.changes), sync.state.pending]).toEqual([["a", "b"], true]);
    expect(server.drafts.map(({ input }) => [sent(input), input.revision, input.anew])).toEqual([
      [["a", "b"], 1, false],
    ]);
    server.drafts[0]!.answer({ ok: true, result: { slipId: "slip", revision: 2 } });
    await turn();
    expect(sync.state.pending).toBe(true);
    server.reads[0]!({ ok: true, result: slip(200, 2, ["a", "b"]) });
    await turn();
    expect([sync.state.pending, sync.state.slip.at]).toEqual([false, 200]);
  });

  test("those that come while one is under way go together, with the revision that it made", async () => {
    const { server, sync } = begun();
    for (const nodeId of ["b", "c", "d"]) sync.change(plus(nodeId));
    expect(server.drafts).toHaveLength(1);
    server.drafts[0]!.answer({ ok: true, result: { slipId: "slip", revision: 2 } });
    await turn();
    expect(server.drafts.map(({ input }) => [sent(input), input.revision])).toEqual([
      [["a", "b"], 1],
      [["a", "b", "c", "d"], 2],
    ]);
    // Nothing is read in between: it would be of an earlier draft.
    expect(server.reads).toHaveLength(0);
    server.drafts[1]!.answer({ ok: true, result: { slipId: "slip", revision: 3 } });
    await turn();
    server.reads[0]!({ ok: true, result: slip(200, 3, ["a", "b", "c", "d"]) });
    await turn();
    expect([nodesOf(sync.state.changes), sync.state.pending]).toEqual([["a", "b", "c", "d"], false]);
  });

  test("one that comes while the answer is read is not lost by it", async () => {
    const { server, sync } = begun();
    sync.change(plus("b"));
    server.drafts[0]!.answer({ ok: true, result: { slipId: "slip", revision: 2 } });
    await turn();
    sync.change(plus("c"));
    server.reads[0]!({ ok: true, result: slip(200, 2, ["a", "b"]) });
    await turn();
    expect(nodesOf(sync.state.changes)).toEqual(["a", "b", "c"]);
    expect(server.drafts[1]!.input.revision).toBe(2);
  });

  test("that was asked for in place of another page's keeps that while it waits", async () => {
    const { server, sync } = begun();
    sync.change(plus("b"));
    sync.change(plus("c"), true);
    server.drafts[0]!.answer({ ok: true, result: { slipId: "slip", revision: 2 } });
    await turn();
    expect(server.drafts.map(({ input }) => input.anew)).toEqual([false, true]);
  });

  test("that is refused says why, and what the server has takes its place", async () => {
    const { server, sync } = begun();
    sync.change(plus("b"));
    server.drafts[0]!.answer({ ok: false, refused: { code: "conflict", message: "Another page changed it." } });
    await turn();
    server.reads[0]!({ ok: true, result: slip(200, 5, ["theirs"]) });
    await turn();
    expect(sync.state.wrong).toBe("Another page changed it.");
    server.reads[1]!({ ok: true, result: slip(200, 5, ["theirs"]) });
    await turn();
    expect([nodesOf(sync.state.changes), sync.state.pending]).toEqual([["theirs"], false]);
    sync.change(plus("mine"));
    expect(server.drafts[1]!.input.revision).toBe(5);
  });

  const gone: Answer<{ slipId: string | null; revision: number }> = {
    ok: false,
    refused: { code: "conflict", message: "This slip was changed on another page." },
  } as never;
  const nothing = { at: 300, draft: null } as unknown as OwnSlip;

  test("made on a slip that was discarded meanwhile begins the next one, without what was discarded", async () => {
    const { server, sync } = begun();
    sync.change(plus("b"));
    server.drafts[0]!.answer(gone);
    await turn();
    // One more, while the server is asked what became of it.
    sync.change(plus("c"));
    server.reads[0]!({ ok: true, result: nothing });
    await turn();
    expect(server.drafts.map(({ input }) => [sent(input), input.revision])).toEqual([
      [["a", "b"], 1],
      [["b", "c"], 0],
    ]);
    server.drafts[1]!.answer({ ok: true, result: { slipId: "next", revision: 1 } });
    await turn();
    server.reads[1]!({ ok: true, result: slip(400, 1, ["b", "c"], "next") });
    await turn();
    expect([nodesOf(sync.state.changes), sync.state.wrong, sync.state.pending]).toEqual([["b", "c"], null, false]);
  });

  test("is tried once: refused again on nothing, it says why", async () => {
    const { server, sync } = begun();
    sync.change(plus("b"));
    server.drafts[0]!.answer(gone);
    await turn();
    server.reads[0]!({ ok: true, result: nothing });
    await turn();
    server.drafts[1]!.answer(gone);
    await turn();
    server.reads[1]!({ ok: true, result: nothing });
    await turn();
    expect(server.drafts.length).toBe(2);
    expect([nodesOf(sync.state.changes), sync.state.wrong]).toEqual([[], "This slip was changed on another page."]);
  });

  test("where another page has begun a slip of its own, its person is told", async () => {
    const { server, sync } = begun();
    sync.change(plus("b"));
    server.drafts[0]!.answer(gone);
    await turn();
    server.reads[0]!({ ok: true, result: slip(300, 2, ["z"]) });
    await turn();
    server.reads[1]!({ ok: true, result: slip(300, 2, ["z"]) });
    await turn();
    expect(server.drafts.length).toBe(1);
    expect([nodesOf(sync.state.changes), sync.state.wrong]).toEqual([["z"], "This slip was changed on another page."]);
  });

  test("when nothing answers stays on the page, and says so", async () => {
    const { server, sync } = begun();
    const offline = { ok: false as const, refused: { code: "offline", message: "Galtry is not responding." } };
    sync.change(plus("b"));
    server.drafts[0]!.answer(offline);
    await turn();
    server.reads[0]!(offline);
    await turn();
    expect([nodesOf(sync.state.changes), sync.state.wrong]).toEqual([["a", "b"], "Galtry is not responding."]);
    // The next one takes all of it along.
    sync.change(plus("c"));
    expect(sent(server.drafts[1]!.input)).toEqual(["a", "b", "c"]);
  });
});

describe("what comes from elsewhere", () => {
  test("a page that was drawn with another slip has the server asked, which of the two counts", async () => {
    const { server, sync } = begun();
    sync.drawn(slip(200, 4, ["x"]));
    expect(nodesOf(sync.state.changes)).toEqual(["a"]);
    server.reads[0]!({ ok: true, result: slip(210, 4, ["x"]) });
    await turn();
    expect(nodesOf(sync.state.changes)).toEqual(["x"]);
    // Of the same number, and another slip.
    sync.drawn(slip(220, 4, ["y"], "next"));
    expect(server.reads).toHaveLength(2);
  });

  test("one with the same slip brings what it would do, unless it is older, and asks nothing", () => {
    const { server, sync } = begun();
    sync.drawn(slip(200, 1, ["a"]));
    expect(sync.state.slip.at).toBe(200);
    sync.drawn(slip(150, 1, ["a"]));
    expect(sync.state.slip.at).toBe(200);
    expect(server.reads).toHaveLength(0);
  });

  test("nothing comes over what is being sent", () => {
    const { server, sync } = begun();
    sync.change(plus("y"));
    sync.drawn(slip(300, 9, ["other"]));
    expect(nodesOf(sync.state.changes)).toEqual(["a", "y"]);
    expect(server.reads).toHaveLength(0);
  });

  test("a page asked for before the change and drawn after it takes nothing away", async () => {
    const { server, sync } = begun();
    sync.change(plus("b"));
    server.drafts[0]!.answer({ ok: true, result: { slipId: "slip", revision: 2 } });
    await turn();
    // Later by the clock than the slip of this page, and yet without what was sent.
    sync.drawn(slip(150, 1, ["a"]));
    expect(nodesOf(sync.state.changes)).toEqual(["a", "b"]);
    for (const answer of server.reads) answer({ ok: true, result: slip(200, 2, ["a", "b"]) });
    await turn();
    expect([nodesOf(sync.state.changes), sync.state.pending]).toEqual([["a", "b"], false]);
    sync.change(plus("c"));
    expect(sent(server.drafts[1]!.input)).toEqual(["a", "b", "c"]);
    expect(server.drafts[1]!.input.revision).toBe(2);
  });

  test("of two looks the later one counts, whichever comes first", async () => {
    const { server, sync } = begun();
    const looks = [sync.read(), sync.read()];
    server.reads[1]!({ ok: true, result: slip(300, 3, ["new"]) });
    server.reads[0]!({ ok: true, result: slip(200, 2, ["old"]) });
    await Promise.all(looks);
    expect(nodesOf(sync.state.changes)).toEqual(["new"]);
  });

  test("a look that a change overtakes brings no number back", async () => {
    const { server, sync } = begun();
    void sync.read();
    sync.change(plus("b"));
    server.drafts[0]!.answer({ ok: true, result: { slipId: "slip", revision: 2 } });
    await turn();
    server.reads[0]!({ ok: true, result: slip(150, 1, ["a"]) });
    await turn();
    sync.change(plus("c"));
    expect(server.drafts[1]!.input.revision).toBe(2);
    expect(sent(server.drafts[1]!.input)).toEqual(["a", "b", "c"]);
  });

  test("read without its changes keeps those of the page", async () => {
    const { server, sync } = begun();
    const reading = sync.read(false);
    server.reads[0]!({ ok: true, result: slip(200, 2, ["z"]) });
    await reading;
    expect([nodesOf(sync.state.changes), sync.state.slip.at]).toEqual([["a"], 200]);
  });

  test("whoever listens hears of each, until they stop", () => {
    const { sync, states } = begun();
    const heard: number[] = [];
    const stop = sync.listen(() => heard.push(1));
    sync.setWrong("once");
    stop();
    sync.setWrong(null);
    expect([heard.length, states.map(({ wrong }) => wrong)]).toEqual([1, ["once", null]]);
  });
});

test("the server is sent what it does not know by itself", () => {
  const weekly = { days: [1], start: 60, end: 120, zone: "Europe/London" };
  const change: Change = {
    ...{ type: "set", nodeId: "n", subject: { kind: "everyone" } },
    grants: [{ level: "use", from: null, until: 5, weekly }],
  };
  expect(toSend(change)).toEqual({
    ...change,
    grants: [{ level: "use", from: null, until: 5, weekly: { days: [1], start: 60, end: 120 } }],
  });
  expect(toSend(separate("n"))).toEqual({ type: "separate", nodeId: "n", separate: true });
});
