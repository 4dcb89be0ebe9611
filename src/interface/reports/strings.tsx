/** Every sentence and label of this area, in one place to be read. */
import { agree, counted } from "@/core/counted";
import type { Question, ReportColumn } from "@/core/reports/questions";

export const reports = {
  reports: "Reports",
  readyQuestions: "Questions that Galtry can answer at any time, as far as you are a steward or an auditor.",
  questions: {
    who: "Who can use it, and since when?",
    person: "What can this person use, and why?",
    used: "Who used it between two dates?",
    seen: "Who has seen the password that works now?",
    known: "What has this person seen, and what of it was changed since?",
    unused: "What has nobody used since a date?",
    over: "What was given for a reason that is over?",
    guests: "What do guests have?",
    exports: "What was exported or handed over?",
    year: "How did a vault’s year go?",
  } satisfies Record<Question | "exports" | "year", string>,
  /** What each answer tells. */
  tells: {
    who: "Each person with access to a vault, folder or entry, with the grants that give it.",
    person: "Each entry that a person has access to, with the grants that give it.",
    used: "Sign-ins, and passwords revealed, copied or filled in.",
    seen: "Each person who was shown or sent a secret since it was last changed.",
    known: "For someone who leaves, or whose letter or laptop was lost: done when nothing of it still works.",
    unused: "Entries that nobody signed in with or revealed since then; those created after that day are left out.",
    over: "Access whose reason names a date that has passed, such as “until 30 September”.",
    guests: "Everything given to guests, and by which steward.",
    exports: "Lines of the Journal.",
    year: "Findings of each vault over a year.",
  } satisfies Record<Question | "exports" | "year", string>,
  heads: {
    person: "Person",
    note: "Note",
    place: "Where",
    vault: "Vault",
    level: "Level",
    at: "When",
    since: "Since",
    until: "Until",
    why: "Why",
    how: "How",
    by: "Given by",
    people: "People with access",
    line: "Journal line",
  } satisfies Record<ReportColumn, string>,
  /** Of what somebody knows. */
  known: { note: "Now", at: "Seen", since: "Changed", by: "Changed by" } as Partial<Record<ReportColumn, string>>,
  lastUsed: "Last used",
  givenTo: "Given to",
  never: "never",
  noEnd: "no end",
  entryFolderOrVault: "Entry, folder or vault",
  vault: "Vault",
  person: "Person",
  allVaults: "All vaults",
  places: "Entries, folders and vaults",
  people: "People",
  noMatch: "No match. Try part of the name.",
  days: "Dates",
  sinceDay: "Not used since",
  choose: {
    node: "Choose an entry, a folder or a vault.",
    person: "Choose a person.",
  },
  nothing: "The answer is: nothing.",
  rows: (count: number, more: boolean) => `${more ? "The first " : ""}${counted(count, "line")}`,
  asOf: (moment: string) => `as of ${moment}`,
  unnamed: (count: number) =>
    `${counted(count, "line")} ${agree(count, "is", "are")} about entries that you have no access to: they are not named.`,
  stillWorks: (count: number) =>
    count === 0
      ? "Nothing of it works any more."
      : `${counted(count, "entry")} of it still ${agree(count, "works", "work")}.`,
  print: "Print",
  csv: "CSV",
  jsonLines: "JSON Lines",
  hows: { sealed: "sealed sign-in", guarded: "guarded fill" } as Record<string, string>,
};
