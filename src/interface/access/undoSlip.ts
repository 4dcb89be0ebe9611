import { runCommand, runQuery } from "../shared/ask";
import { undoSlip as t } from "./strings";

/**
 * Undoes an applied slip at once, where that is all there is to it. Where somebody has set something else at one of its
 * places, others must approve, or something is drafted besides, the reversal is left on the slip to be read.
 * @returns what came of it, for the reader
 */
export async function undoSlip(slipId: string): Promise<string> {
  const before = await runQuery("access.ownSlip", {});
  const drafted = await runCommand("access.undoSlip", { slipId });
  if (!drafted.ok) return drafted.refused.message;
  const own = await runQuery("access.ownSlip", {});
  const draft = own.ok ? own.result.draft : null;
  const clear =
    before.ok &&
    before.result.draft === null &&
    draft &&
    !draft.second &&
    !draft.reason &&
    !draft.said.asks &&
    draft.said.withoutSteward.length === 0 &&
    draft.changes.every((one) => !one.moved);
  if (!clear) return t.onYourSlip;
  const input = { slipId: draft.id, revision: draft.revision, ground: draft.said.ground, why: t.reason };
  const applied = await runCommand("access.applySlip", input);
  return applied.ok ? t.undone : t.onYourSlip;
}
