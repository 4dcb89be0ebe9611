/** People as they are pasted or exported: one a line, or a table with names of columns. */
import Papa from "papaparse";
import { plainName } from "../plainName";

export interface ListedPerson {
  /** Number of the line, from 1. */
  line: number;
  name: string;
  mail: string;
  /** Names of groups as they were written. */
  groups: string[];
  /** Null where the line says none. */
  role: ListedRole | null;
  /** A day, "2026-09-30"; null for no end. */
  until: string | null;
  /** What cannot be read, at its field. */
  wrong: { field: "name" | "mail" | "role" | "until"; message: string } | null;
}

export type ListedRole = "member" | "administrator" | "guest";

type Column = "name" | "given" | "family" | "mail" | "groups" | "role" | "until";

/** Names of columns, squashed, as directories and spreadsheets have them. */
const COLUMNS: Record<Column, readonly string[]> = {
  name: ["name", "fullname", "displayname", "person", "vollername"],
  given: ["givenname", "firstname", "first", "vorname", "prenom", "nombre"],
  family: ["familyname", "lastname", "surname", "last", "nachname", "nom", "apellidos"],
  mail: ["mail", "email", "emailaddress", "mailaddress", "address", "username", "upn", "courriel", "correo"],
  groups: ["group", "groups", "team", "teams", "department", "gruppe", "gruppen"],
  role: ["role", "roles", "rolle"],
  until: ["until", "end", "enddate", "ends", "lastday", "contractend", "bis"],
};

const squashed = (text: string): string =>
  text
    .normalize("NFKD")
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]/gu, "");

const columnOf = (name: string): Column | null =>
  (Object.keys(COLUMNS) as Column[]).find((column) => COLUMNS[column].includes(squashed(name))) ?? null;

const MAIL = /^[^\s@<>,;]+@[^\s@<>,;]+\.[^\s@<>,;]+$/;
export const MOST_LISTED = 500;

/**
 * "Ada Brandt, ada@…", "Ada Brandt <ada@…>", "ada@…", or a table whose first line names its columns; separated by commas,
 * semicolons or tabs.
 */
export function readPeople(text: string): ListedPerson[] {
  const { data } = Papa.parse<string[]>(text.replace(/^\uFEFF/, ""), {
    skipEmptyLines: false,
    delimitersToGuess: ["\t", ";", ","],
  });
  const rows = data.map((cells, i) => ({ line: i + 1, cells: cells.map((cell) => cell.trim()) }));
  const filled = rows.filter(({ cells }) => cells.some((cell) => cell !== ""));
  const columns = filled[0]?.cells.map(columnOf) ?? [];
  const isHeader = columns.includes("mail") && !filled[0]?.cells.some((cell) => MAIL.test(cell));
  return filled
    .slice(isHeader ? 1 : 0)
    .slice(0, MOST_LISTED)
    .map(({ line, cells }) => personOf(line, isHeader ? byColumn(columns, cells) : byPlace(cells)));
}

/** The text without some of its lines; nothing where no other person is left in it. */
export function withoutLines(text: string, lines: ReadonlySet<number>): string {
  if (readPeople(text).every(({ line }) => lines.has(line))) return "";
  const { data, meta } = Papa.parse<string[]>(text, { skipEmptyLines: false, delimitersToGuess: ["\t", ";", ","] });
  // A cell may hold several lines of text: then rows are no lines, and are written anew.
  const each = text.split("\n");
  if (each.length === data.length)
    return each
      .filter((_, i) => !lines.has(i + 1))
      .join("\n")
      .trim();
  return Papa.unparse(
    data.filter((_, i) => !lines.has(i + 1)),
    { delimiter: meta.delimiter, newline: "\n" },
  );
}

type Cells = Partial<Record<Column, string>>;

function byColumn(columns: readonly (Column | null)[], cells: readonly string[]): Cells {
  const found: Cells = {};
  for (const [i, column] of columns.entries()) if (column && cells[i]) found[column] ??= cells[i];
  return found;
}

/** Name, address, groups, role, end; where a line begins with the address, that comes first. */
function byPlace(cells: readonly string[]): Cells {
  const within = /^(.*?)\s*<([^<>]+)>$/.exec(cells[0] ?? "");
  const [first = "", second = "", ...rest] = within ? [within[1] ?? "", within[2] ?? "", ...cells.slice(1)] : cells;
  const [groups = "", role = "", until = ""] = rest;
  const swapped = MAIL.test(first) && !MAIL.test(second);
  return { name: swapped ? second : first, mail: swapped ? first : second, groups, role, until };
}

function personOf(line: number, cells: Cells): ListedPerson {
  const mail = (cells.mail ?? "").toLowerCase();
  const name = plainName(cells.name || [cells.given, cells.family].filter(Boolean).join(" ") || nameOf(mail));
  const role = readRole(cells.role ?? "");
  const until = readDay(cells.until ?? "");
  const wrong: ListedPerson["wrong"] = !MAIL.test(mail)
    ? { field: "mail", message: mail === "" ? "The email address is missing." : "This is not an email address." }
    : name === "" || name.length > 200
      ? { field: "name", message: "A name has 1 to 200 characters." }
      : role === undefined
        ? { field: "role", message: "A role is member, administrator or guest." }
        : until === undefined
          ? { field: "until", message: "Write the end date as 2026-09-30 or 30/09/2026." }
          : null;
  return {
    ...{ line, name, mail, role: role ?? null, until: until ?? null, wrong },
    groups: (cells.groups ?? "")
      .split(/[;|/]/)
      .map((group) => group.trim())
      .filter(Boolean),
  };
}

/** "ada.brandt@…" is most likely Ada Brandt. */
const nameOf = (mail: string): string =>
  (mail.split("@")[0] ?? "")
    .split(/[._-]+/)
    .filter((part) => /\p{L}/u.test(part))
    .map((part) => part.charAt(0).toUpperCase() + part.slice(1))
    .join(" ");

/** Undefined for what is no role. */
function readRole(text: string): ListedRole | null | undefined {
  switch (squashed(text)) {
    case "":
      return null;
    case "member":
    case "staff":
      return "member";
    case "administrator":
    case "admin":
      return "administrator";
    case "guest":
      return "guest";
    default:
      return undefined;
  }
}

/** Year first, or day first; undefined for what is no day. */
function readDay(text: string): string | null | undefined {
  if (text === "") return null;
  const [, a = "", b = "", c = ""] = /^(\d{1,4})[-/.](\d{1,2})[-/.](\d{1,4})$/.exec(text) ?? [];
  const [year, month, day] = a.length === 4 ? [a, b, c] : [c, b, a];
  if (year?.length !== 4) return undefined;
  const whole = `${year}-${month?.padStart(2, "0")}-${day?.padStart(2, "0")}`;
  const read = new Date(`${whole}T00:00:00Z`);
  return Number.isNaN(read.getTime()) || read.toISOString().slice(0, 10) !== whole ? undefined : whole;
}
