import type { ResultOf } from "@/server/registry";

/** A vault as its ledger shows it, without the rows. */
export type LedgerOf = Omit<ResultOf<"vaults.vaultLedger">, "rows">;
