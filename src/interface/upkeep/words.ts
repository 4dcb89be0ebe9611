/** Findings as sentences. */

import { levelWord } from "@/core/access/level";
import type { ChangedBy } from "@/core/signin/changing";
import { FAILURES } from "@/core/signin/outcome";
import { sayDay, sayTime } from "@/core/time";
import type { FindingRow } from "@/server/upkeep/findingsPage";
import type { HouseFinding } from "@/server/upkeep/house";
import { house as h, finding as t } from "./strings";

/** What is found of the house, as a sentence. */
export function sayHouseFinding(row: HouseFinding, now: number, zone: string): string {
  switch (row.kind) {
    case "ways":
      return h.ways(row.count, row.needs, row.group);
    case "addresses":
      return h.addresses(row.names);
    case "lanyards":
      return h.lanyards(row.count);
    case "checkpoint":
      return row.at === null ? h.noCheckpoint : h.oldCheckpoint(sayTime(row.at, now, zone));
    case "no-mail":
      return h.noMail;
    case "mail":
      return h.mail(row.count, sayTime(row.since, now, zone), row.wrong);
    case "certificate":
      return h.certificate(row.name, sayTime(row.until, now, zone));
    case "backup":
      return row.at === null ? h.noBackup : h.oldBackup(sayTime(row.at, now, zone));
    case "journal":
      return h.journal(sayTime(row.at, now, zone));
    case "forwarding":
      return h.forwarding(sayTime(row.since, now, zone));
  }
}

const DAY = 86_400_000;

/** The last day on which it holds: days that an entry carries are of no zone, and are kept by UTC. */
const lastDay = (date: number, now: number): string => sayDay(date - 1, now, "UTC");

export function sayFinding(row: FindingRow, now: number, zone: string): string {
  const { kind, detail, people } = row;
  const level = levelWord(detail.level ?? "use");
  const whose = people.length === 0 && row.grant ? t.theGroups : t.whose(people[0] ?? "");
  const day = (at: number) => sayDay(at, now, zone);
  switch (kind) {
    case "leaked":
      return t.leaked(detail.times ?? 1);
    case "leaver":
      return t.knownToALeaver(people);
    case "former":
      return t.knownWithoutAccess(people);
    case "reused":
      return t.alsoThePasswordOf(row.others);
    case "old":
      return t.old(detail.months ?? 0, day(row.since));
    case "home-page":
      return t.homePage;
    case "no-code":
      return t.noCode;
    case "too-many":
      return t.tooMany(detail.count ?? 0, detail.most ?? 0);
    case "weak":
      return t.weak(row.time);
    case "no-steward":
      return t.noSteward;
    case "one-steward":
      return t.oneSteward(people[0] ?? "");
    case "rejected":
      return t.rejected;
    case "fails":
      return t.fails(FAILURES[detail.failure ?? "not-understood"].title);
    case "plain-http":
      return t.plainHttp;
    case "untested":
      return t.untested;
    case "asks-a-person":
      return t.asksAPerson;
    case "ending":
      return t.ending(whose, level, sayTime(detail.until ?? now, now, zone));
    case "everyone":
      return t.everyone(level);
    case "open-guest":
      return t.openGuest(people[0] ?? "", level);
    case "passed":
      return t.passed(whose, level, row.grant?.why ?? "");
    case "unused-access":
      return detail.lastAt == null ? t.neverUsed(whose, level) : t.notUsed(whose, level, day(detail.lastAt));
    case "over":
      return t.over(detail.field ?? t.date, lastDay(detail.date ?? now, now));
    case "ends":
      return t.ends(
        detail.field ?? t.date,
        lastDay(detail.date ?? now, now),
        Math.ceil(((detail.date ?? now) - now) / DAY),
      );
    case "unused":
      return t.nobodyUsesIt(detail.lastAt == null ? null : day(detail.lastAt));
  }
}

/** The page on which somebody changes it by hand. */
export const changedByHandAt = (entryId: string, by: ChangedBy): string =>
  by === "hand" ? `/entry/${entryId}?edit` : `/entry/${entryId}/steps#password`;
