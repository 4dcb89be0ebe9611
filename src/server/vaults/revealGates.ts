/** What stands between a level and a secret: the house note, the yes of a steward, the sign-in password once more. */
import type { Level } from "../../core/access";
import { requireSecretGates } from "../access/requests/accepting";
import type { Context } from "../command";
import type { Reader } from "../database/client";
import type { entries } from "../database/schema";
import { Refused } from "../refused";
import { requireConfirmed } from "../rules/confirming";
import { revealGates as t } from "./strings";

/** An entry that asks again shows nothing to somebody who gave their sign-in password longer ago than this. */
const ASKED_AGAIN_MS = 60_000;

/** @throws Refused prove-again, where the entry wants the sign-in password once more */
export function requireAskedAgain(
  { caller, at }: Pick<Context<unknown, Reader>, "caller" | "at">,
  entry: { askAgain: boolean; name: string },
): void {
  if (!entry.askAgain) return;
  if (caller.kind === "person" && at - caller.provedAt <= ASKED_AGAIN_MS) return;
  throw new Refused("prove-again", t.requiresYourSignInPassword(entry.name));
}

/**
 * What has to be so, besides the level, before an act shows a secret of an entry or changes where it is sent.
 * @throws Refused accept-first, ask-first or prove-again
 */
export async function requireRevealGates(
  context: Pick<Context<unknown, Reader>, "tx" | "me" | "at" | "caller">,
  { entry, vaultId, level }: { entry: typeof entries.$inferSelect; vaultId: string; level: Level },
): Promise<void> {
  await requireSecretGates(context, entry, vaultId, level);
  requireAskedAgain(context, entry);
  await requireConfirmed(context, "reveal");
}
