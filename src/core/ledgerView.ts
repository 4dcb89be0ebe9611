/** How a person likes a vault's ledger: its columns, its order, what stands together, which folders are open. */
import { z } from "zod";

export const LEDGER_COLUMNS = ["kind", "address", "tags", "who", "strength", "used", "changed", "you"] as const;
export type LedgerColumn = (typeof LEDGER_COLUMNS)[number];

export const COLUMN_WORDS: Record<LedgerColumn, string> = {
  kind: "Kind",
  address: "Site",
  tags: "Tags",
  who: "Access",
  strength: "Strength",
  used: "Last used",
  changed: "Changed",
  you: "Your level",
};

export const ledgerViewSchema = z.strictObject({
  columns: z.array(z.enum(LEDGER_COLUMNS)).default(["kind", "address", "who", "strength", "changed", "you"]),
  sort: z.enum(["name", "used", "new", "own"]).default("name"),
  group: z.enum(["folder", "kind", "tag", "none"]).default("folder"),
  /** Node ids in the person's own order; what is not named comes after, by name. */
  own: z.array(z.string().max(64)).max(20_000).default([]),
  /** Ids of the folders that stand open. */
  open: z.array(z.string().max(64)).max(2_000).default([]),
});

export type LedgerView = z.output<typeof ledgerViewSchema>;

export const PLAIN_VIEW: LedgerView = ledgerViewSchema.parse({});
