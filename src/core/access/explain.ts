/** A resolution told in a sentence. Dates are left to the caller's formatter: core knows no locale or zone. */
import type { Grant, Subject } from "./grant";
import { levelWord } from "./level";
import type { Resolution, Say } from "./resolve";
import type { Weekly } from "./weekly";

export interface Namer {
  subject(subject: Subject): string;
  /** "the vault Shop & Tickets", "the folder Ticketing", "this entry". */
  node(id: string, distance: number): string;
  /** "3 May"; null when the start is not known. */
  since(grant: Grant): string | null;
  /** "Sunday, 18:00". */
  until(grant: Grant): string | null;
}

const DAYS = ["Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday"];
const clock = (minutes: number) =>
  `${String(Math.floor(minutes / 60)).padStart(2, "0")}:${String(minutes % 60).padStart(2, "0")}`;

/** "on Saturdays, 09:00 to 18:00", "from Monday to Friday", "every day, 22:00 to 06:00". */
export function sayWeekly({ days, start, end }: Weekly): string {
  const sorted = [...days].sort((a, b) => a - b);
  const [first, last] = [sorted[0]!, sorted.at(-1)!];
  const row = sorted.length > 2 && last - first === sorted.length - 1;
  const plural = sorted.map((day) => `${DAYS[day - 1]}s`);
  const when =
    sorted.length === 7
      ? "every day"
      : row
        ? `from ${DAYS[first - 1]} to ${DAYS[last - 1]}`
        : `on ${plural.length === 1 ? plural[0] : `${plural.slice(0, -1).join(", ")} and ${plural.at(-1)}`}`;
  return start === 0 && end === 1440 ? when : `${when}, ${clock(start)} to ${clock(end)}`;
}

/**
 * One sentence for a resolution, in the third person of `whose` ("you" or a name).
 * @example "Reveal, because Shop Team has Reveal on the folder Ticketing since 3 May; the Use that Everyone has on the vault is lower."
 */
export function explain(resolution: Resolution, namer: Namer, whose: { name: string; personId: string }): string {
  const { level, because, lost, shut } = resolution;
  if (shut === "suspended") return `Nothing, because ${whose.name} ${be(whose)} suspended.`;
  if (shut === "leaver") return `Nothing, because the access of ${whose.name} has been ended.`;
  if (shut === "invited") return `Nothing yet, because ${whose.name} ${have(whose)} not set a sign-in password.`;
  if (because.length === 0) return `Nothing, because no grant reaches ${whose.name} here.`;

  const reasons = because.map((say) => clause(say, namer, whose)).join("; and ");
  const cap = resolution.capped ? "; a guest never has more than Edit" : "";
  const passed = lost.map((say) => `; ${lostClause(say, resolution, namer, whose)}`).join("");
  return `${capital(levelWord(level))}, because ${reasons}${cap}${passed}.`;
}

function clause(say: Say, namer: Namer, whose: { name: string; personId: string }): string {
  const { grant } = say;
  const where = namer.node(grant.node, say.distance);
  const since = namer.since(grant);
  const until = namer.until(grant);
  const weekly = grant.weekly ? sayWeekly(grant.weekly) : null;
  const time = [since && `since ${since}`, until && `until ${until}`, weekly].filter(Boolean).join(", ");
  const who = isWhose(say, whose) ? `${whose.name} ${have(whose)}` : `${namer.subject(say.subject)} has`;
  const verb =
    grant.level === "blocked"
      ? isWhose(say, whose)
        ? `${whose.name} ${be(whose)} blocked`
        : `${namer.subject(say.subject)} is blocked`
      : `${who} ${levelWord(grant.level)}`;
  return `${verb} on ${where}${time ? ` ${time}` : ""}`;
}

function lostClause(say: Say, { because, level }: Resolution, namer: Namer, whose: { name: string; personId: string }) {
  const where = namer.node(say.grant.node, say.distance);
  const has = isWhose(say, whose) ? `${whose.name} ${have(whose)}` : `${namer.subject(say.subject)} has`;
  const what = `the ${levelWord(say.grant.level)} that ${has} on ${where}`;
  if (because.some((winner) => winner.subject.kind === "person")) return `${what} does not count beside an own grant`;
  if (because.some((winner) => winner.grant.level === "blocked")) return `${what} does not count beside Blocked`;
  return level === "none" ? `${what} does not count` : `${what} is lower`;
}

const isWhose = (say: Say, whose: { personId: string }) =>
  say.subject.kind === "person" && say.subject.id === whose.personId;
const have = (whose: { name: string }) => (whose.name === "you" ? "have" : "has");
const be = (whose: { name: string }) => (whose.name === "you" ? "are" : "is");
const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
