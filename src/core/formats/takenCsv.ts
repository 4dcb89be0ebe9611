/** Entries as a table: a column for each thing that logins have, and one for all other fields of an entry. */
import { PASSWORD, SIGN_IN_PAGE, USER_NAME } from "../kinds/kind";
import { codeAddress } from "../signin/code";
import { writeCsv } from "./csv";
import type { TakenEntry, TakenWriter } from "./taken";

/** Names that reading such a table understands. */
const HEADER = [
  "Folder",
  "Name",
  "Description",
  "Sign-in page",
  "User name",
  "Password",
  "One-time code",
  "Tags",
  "Notes",
  "Kind",
] as const;

/** The columns are known once every entry is: all of it is written at the end. */
export function csvWriter(): TakenWriter {
  const all: TakenEntry[] = [];
  return {
    add: (entries) => {
      for (const entry of entries) all.push(entry);
      return "";
    },
    end: () => takenCsv(all),
  };
}

/**
 * Every other field has a column of its own, under its label; what no entry fills has none. Cells that a spreadsheet
 * would take for a formula are made harmless, and reading them gives the value again.
 */
function takenCsv(entries: readonly TakenEntry[]): string {
  const rest = entries.map(restOf);
  const labels = [...new Set(rest.flatMap((fields) => fields.map(([label]) => label)))];
  return writeCsv(
    [...HEADER, ...labels],
    entries.map((entry, at) => [
      entry.folder.map((name) => name.replace(/[/\\>›»]/g, "-")).join("/"),
      entry.name,
      entry.description,
      entry.signInPage,
      entry.fields[USER_NAME] ?? "",
      entry.fields[PASSWORD] ?? "",
      entry.code ? codeAddress(entry.code, entry.name) : "",
      entry.tags.join(", "),
      entry.notes,
      entry.kind.name,
      ...labels.map((label) =>
        rest[at]!.filter(([one]) => one === label)
          .map(([, value]) => value)
          .join("\n"),
      ),
    ]),
  );
}

const APART: readonly string[] = [SIGN_IN_PAGE, USER_NAME, PASSWORD];

function restOf(entry: TakenEntry): [string, string][] {
  const own = entry.kind.fields
    .filter(({ id }) => !APART.includes(id) && (entry.fields[id] ?? "") !== "")
    .map(({ id, label }): [string, string] => [label, entry.fields[id]!]);
  return [...own, ...entry.extras.map(({ label, value }): [string, string] => [label, value ?? ""])];
}

/** What each format carries, said before it is saved. */
export const CARRIES: Record<"exchange" | "csv" | "page", { carries: string; not: string }> = {
  exchange: {
    carries: "all fields, notes, tags, one-time codes, folders, kinds with their fields",
    not: "earlier versions, attachments, pictures, access",
  },
  csv: {
    carries: "all fields as text, notes, tags, one-time codes, folders",
    not: "earlier versions, attachments, pictures, access, the fields of kinds",
  },
  page: {
    carries: "everything as text, to print",
    not: "earlier versions, attachments, pictures, access; it cannot be imported again",
  },
};
