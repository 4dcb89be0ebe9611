/** Every sentence and label of this area, in one place to be read. */
import { agree, counted } from "@/core/counted";
import { QUESTION_TITLES, type Question, type ReportColumn } from "../../core/reports/questions";

export const reports = {
  reports: "Reports",
  readyQuestions: "Questions that Galtry can answer at any time, as far as you are a steward or an auditor.",
  questions: {
    ...QUESTION_TITLES,
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
  emailMe: "Email me",
  emailTitle: "Email me this report",
  emailSays:
    "The email says how many lines it has and opens it here. You get it for as long as you are allowed to read it.",
  howOften: "How often",
  everyWeek: "Every week, on Monday",
  everyMonth: "Every month, on the first",
  emailed: { week: "Emailed to you every week.", month: "Emailed to you every month." },
  stop: "Stop",
  stopOf: (what: string) => `Stop: ${what}`,
  isEmailed: "You get this report by email.",
  isNotEmailed: "You no longer get this report by email.",
  byEmail: "Emailed to you",
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
