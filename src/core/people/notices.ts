/** Notices, by what they are about, and whether they go by mail as well. */
export const NOTICE_SORTS = [
  "security",
  "requests",
  "answers",
  "emergency",
  "ending",
  "rounds",
  "upkeep",
  "watch",
] as const;
export type NoticeSort = (typeof NOTICE_SORTS)[number];

export const MAIL_TIMES = ["at once", "daily", "never"] as const;
export type MailTime = (typeof MAIL_TIMES)[number];

/** What concerns one's own sign-in is always mailed at once: whoever took it over could switch it off. */
export type ChosenSort = Exclude<NoticeSort, "security">;
export type MailChoices = Partial<Record<ChosenSort, MailTime>>;

export const CHOSEN_SORTS = NOTICE_SORTS.filter((sort): sort is ChosenSort => sort !== "security");

const USUAL: Record<ChosenSort, MailTime> = {
  requests: "at once",
  answers: "at once",
  emergency: "at once",
  ending: "daily",
  rounds: "at once",
  upkeep: "at once",
  watch: "daily",
};

export const mailTime = (choices: MailChoices | null, sort: NoticeSort): MailTime =>
  sort === "security" ? "at once" : (choices?.[sort] ?? USUAL[sort]);
