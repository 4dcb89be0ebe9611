/** The questions that Galtry answers at any time: what each is asked about, and what its answer lists. */

export interface ReportRow {
  person?: string | undefined;
  /** Of a guest, of one who has left. */
  note?: string | undefined;
  /** A vault, folder or entry. */
  place?: string | undefined;
  vault?: string | undefined;
  level?: string | undefined;
  /** Moments, UTC milliseconds; null where there is none. */
  at?: number | null | undefined;
  since?: number | null | undefined;
  until?: number | null | undefined;
  why?: string | undefined;
  how?: string | undefined;
  by?: string | undefined;
  /** How many. */
  people?: number | undefined;
  /** Of the Journal. */
  line?: number | undefined;
  /** The page of the place. */
  link?: string | null | undefined;
}

export type ReportColumn = Exclude<keyof ReportRow, "link">;

export const MOMENTS: ReadonlySet<ReportColumn> = new Set(["at", "since", "until"]);

interface Asked {
  /** “any”: a vault, folder or entry; “vault”: one of them, or all. */
  node?: "any" | "vault";
  person?: true;
  /** From one day to another; the first of them alone. */
  days?: "both" | "first";
  columns: readonly ReportColumn[];
}

export const QUESTIONS = {
  /** Who can use it, and since when? */
  who: { node: "any", columns: ["person", "note", "level", "since", "until", "why"] },
  /** What can they use, and why? */
  person: { person: true, columns: ["place", "vault", "level", "since", "until", "why"] },
  /** Who used it between two days? */
  used: { node: "any", days: "both", columns: ["at", "person", "place", "vault", "how"] },
  /** Who has seen the password that works now? */
  seen: { node: "any", columns: ["person", "note", "place", "vault", "how", "at"] },
  /** What has somebody seen, and what of it was changed since? */
  known: { person: true, columns: ["place", "vault", "how", "at", "note", "since", "by", "line"] },
  /** What has nobody used since a day? */
  unused: { node: "vault", days: "first", columns: ["place", "vault", "at", "people"] },
  /** What was given for a reason that is over? */
  over: { node: "vault", columns: ["person", "note", "place", "vault", "level", "why", "since", "by"] },
  /** What do guests have? */
  guests: { columns: ["person", "place", "vault", "level", "since", "until", "by"] },
} as const satisfies Record<string, Asked>;

export type Question = keyof typeof QUESTIONS;

export const QUESTION_TITLES: Readonly<Record<Question, string>> = {
  who: "Who can use it, and since when?",
  person: "What can this person use, and why?",
  used: "Who used it between two dates?",
  seen: "Who has seen the password that works now?",
  known: "What has this person seen, and what of it was changed since?",
  unused: "What has nobody used since a date?",
  over: "What was given for a reason that is over?",
  guests: "What do guests have?",
};

/** How often a report is mailed. */
export const REPORT_TIMES = ["week", "month"] as const;
export type ReportTime = (typeof REPORT_TIMES)[number];

export const isQuestion = (text: string): text is Question => Object.hasOwn(QUESTIONS, text);

export const askedOf = (question: Question): Asked => QUESTIONS[question];
