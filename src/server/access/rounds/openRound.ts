import { and, eq, isNull } from "drizzle-orm";
import type { Reader } from "../../database/client";
import { rounds } from "../../database/schema";

export type Round = typeof rounds.$inferSelect;

/** The round of a vault that is under way. */
export const openRound = async (tx: Reader, vaultId: string): Promise<Round | undefined> =>
  (
    await tx
      .select()
      .from(rounds)
      .where(and(eq(rounds.vaultId, vaultId), isNull(rounds.finishedAt)))
  )[0];
