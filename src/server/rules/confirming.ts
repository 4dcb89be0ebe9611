/** Acts before which people show that it is them, as the house rules say. */
import type { ConfirmedAct } from "../../core/access/houseRules";
import type { Context } from "../command";
import type { Reader } from "../database/client";
import { loadRules } from "../organisation";
import { Refused } from "../refused";
import { rules as t } from "./strings";

export type Confirming = Pick<Context<unknown, Reader>, "tx" | "caller" | "at">;

/** @throws Refused prove-again, where the rules want this act confirmed and the caller last did so too long ago */
export async function requireConfirmed(context: Confirming, act: ConfirmedAct): Promise<void> {
  const { confirm } = await loadRules(context.tx);
  if (confirm.acts.includes(act) && !confirmedWithin(context, confirm.minutes))
    throw new Refused("prove-again", t.confirmFirst[act]);
}

export const confirmedWithin = ({ caller, at }: Omit<Confirming, "tx">, minutes: number): boolean =>
  caller.kind === "person" && at - caller.provedAt <= minutes * 60_000;
