import { useCallback, useEffect, useRef, useState } from "react";
import { type Change, placeOf, type Terms } from "@/core/access";
import type { ownSlip } from "@/server/access/slip";
import { runCommand, runQuery } from "../shared/ask";

export type OwnSlip = Awaited<ReturnType<(typeof ownSlip)["execute"]>>;

/** As the server takes it: it knows the zone and who keeps stewardship. */
export function toSend(change: Change): unknown {
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

/**
 * One's open slip: kept on the server as it is changed, the same on every page and device.
 * `said` is null while what it would do is being worked out.
 */
export function useSlip(start: OwnSlip) {
  const [slip, setSlip] = useState(start);
  const [changes, setChanges] = useState<readonly Change[]>(() =>
    (start.draft?.changes ?? []).map((one) => one.change),
  );
  const [pending, setPending] = useState(false);
  const [wrong, setWrong] = useState<string | null>(null);
  const revision = useRef(start.draft?.revision ?? 0);
  const wanted = useRef<readonly Change[] | null>(null);
  const running = useRef(false);

  const newest = useRef(start.at);
  const latest = useRef(changes);
  const adopt = useCallback((fresh: OwnSlip, withChanges: boolean) => {
    // A page that was asked for earlier may come later.
    if (fresh.at < newest.current) return;
    newest.current = fresh.at;
    setSlip(fresh);
    revision.current = fresh.draft?.revision ?? 0;
    if (!withChanges) return;
    latest.current = (fresh.draft?.changes ?? []).map((one) => one.change);
    setChanges(latest.current);
  }, []);

  const read = useCallback(
    async (withChanges = true) => {
      const answer = await runQuery<OwnSlip>("access.slip", {});
      if (!answer.ok) return setWrong(answer.refused.message);
      if (wanted.current === null) adopt(answer.result, withChanges);
    },
    [adopt],
  );

  const send = useCallback(
    async (anew = false) => {
      if (running.current || wanted.current === null) return;
      running.current = true;
      const sending = wanted.current;
      wanted.current = null;
      const input = { changes: sending.map(toSend), revision: revision.current, anew };
      const answer = await runCommand<{ revision: number }>("access.draft", input, true);
      running.current = false;
      if (answer.ok) {
        revision.current = answer.result.revision;
        setWrong(null);
      } else setWrong(answer.refused.message);
      if (wanted.current !== null) return void send();
      await read(!answer.ok);
      setPending(wanted.current !== null);
    },
    [read],
  );

  const change = useCallback(
    (next: (before: readonly Change[]) => readonly Change[], anew = false) => {
      latest.current = next(latest.current);
      wanted.current = latest.current;
      setChanges(latest.current);
      setPending(true);
      // What comes while this is under way goes together, after it.
      void send(anew);
    },
    [send],
  );

  // Another page of one's own, or another steward, changed something: the page was drawn anew with it.
  useEffect(() => {
    if (wanted.current === null && !running.current) adopt(start, true);
  }, [start, adopt]);

  return { slip, changes, pending, wrong, change, read, setWrong };
}

export type SlipState = ReturnType<typeof useSlip>;

/** A change in the place of an earlier one of the same place. */
export const withChange = (changes: readonly Change[], change: Change): Change[] => [
  ...changes.filter((one) => placeOf(one) !== placeOf(change)),
  change,
];

export const sameTerms = (a: readonly Terms[], b: readonly Terms[]): boolean => {
  const text = (terms: readonly Terms[]) =>
    JSON.stringify(
      terms.map((one) => [one.level, one.from, one.until, one.weekly ?? null].map((x) => JSON.stringify(x))).sort(),
    );
  return text(a) === text(b);
};
