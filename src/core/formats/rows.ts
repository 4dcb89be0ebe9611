/** Rows of a table as entries, by what its columns mean. */
import { ZodError } from "zod";
import { readyKind, WEBSITE_LOGIN } from "../kinds/ready";
import { readValues } from "../kinds/values";
import { hostOf, siteName } from "../signin/address";
import { wholeAddress } from "../signin/site";
import type { Meaning } from "./columns";
import { readCell } from "./csv";

/** An entry that is about to be brought in. */
export interface Incoming {
  kind: string;
  values: Record<string, unknown>;
  /** Names of folders, the outermost first. */
  folder: string[];
}

export type ReadRow =
  | {
      row: number;
      incoming: Incoming;
      wrong: null;
      /** What was read otherwise than it may have been meant. */
      remark?: string;
    }
  | { row: number; incoming: null; wrong: string };

/** Of one import: it is published in one transaction, for which everybody waits. */
export const MOST_ENTRIES = 20_000;

const DEEPEST_PATH = 20;

/** "Shop/Tills", "Shop\\Tills", "Shop > Tills": folders within folders. */
export function folderPath(text: string): string[] {
  return text
    .split(/[/\\>›»]+/)
    .map((part) => part.trim())
    .filter(Boolean);
}

/** A name is one line; what spreadsheets and other programs put into one becomes a space. */
const oneLine = (text: string) => text.replace(/[\u0000-\u001f\u007f]+/g, " ").trim();

/**
 * @param header names of the columns: labels of extra fields
 * @param row number of the row in the file, the first after the header being 1
 * @param around folders that its place in a tree says
 */
export function readRow(
  header: readonly string[],
  meanings: readonly Meaning[],
  cells: readonly string[],
  row: number,
  around: readonly string[] = [],
): ReadRow {
  const all = (meaning: Meaning) =>
    meanings.flatMap((one, i) => (one === meaning && cells[i]!.trim() !== "" ? [readCell(cells[i]!)] : []));
  const first = (meaning: Meaning) => all(meaning)[0] ?? "";
  const page = pageOf(first("signInPage"));
  const userName = first("userName");
  const name =
    oneLine(first("name")) || (page.address ? siteName(page.address) : oneLine(userName) || oneLine(page.rest));
  const kind = page.address ? WEBSITE_LOGIN : readyKind("password");
  const folder = first("folder") === "" ? [...around] : folderPath(first("folder"));
  const refuse = (wrong: string): ReadRow => ({ row, incoming: null, wrong });
  if (name === "") return refuse("It has no name, no address and no user name.");
  if (folder.length > DEEPEST_PATH)
    return refuse(`Its folders nest ${folder.length} deep; at most ${DEEPEST_PATH} levels can be created.`);
  const long = folder.find((part) => part.length > 200);
  if (long) return refuse("A folder’s name has at most 200 characters.");
  const extras = meanings.flatMap((meaning, i) =>
    meaning.startsWith("extra ") && cells[i]!.trim() !== ""
      ? [
          {
            id: `column-${i}`,
            label: header[i]!.slice(0, 100),
            class: meaning.slice("extra ".length),
            value: readCell(cells[i]!),
          },
        ]
      : [],
  );
  const values = {
    name: name.slice(0, 200),
    description: oneLine(first("description")).slice(0, 300),
    notes: all("notes").join("\n\n"),
    tags: all("tags").flatMap(tagsOf).slice(0, 20),
    userName,
    password: first("password"),
    ...(first("code") && { code: first("code") }),
    ...(page.address ? { signInPage: page.address } : { where: oneLine(page.rest) }),
    extras,
  };
  try {
    readValues(kind, values);
  } catch (error) {
    const issue = error instanceof ZodError ? error.issues[0] : null;
    return refuse(issue ? `${String(issue.path[0] ?? "It")}: ${issue.message}` : "It cannot be understood.");
  }
  const remark = page.rest === "" ? {} : { remark: `“${oneLine(page.rest).slice(0, 60)}” is not a web address.` };
  return { row, incoming: { kind: kind.id, values, folder }, wrong: null, ...remark };
}

/** A page of the web, or what else stands where one was expected: an application's own address, a word. */
function pageOf(text: string): { address: string | null; rest: string } {
  const first = text.trim().split(/[\s,]+(?=https?:)/)[0]!;
  if (first === "") return { address: null, rest: "" };
  try {
    const address = wholeAddress(first);
    return hostOf(address) === null ? { address: null, rest: text } : { address, rest: "" };
  } catch {
    return { address: null, rest: text };
  }
}

const tagsOf = (text: string): string[] =>
  text
    .split(/[,;]+/)
    .map((tag) => tag.trim().slice(0, 50))
    .filter(Boolean);
