/** A finding as a sentence. */
import { levelWord } from "@/core/access/level";
import { FAILURES } from "@/core/signin/outcome";
import { sayDay, sayTime } from "@/core/time";
import type { FindingRow } from "@/server/upkeep/findingsPage";
import { finding as t } from "./strings";

const DAY = 86_400_000;

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
      // The day itself is the last on which it holds.
      return t.over(detail.field ?? "", day((detail.date ?? now) - 1));
    case "ends":
      return t.ends(detail.field ?? "", day((detail.date ?? now) - 1), Math.ceil(((detail.date ?? now) - now) / DAY));
    case "unused":
      return t.nobodyUsesIt(detail.lastAt == null ? null : day(detail.lastAt));
  }
}
