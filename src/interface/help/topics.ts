import { PUBLIC_TOPICS, type Reader, TOPICS, type Topic } from "./strings";

/** How somebody reads: by their role, and as a steward where they are one. */
export function readerOf({ role, steward }: { role: string; steward: boolean }): Reader {
  if (role === "owner" || role === "administrator") return "administrator";
  if (role === "guest" || role === "auditor") return role;
  return steward ? "steward" : "colleague";
}

const isFor = (topic: Topic, reader: Reader): boolean => topic.for === undefined || topic.for.includes(reader);

export const topicsFor = (reader: Reader): Topic[] => TOPICS.filter((topic) => isFor(topic, reader));

/** The topic of a page: the one whose pattern matches most of its address; null where there is none. */
export function topicAt(path: string, reader: Reader): Topic | null {
  let best: { topic: Topic; length: number } | null = null;
  for (const topic of [...TOPICS, ...PUBLIC_TOPICS]) {
    const length = topic.at?.exec(path)?.[0].length;
    if (length !== undefined && isFor(topic, reader) && (!best || length > best.length)) best = { topic, length };
  }
  return best?.topic ?? null;
}

export const whatFor = ({ what }: Topic, reader: Reader): string =>
  typeof what === "string" ? what : (what[reader] ?? what.others);

const plain = (text: string): string => text.normalize("NFKD").toLowerCase();
const MOST_FOUND = 3;

/** Topics that hold all the words typed, those with one in their title first. */
export function findHelp(typed: string, reader: Reader): Topic[] {
  const words = plain(typed).split(/\s+/).filter(Boolean);
  if (words.join("").length < 3) return [];
  const holds = (text: string) => words.every((word) => plain(text).includes(word));
  const all = [...topicsFor(reader), ...PUBLIC_TOPICS];
  const titled = all.filter(({ title }) => words.some((word) => word.length > 2 && plain(title).includes(word)));
  const found = all.filter((topic) => holds([topic.title, whatFor(topic, reader), ...topic.things].join(" ")));
  return [...new Set([...titled.filter((topic) => found.includes(topic)), ...found])].slice(0, MOST_FOUND);
}
