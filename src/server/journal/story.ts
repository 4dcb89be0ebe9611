/** Journal lines in sentences, for an entry's story and the Journal page. */

import { and, desc, eq, inArray, sql } from "drizzle-orm";
import { type Given, levelWord } from "../../core/access";
import { BIN_DAYS } from "../../core/binDays";
import { DID_NOT_WORK, FAILURES, type SignInOutcome } from "../../core/signin/outcome";
import { sayTime } from "../../core/time";
import { peopleNames } from "../access/peopleNames";
import type { Person } from "../access/person";
import type { Reader } from "../database/client";
import { journal, journalNames } from "../database/schema";
import type { Galtry } from "../galtry";
import { hideNumber } from "../opaqueNumber";
import { timeZone } from "../organisation";

export type Line = typeof journal.$inferSelect;
type Details = Record<string, string | number | boolean | null>;

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
}

export interface Telling {
  tx: Reader;
  me: Person;
  house: Galtry;
}

/** The story of one node; only one person's own acts when `ownOf` names them. */
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
  { tx, me, house }: Telling,
  rows: Line[],
  { numbered, knows }: { numbered: boolean; knows: (line: Line) => boolean },
  nodeWord: (line: Line) => string | null | undefined,
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
        named(ref) || ((hash && (!me.guest || wasNode) ? then.get(hash) : undefined) ?? groups.get(ref)) || "somebody"
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
        id: hideNumber(house.keys, "journal", row.seq),
        seq: numbered ? row.seq : null,
        at: row.at,
        who: row.person === null ? null : nameOf(row.person),
        personId: row.person,
        act: row.act,
        says,
        refused: row.outcome === "refused",
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

const counted = (count: unknown, one: string, more: string) =>
  `${Number(count).toLocaleString("en-GB")} ${count === 1 ? one : more}`;

