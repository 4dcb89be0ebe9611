import type { entryPage } from "@/server/vaults/entryPage";

/** What the entry page's query answers. */
export type EntryView = Awaited<ReturnType<(typeof entryPage)["execute"]>>;
