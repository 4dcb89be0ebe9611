/** How a person likes a vault's ledger: its columns, its order, what stands together, which folders are open. */
import { z } from "zod";

export const LEDGER_COLUMNS = [
  "kind",
  "address",
  "tags",
  "who",
  "strength",
  "upkeep",
  "used",
  "changed",
  "you",
] as const;
export type LedgerColumn = (typeof LEDGER_COLUMNS)[number];

export const COLUMN_WORDS: Record<LedgerColumn, string> = {
  kind: "Kind",
  address: "Site",
  tags: "Tags",
  who: "Access",
  strength: "Strength",
  upkeep: "Upkeep",
  used: "Last used",
  changed: "Changed",
  you: "Your level",
};

/** By a column, by when it was added, or in one's own order. */
export const LEDGER_SORTS = [
  "name",
  "used",
  "new",
  "own",
  "kind",
  "address",
  "who",
  "strength",
  "upkeep",
  "changed",
  "you",
] as const;
export type LedgerSort = (typeof LEDGER_SORTS)[number];

export const ledgerViewSchema = z.strictObject({
  columns: z.array(z.enum(LEDGER_COLUMNS)).default(["kind", "address", "who", "strength", "changed", "you"]),
  sort: z.enum(LEDGER_SORTS).default("name"),
  /** The other way round. */
  reverse: z.boolean().default(false),
  group: z.enum(["folder", "kind", "tag", "none"]).default("folder"),
  /** Node ids in the person's own order; what is not named comes after, by name. */
  own: z.array(z.string().max(64)).max(20_000).default([]),
  /** Ids of the folders that stand open. */
  open: z.array(z.string().max(64)).max(2_000).default([]),
});

export type LedgerView = z.output<typeof ledgerViewSchema>;

export const PLAIN_VIEW: LedgerView = ledgerViewSchema.parse({});
