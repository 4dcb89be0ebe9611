/** Journal lines in sentences, for an entry's story and the Journal page. */

import { and, desc, eq, inArray, sql } from "drizzle-orm";
import { type Given, levelWord } from "../../core/access";
import { counted } from "../../core/counted";
import { sayDate } from "../../core/time";
import { peopleNames } from "../access/peopleNames";
import type { Person } from "../access/person";
import type { Reader } from "../database/client";
import { journal, journalNames } from "../database/schema";
import type { Galtry } from "../galtry";
import { hideNumber } from "../opaqueNumber";
import { timeZone } from "../organisation";
import { type Details, nowCalled, sentenceOf } from "./says";

export type Line = typeof journal.$inferSelect;

export interface StoryLine {
  /** Stands for the line, and says nothing else. */
  id: string;
  /** Its number in the chain, for those who may see the whole of it. */
  seq: number | null;
  at: number;
  who: string | null;
  personId: string | null;
  act: string;
  says: string;
  refused: boolean;
  /** The page of what it is about, where its reader can open it. */
  link: string | null;
}

export interface Telling {
  tx: Reader;
  me: Person;
  app: Galtry;
}

/** The Journal of one node; only one person's own acts when `ownOf` names them. */
export async function storyOf(context: Telling, nodeId: string, ownOf: string | null, most = 60): Promise<StoryLine[]> {
  const where = and(eq(journal.node, nodeId), ownOf === null ? undefined : eq(journal.person, ownOf));
  const rows = await context.tx.select().from(journal).where(where).orderBy(desc(journal.seq)).limit(most);
  return tell(context, rows, { numbered: false, knows: () => true }, (line) =>
    line.node === nodeId ? null : undefined,
  );
}

/**
 * @param nodeWord how a line's node is called: a name, null for none (one stands on its page), undefined for as it was
 */
export async function tell(
  { tx, me, app }: Telling,
  rows: Line[],
  { numbered, knows }: { numbered: boolean; knows: (line: Line) => boolean },
  nodeWord: (line: Line) => string | null | undefined,
  linkOf: (line: Line) => string | null = () => null,
): Promise<StoryLine[]> {
  const [named, groups, zone] = await Promise.all([
    peopleNames(
      tx,
      me,
      rows.flatMap((row) => [row.person, row.subject]),
    ),
    groupNames(tx, rows),
    timeZone(tx),
  ]);
  const hashes = rows.flatMap((row) => Object.values(JSON.parse(row.names) as Record<string, string>));
  const then = new Map(
    (hashes.length === 0
      ? []
      : await tx
          .select()
          .from(journalNames)
          .where(inArray(journalNames.hash, [...new Set(hashes)]))
    ).map((row) => [row.hash, row.name]),
  );
  return rows.flatMap((row): StoryLine[] => {
    const nameOf = (ref: string | null): string => {
      if (ref === null) return "";
      if (ref === "everyone") return "Everyone";
      const hash = (JSON.parse(row.names) as Record<string, string>)[ref];
      // As it was then is a name too: a guest is not told that of anybody they do not know.
      const wasNode = ref === row.node;
      return (
        named(ref) || ((hash && (!me.guest || wasNode) ? then.get(hash) : undefined) ?? groups.get(ref)) || "someone"
      );
    };
    const word = nodeWord(row);
    const details = JSON.parse(row.details) as Details;
    const says = sentence(
      row,
      knows(row) ? details : withoutNames(details),
      nameOf,
      word === undefined ? nameOf(row.node) : word,
      zone,
    );
    if (says === null) return [];
    return [
      {
        id: hideNumber(app.keys, "journal", row.seq),
        seq: numbered ? row.seq : null,
        at: row.at,
        who: row.person === null ? null : nameOf(row.person),
        personId: row.person,
        act: nowCalled(row.act),
        says,
        refused: row.outcome === "refused",
        link: linkOf(row),
      },
    ];
  });
}

