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
 * A resolution in a sentence or two, in the third person of `whose` ("you" or a name).
 * @example "Reveal, because Shop Team has had Reveal on the folder Ticketing since 3 May. Everyone’s Use on the vault Shop & Tickets is lower."
 */
export function explain(resolution: Resolution, namer: Namer, whose: Whose): string {
  const { level, because, lost, shut } = resolution;
  if (shut === "suspended") return `No access: ${whose.name} ${be(whose)} suspended.`;
  if (shut === "leaver") return `No access: ${whose.name} ${have(whose)} left.`;
  if (shut === "auditor") return `No access: ${whose.name} ${be(whose)} an auditor.`;
  if (shut === "invited") return `No access: ${whose.name} ${have(whose)} not joined yet.`;
  if (because.length === 0) return `No access: ${whose.name} ${have(whose)} no grant here or above.`;
  const reasons = because.map((say) => clause(say, namer, whose)).join(", and ");
  return [
    `${capital(level === "none" ? "no access" : levelWord(level))}, because ${reasons}.`,
    ...(resolution.capped ? ["A guest can have at most Edit."] : []),
    ...lost.map((say) => lostSentence(say, resolution, namer, whose)),
  ].join(" ");
}

interface Whose {
  name: string;
  personId: string;
}

function clause(say: Say, namer: Namer, whose: Whose): string {
  const { grant } = say;
  const since = namer.since(grant);
  const until = namer.until(grant);
  const who = isWhose(say, whose) ? `${whose.name} ${have(whose)}` : `${namer.subject(say.subject)} has`;
  const what = grant.level === "blocked" ? "been blocked" : `${since ? "had " : ""}${levelWord(grant.level)}`;
  return [
    `${who} ${what} on ${namer.node(grant.node, say.distance)}`,
    ...(since ? [`since ${since}`] : []),
    ...(grant.weekly ? [sayWeekly(grant.weekly)] : []),
    ...(until ? [`(until ${until})`] : []),
  ].join(" ");
}

function lostSentence(say: Say, { because, level }: Resolution, namer: Namer, whose: Whose): string {
  const owner = isWhose(say, whose) ? possessive(whose.name) : possessive(namer.subject(say.subject));
  const what = `${capital(owner)} ${say.grant.level === "blocked" ? "block" : levelWord(say.grant.level)} on ${namer.node(say.grant.node, say.distance)}`;
  if (because.some((winner) => winner.subject.kind === "person"))
    return `${what} does not count: ${possessive(whose.name)} own grant decides.`;
  if (because.some((winner) => winner.grant.level === "blocked")) return `${what} does not count: a block decides.`;
  return level === "none" ? `${what} does not count.` : `${what} is lower.`;
}

const possessive = (name: string) => (name === "you" ? "your" : `${name}’s`);
const isWhose = (say: Say, whose: Whose) => say.subject.kind === "person" && say.subject.id === whose.personId;
const have = (whose: Whose) => (whose.name === "you" ? "have" : "has");
const be = (whose: Whose) => (whose.name === "you" ? "are" : "is");
const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
