import type { Step } from "../shared/Done";

/** Each was rewritten: taken back by bringing its version of before back. */
export const undoRewrites = (rows: { entryId: string; before: string; versionId: string }[]): Step => ({
  command: "vaults.restoreVersion",
  input: {
    items: rows.map((row) => ({ entryId: row.entryId, baseVersionId: row.versionId, versionId: row.before })),
    fields: null,
  },
});
