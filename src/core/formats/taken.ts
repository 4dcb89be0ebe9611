/** An entry on its way out, with all its values: what the formats write, and read back. */
import type { Kind } from "../kinds/kind";
import type { ExtraValue } from "../kinds/values";
import type { CodeSettings } from "../signin/code";

export interface TakenEntry {
  kind: Kind;
  name: string;
  description: string;
  notes: string;
  tags: string[];
  /** Names of folders, the outermost first. */
  folder: string[];
  signInPage: string;
  reach: "site" | "host";
  useSeesUserName: boolean;
  /** By field id, open and hidden ones; without the sign-in page and the code. */
  fields: Record<string, string>;
  code: CodeSettings | null;
  extras: ExtraValue[];
  /** UTC milliseconds. */
  createdAt: number;
  changedAt: number;
}

/** Writes a file in parts: what is added is text that stands after what came before. */
export interface TakenWriter {
  add: (entries: readonly TakenEntry[]) => string;
  /** What stands last; nothing is added after it. */
  end: () => string;
}