/** What a line says after the person's name; null for lines that only begin what a later one ends. */
function sentence(
  line: Line,
  details: Details,
  nameOf: (ref: string | null) => string,
  node: string | null,
  zone: string,
): string | null {
  const on = node === null ? "" : ` ${node}`;
  const it = node ?? "it";
  const subject = nameOf(line.subject);
  if (line.outcome === "refused")
    return `was refused: ${
      REFUSED_ACTS[line.act] ??
      line.act
        .replace(/^.*\./, "")
        .replace(/([A-Z])/g, " $1")
        .toLowerCase()
    }${on}${details.times ? `, with ${counted(details.times, "refusal", "refusals")} in a quarter of an hour` : ""}`;
  const why = details.why ? `: “${details.why}”` : "";
  const until = typeof details.until === "number" ? ` until ${sayTime(details.until, line.at, zone)}` : "";
  const from = typeof details.from === "number" ? ` from ${sayTime(details.from, line.at, zone)}` : "";
  const weekly = typeof details.weekly === "string" ? `, ${details.weekly}` : "";
  const level = levelWord((details.level ?? "use") as Given);
  switch (line.act) {
    case "signIn.begin":
      return null;
    case "signIn.end":
      if (details.tried)
        return details.outcome === "signed-in"
          ? `tried whether ${it} lets one in: it does`
          : `tried whether ${it} lets one in: it ${FAILURES[details.outcome as Exclude<SignInOutcome, "signed-in">]?.title ?? "failed"}`;
      return details.outcome === "signed-in"
        ? `signed in${node === null ? "" : ` with ${node}`} (sealed sign-in)`
        : `tried to sign in${node === null ? "" : ` with ${node}`}: it ${FAILURES[details.outcome as Exclude<SignInOutcome, "signed-in">]?.title ?? "failed"}`;
    case "signIn.didNotWork":
      return `said that ${it} did not let them in: ${DID_NOT_WORK[details.what as keyof typeof DID_NOT_WORK] ?? ""}`;
    case "signIn.landed":
      return `was not let in where they landed${on}`;
    case "signIn.signedOut":
      return `was signed out${node === null ? "" : ` at ${node}`} by Galtry, because their access ended`;
    case "signIn.closeBrokenOff":
      return `was signing in${node === null ? "" : ` with ${node}`} when Galtry stopped`;
    case "lanyard.guardedFill":
      return `signed in${node === null ? "" : ` with ${node}`} (guarded fill: the password was sent to this browser)`;
    case "lanyard.updatePassword":
      return `changed the password of ${it}, kept by Lanyard`;
    case "vaults.addEntry":
      return details.captured ? `kept ${it}, with Lanyard` : `added ${it}`;
    case "vaults.changeEntry":
      return `changed ${changedWords(String(details.changed ?? ""))}${node === null ? "" : ` of ${node}`}`;
    case "vaults.reveal":
      return `${details.how === "copied" ? "copied" : "revealed"} the ${String(details.field)}${node === null ? "" : ` of ${node}`}`;
    case "vaults.bin":
      return `put ${it} in the bin`;
    case "vaults.restore":
      return `restored ${it}`;
    case "vaults.erase":
      return `deleted ${it} for good`;
    case "vaults.eraseFolder":
      return `deleted ${it} for good, with all that lay in it`;
    case "vaults.emptyBins":
      return `${it} was deleted for good, after ${BIN_DAYS} days in the bin`;
    case "vaults.setAside":
    case "vaults.setVaultAside":
      return details.aside ? `set ${it} aside` : `brought ${it} back from where it was set aside`;
    case "vaults.deleteVault":
      return `deleted the vault${on} for good, with ${counted(details.entries, "entry", "entries")}`;
    case "vaults.markSeparate":
      return details.separate ? `made ${it} separate` : `let access from above into ${it} again`;
    case "vaults.setPicture":
    case "vaults.setVaultPicture":
      return `changed the picture${node === null ? "" : ` of ${node}`}`;
    case "vaults.keepSite":
      return details.new
        ? `put ${subject} on the list of sites we use`
        : `changed ${subject} on the list of sites we use`;
    case "vaults.dropSite":
      return `took ${subject} off the list of sites we use`;
    case "vaults.makeKind":
      return `made the kind ${subject}`;
    case "vaults.changeKind":
      return `changed the kind ${subject}`;
    case "vaults.setKindPicture":
      return `changed the picture of the kind ${subject}`;
    case "vaults.setTakers":
      return details.takers
        ? `named who may take out${node === null ? "" : ` of ${node}`} what they may reveal: ${details.takers}`
        : `let only its stewards take out${node === null ? "" : ` of ${node}`}`;
    case "vaults.rotateKey":
    case "vaults.rotateAllKeys":
      return `rotated the encryption key${node === null ? "" : ` of ${node}`}`;
    case "vaults.stopRotation":
      return `${details.stopped ? "stopped" : "resumed"} the rotation of the encryption key${node === null ? "" : ` of ${node}`}`;
    case "vaults.closeKind":
      return details.closed ? `closed the kind ${subject} to new entries` : `opened the kind ${subject} again`;
    case "vaults.deleteKind":
      return `deleted the kind ${subject}`;
    case "vaults.convert":
      return `made ${it} an entry of the kind ${details.kind}`;
    case "vaults.revealEarlier":
      return `${details.how === "copied" ? "copied" : "revealed"} the ${details.field} of version ${details.version}${node === null ? "" : ` of ${node}`}`;
    case "vaults.bringBack":
      return `brought back ${changedWords(String(details.changed || "values"))} of version ${details.version}${node === null ? "" : ` of ${node}`}`;
    case "vaults.tag":
    case "vaults.setField":
      return `changed ${changedWords(String(details.changed ?? ""))}${node === null ? "" : ` of ${node}`}`;
    case "vaults.copy":
      return `made ${it} as a copy`;
    case "vaults.moveAcross":
      return details.out ? `moved ${it} to another vault` : `moved ${it} here from another vault`;
    case "vaults.finishAttachment":
      return `attached “${details.file}”${node === null ? "" : ` to ${node}`}`;
    case "vaults.removeAttachment":
      return `took “${details.file}” away${node === null ? "" : ` from ${node}`}`;
    case "vaults.openAttachment":
      return `${details.how === "saved" ? "saved" : "opened"} “${details.file}”${node === null ? "" : ` of ${node}`}`;
    case "vaults.tick":
      return `${details.used ? "ticked off" : "took back the tick of"} a code${node === null ? "" : ` of ${node}`}: ${details.left} left`;
    case "vaults.takeOut":
      return `took ${counted(details.entries, "entry", "entries")} out${node === null ? "" : ` of ${node}${details.more ? ` and ${details.more} more` : ""}`}, ${details.format === "page" ? "to be printed" : details.format === "csv" ? "as CSV" : "as exchange JSON"}${details.encrypted ? ", encrypted" : ", in the clear"}${why}`;
    case "vaults.askAgain":
      return `${details.askAgain ? "made" : "no longer makes"} ${it} ask for the sign-in password before each reveal`;
    case "vaults.makeFolder":
      return `made the folder${on}`;
    case "vaults.renameFolder":
      return `renamed ${it}`;
    case "vaults.binFolder":
      return `put ${it} in the bin, with all that lies in it`;
    case "vaults.restoreFolder":
      return `restored ${it}, with all that lay in it`;
    case "vaults.publishImport":
      if (details.updated === true)
        return `changed the password${node === null ? "" : ` of ${node}`} by bringing in a file`;
      return `brought in ${counted(details.entries, "entry", "entries")}${node === null ? "" : ` to ${node}`}`;
    case "vaults.compareRows":
      return `compared ${counted(details.rows, "row", "rows")} of a file with what is kept`;
    case "vaults.undoImport":
      return `undid bringing in ${counted(details.entries, "entry", "entries")}${node === null ? "" : ` to ${node}`}`;
    case "vaults.move":
      return `moved ${it}`;
    case "vaults.changeSigningIn":
      return `changed how ${it} is signed in to: guarded fill ${details.guardedFill ? "on" : "off"}`;
    case "vaults.changeSteps":
      return `changed the sign-in steps of ${it}`;
    case "vaults.tryOnceMore":
      return `let the kept password of ${it} be tried once more`;
    case "vaults.makeVault":
      return `made the vault${on}`;
    case "vaults.changeVault":
      return `changed the vault${on}`;
    case "access.give":
      return details.level === "blocked"
        ? `blocked ${subject}${node === null ? "" : ` at ${node}`}${from}${until}${weekly}${why}`
        : `gave ${subject} ${level}${node === null ? "" : ` on ${node}`}${from}${until}${weekly}${why}`;
    case "access.change":
      return `changed ${subject} from ${levelWord((details.before ?? "use") as Given)} to ${level}${node === null ? "" : ` on ${node}`}${from}${until}${weekly}${why}`;
    case "access.withdraw":
      return `withdrew the ${level} of ${subject}${node === null ? "" : ` on ${node}`}`;
    case "access.makeHandover":
      return `made a handover link${node === null ? "" : ` for ${node}`} with ${details.fields}${until}${details.mailTo ? `, to be opened with a code mailed to ${details.mailTo}` : ""}`;
    case "access.mailHandoverCode":
      return `saw a code asked for that opens a handover link${node === null ? "" : ` of ${node}`}, mailed to ${details.to}`;
    case "mail.tried":
      return `could not mail ${details.to}${node === null ? "" : ` about ${node}`}: ${details.wrong}`;
    case "access.openHandover":
      return details.opened
        ? `saw a handover link${node === null ? "" : ` of ${node}`} opened`
        : `saw a wrong word or code given for a handover link${node === null ? "" : ` of ${node}`}`;
    case "access.withdrawHandover":
      return `withdrew a handover link${node === null ? "" : ` of ${node}`}`;
    case "access.takeStewardship":
      return `took stewardship${node === null ? "" : ` of ${node}`}${why}`;
    case "access.ask":
      return `asked for ${level}${node === null ? "" : ` on ${node}`}${until}${why}`;
    case "access.answer":
      return details.yes
        ? `said yes to ${subject}: ${level}${node === null ? "" : ` on ${node}`}${until}`
        : `said no to ${subject}${node === null ? "" : ` about ${node}`}${why}`;
    case "access.passAskOn":
      return `passed a request on to ${subject}${node === null ? "" : ` about ${node}`}`;
    case "access.setListed":
      return details.listed ? `listed ${it} for all staff` : `took ${it} off what is listed`;
    case "access.applySlip":
      return details.waiting
        ? `asked other stewards for a yes to ${counted(details.changes, "drafted change", "drafted changes")}${why}`
        : `applied a change slip of ${counted(details.changes, "change", "changes")}${why}`;
    case "access.answerSlip":
      return details.yes
        ? `said yes to a change slip of ${subject}${details.applied ? ", which is applied" : ""}`
        : `said no to a change slip of ${subject}${why}`;
    case "people.signIn":
      return "signed in to Galtry";
    case "people.signOut":
      return "signed out of Galtry";
    case "people.setUp":
      return "set up this Galtry";
    case "people.add":
      return `added ${subject}`;
    case "people.renewLink":
      return `made a new sign-in link for ${subject}`;
    case "people.ownerLink":
      return `a sign-in link for ${subject} was made on the server`;
    case "people.suspend":
      return `suspended ${subject}${why}`;
    case "people.leave":
      return `marked ${subject} as a leaver${why}`;
    case "people.bringBack":
      return `brought back ${subject}${why}`;
    case "people.changeRole":
      return `made ${subject} ${String(details.role)} (was ${String(details.before)})`;
    case "people.endEverything":
      return `ended the sessions and Lanyards of ${subject}${why}`;
    case "people.endSession":
      return "ended one of their sessions";
    case "people.acceptLink":
      return "set a sign-in password";
    case "people.proveAgain":
      return details.right ? "gave their sign-in password again" : "gave a wrong sign-in password";
    case "people.failedSignIns":
      return `${details.count} failed ${details.count === 1 ? "sign-in" : "sign-ins"} with their mail address`;
    case "people.makeGroup":
      return `made the group ${subject}`;
    case "people.setMember":
      return `put ${subject} in ${nameOf(String(details.group))}${details.keeper ? " as keeper" : ""}${from}${until}`;
    case "access.askForSite":
      return `asked whether there is a login for ${details.site}${why}`;
    case "access.hangLetterbox":
      return `hung a letterbox for ${details.what}${on ? ` at${on}` : ""}${until}`;
    case "access.closeLetterbox":
      return `closed the letterbox for ${details.what}${on ? ` at${on}` : ""}`;
    case "access.dropIn":
      return `was told that somebody outside dropped ${details.what}${on ? ` into${on}` : " in"}`;
    case "rounds.setEvery":
      return details.months === null
        ? `ended the rounds of ${it}`
        : `let the stewards of ${it} make a round every ${details.months === 1 ? "month" : `${details.months} months`}`;
    case "rounds.start":
      return `began a round of ${it}`;
    case "rounds.finish":
      return `finished a round of ${it}: ${details.confirmed} confirmed, ${details.lower} to be lowered, ${details.end} to be ended`;
    case "access.askGuestIn":
      return `asked ${subject} in as a guest${on ? ` of${on}` : ""}${until}${why}`;
    case "access.renewGuestLink":
      return `made a new link for ${subject}, a guest${on ? ` of${on}` : ""}`;
    case "access.endGuest":
      return `ended what ${subject}, a guest, had${on ? ` at${on}` : ""}${details.left ? "; they have left" : ""}`;
    case "access.setAsksFirst":
      return details.stewards === 0
        ? `let ${it} be used without asking first`
        : `made ${it} ask ${details.stewards === 1 ? "a steward" : "two stewards"} first, for ${details.minutes} minutes`;
    case "access.askFirst":
      return `asked to use${on}${why}`;
    case "access.sayYes":
      return details.yes
        ? `said yes to ${subject}${on ? ` at${on}` : ""}${until}`
        : `said no to ${subject}${on ? ` at${on}` : ""}${why}`;
    case "access.passEmergency":
      return `EMERGENCY: got past the yes of ${it}${until}${why}`;
    case "access.accept":
      return `accepted what they are given${on ? ` with${on}` : ""}${details.note ? ", and confirmed the house note" : ""}`;
    case "vaults.setHouseNote":
      return details.empty ? `took the house note of ${it} away` : `wrote a house note for ${it}`;
    case "rules.change":
      return `changed the house rules: ${details.rules}`;
    case "people.changeGroup":
      return `named a group ${subject}`;
    case "people.endGroup":
      return until ? `let the group ${subject} last${until}` : `took the end of the group ${subject} away`;
    case "people.deleteGroup":
      return `deleted the group ${subject}`;
    case "people.setEnd":
      return until ? `let all access of ${subject} last${until}` : `took the end of ${subject}’s access away`;
    case "people.leaveDue":
      return `ended all access of ${subject}: the date set for it had come`;
    case "people.removeMember":
      return `took ${subject} out of ${nameOf(String(details.group))}`;
    case "lanyard.confirm":
      return `connected Lanyard in ${details.browser}`;
    case "lanyard.takeToken":
      return null;
    case "lanyard.end":
      return `ended a Lanyard${line.subject && line.subject !== line.person ? ` of ${subject}` : ""}${why}`;
    default:
      return line.act;
  }
}

const REFUSED_ACTS: Record<string, string> = {
  "signIn.begin": "signing in with",
  "signIn.didNotWork": "reporting",
  "vaults.reveal": "revealing a field of",
  "vaults.changeEntry": "changing",
  "access.give": "giving access to",
  "access.change": "changing access to",
  "access.withdraw": "withdrawing access to",
  "vaults.bin": "binning",
  "vaults.revealEarlier": "revealing an earlier version of",
  "vaults.openAttachment": "opening an attachment of",
  "vaults.setAside": "setting aside",
  "vaults.erase": "deleting for good",
  "vaults.bringBack": "bringing back a version of",
  "vaults.setField": "changing",
  "vaults.tag": "tagging",
  "vaults.takeOut": "taking out",
};

const changedWords = (list: string): string => (list === "" ? "nothing" : `the ${list}`);

export const JOURNAL_ACTS = {
  "sign-ins": ["signIn.", "lanyard.guardedFill"],
  revealed: ["vaults.reveal", "vaults.openAttachment"],
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
} as const;