/** What somebody without a level at a node reads in place of the names of what is kept there. */
const UNNAMED: Record<string, string> = {
  file: "a file",
  what: "something",
  field: "field",
  fields: "some of its values",
  to: "an address",
  mailTo: "an address",
};

const withoutNames = (details: Details): Details =>
  Object.fromEntries(
    Object.entries(details).map(([key, value]) => [key, value && UNNAMED[key] ? UNNAMED[key] : value]),
  );

/** Groups that the lines speak of: who was put into which, and what was given to one. */
async function groupNames(tx: Reader, rows: readonly Line[]): Promise<ReadonlyMap<string, string>> {
  const ids = rows.flatMap((row) => [row.subject, (JSON.parse(row.details) as Details).group ?? null]);
  const wanted = [...new Set(ids)].filter((id) => id !== null);
  if (wanted.length === 0) return new Map();
  const found = await tx.all<{ id: string; name: string }>(
    sql`select id, name from groups where id in (select value from json_each(${JSON.stringify(wanted)}))`,
  );
  return new Map(found.map((row) => [row.id, row.name]));
}

/** What a line says after the person's name; null for lines that only begin what a later one ends. */
function sentence(
  line: Line,
  details: Details,
  nameOf: (ref: string | null) => string,
  node: string | null,
  zone: string,
): string | null {
  const place = (preposition: string) => (node === null ? "" : ` ${preposition} ${node}`.replace("  ", " "));
  const date = (word: string, at: unknown) => (typeof at === "number" ? ` ${word} ${sayDate(at, line.at, zone)}` : "");
  if (line.outcome === "refused") {
    const often = details.times ? `, ${counted(Number(details.times), "time")} in a quarter of an hour` : "";
    return `was not allowed to ${REFUSED_ACTS[nowCalled(line.act)] ?? inWords(line.act)}${place("")}${often}`;
  }
  const says = sentenceOf(line.act);
  // Of a Galtry older than all of these: its name is better than nothing.
  if (!says) return inWords(line.act);
  return says({
    details,
    place,
    it: node ?? "it",
    subject: nameOf(line.subject),
    level: levelWord((details.level ?? "use") as Given),
    from: date("from", details.from),
    until: date("until", details.until),
    weekly: typeof details.weekly === "string" ? `, ${details.weekly}` : "",
    why: details.why ? `: “${details.why}”` : "",
    own: line.subject === null || line.subject === line.person,
    nameOf,
  });
}

/** “access.setListed” is “set listed”. */
const inWords = (act: string): string =>
  act
    .replace(/^.*\./, "")
    .replace(/([A-Z])/g, " $1")
    .toLowerCase();

const REFUSED_ACTS: Record<string, string> = {
  "signIn.beginSignIn": "sign in with",
  "signIn.didNotWork": "report a problem with",
  "vaults.revealField": "reveal a field of",
  "vaults.changeEntry": "edit",
  "access.giveAccess": "give access to",
  "access.changeAccess": "change access to",
  "access.endAccess": "end access to",
  "vaults.binEntry": "put in the bin",
  "vaults.revealEarlier": "reveal an earlier version of",
  "vaults.openAttachment": "open an attachment of",
  "vaults.setAside": "set aside",
  "vaults.eraseEntry": "delete for good",
  "vaults.restoreVersion": "restore a version of",
  "vaults.setField": "edit",
  "vaults.tagEntries": "tag",
  "vaults.exportEntries": "export",
};

export const JOURNAL_ACTS = {
  "sign-ins": ["signIn.", "lanyard.guardedFill"],
  revealed: ["vaults.revealField", "vaults.openAttachment"],
  access: [
    "access.",
    "people.setMember",
    "people.removeMember",
    "people.setEnd",
    "people.endGroup",
    "people.leaveDue",
    "mail.",
  ],
  entries: ["vaults."],
  people: ["people."],
  Lanyard: ["lanyard."],
  exports: ["vaults.exportEntries", "access.createHandover", "access.openHandover"],
} as const;
