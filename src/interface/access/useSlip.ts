import { useEffect, useState, useSyncExternalStore } from "react";
import { type Change, placeOf, type Terms } from "@/core/access";
import { runCommand, runQuery } from "../shared/ask";
import { type DraftInput, type OwnSlip, SlipSync } from "./slipSync";

export { type OwnSlip, toSend } from "./slipSync";

const SERVER = {
  read: () => runQuery("access.ownSlip", {}),
  draft: (input: DraftInput) => runCommand("access.draftSlip", input, true),
};

/**
 * One's open slip: kept on the server as it is changed, the same on every page and device.
 * `said` is null while what it would do is being worked out.
 */
export function useSlip(start: OwnSlip) {
  const [sync] = useState(() => new SlipSync(start, SERVER));
  const state = useSyncExternalStore(
    sync.listen,
    () => sync.state,
    () => sync.state,
  );
  useEffect(() => sync.drawn(start), [sync, start]);
  const { change, read, setWrong } = sync;
  return { ...state, change, read, setWrong };
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
