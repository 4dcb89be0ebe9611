/** House rules about giving: what the organisation lets its stewards give, to whom, for how long, and who makes what. */
import { z } from "zod";
import type { Instant } from "./grant";
import { type Given, LEVELS, type Level, levelWord, rank } from "./level";

const reach = z.enum(["none", ...LEVELS]);
const days = z.number().int().min(1).max(3650).nullable();

export const houseRulesSchema = z.strictObject({
  /** The highest level that may be given, by whom it is given to. */
  highest: z
    .strictObject({ staff: reach, groups: reach, everyone: reach, guests: reach })
    .default({ staff: "steward", groups: "steward", everyone: "steward", guests: "edit" }),
  /** Stewards give only to groups that they are in themselves. */
  ownGroups: z.boolean().default(false),
  /** So many days at most, from now, without a second steward's yes; null for any time, also without an end. */
  longest: z.strictObject({ staff: days, guests: days }).default({ staff: null, guests: null }),
  /** From this level on whoever gives it says what for; null for never. */
  reasonFrom: z.enum(LEVELS).nullable().default(null),
  makes: z
    .strictObject({
      vaults: z.enum(["owners", "administrators", "staff"]),
      groups: z.enum(["owners", "administrators", "staff"]),
      guests: z.enum(["administrators", "stewards"]),
      handovers: z.enum(["nobody", "stewards", "reveal"]),
    })
    .default({ vaults: "administrators", groups: "administrators", guests: "stewards", handovers: "stewards" }),
  /** Where something asks first: past a steward's yes, with a reason, told to all its stewards at once. */
  emergency: z.boolean().default(false),
  /** Whoever gets something in a vault for the first time accepts it before it works. */
  accept: z.boolean().default(false),
});

export type HouseRules = z.output<typeof houseRulesSchema>;

/** As they are where nobody has said otherwise. */
export const USUAL_RULES: HouseRules = houseRulesSchema.parse({});

/** Something that is about to be given. */
export interface Giving {
  to: "staff" | "groups" | "everyone" | "guests";
  /** The giver is in the group. */
  inIt: boolean;
  level: Given;
  until: Instant | null;
  why: string;
}

export interface Broken {
  field: "subject" | "level" | "until" | "why";
  message: string;
  /** A second steward's yes makes it good. */
  second: boolean;
}

const DAY = 86_400_000;
/** Set at a quarter past for ninety days and sent a minute later it is still ninety days. */
const SLACK = 3_600_000;

const TO_WORD = { staff: "a member of staff", groups: "a group", everyone: "Everyone", guests: "a guest" } as const;

/** The first rule that something to be given would break; null where it may be given. Blocking is always allowed. */
export function brokenBy(rules: HouseRules, giving: Giving, at: Instant): Broken | null {
  if (giving.level === "blocked") return null;
  const highest = rules.highest[giving.to];
  const to = TO_WORD[giving.to];
  if (highest === "none") return no("subject", `The house rules let nobody give anything to ${to}.`);
  if (rank(giving.level) > rank(highest))
    return no("level", `The house rules let ${to} have ${levelWord(highest)} at most.`);
  if (giving.to === "groups" && rules.ownGroups && !giving.inIt)
    return no("subject", "The house rules let a steward give only to groups that they are in.");
  if (rules.reasonFrom && rank(giving.level) >= rank(rules.reasonFrom) && giving.why === "")
    return no("why", `The house rules ask what ${levelWord(giving.level)} is given for.`);
  const longest = giving.to === "guests" ? rules.longest.guests : rules.longest.staff;
  if (longest !== null && (giving.until === null || giving.until > at + longest * DAY + SLACK))
    return {
      field: "until",
      second: true,
      message: `The house rules let ${giving.to === "guests" ? "a guest" : "anybody"} have access for ${sayDays(longest)} at most without a second steward’s yes. Put it on your change slip to ask for one.`,
    };
  return null;
}

const no = (field: Broken["field"], message: string): Broken => ({ field, message, second: false });

export const sayDays = (count: number) => (count === 1 ? "one day" : `${count} days`);

/** Each rule as a sentence, for reading and for the journal. */
export function sayRules(rules: HouseRules): string[] {
  const upTo = (level: Level | "none", to: string) =>
    level === "none"
      ? `Nothing is given to ${to}.`
      : `${to[0]!.toUpperCase()}${to.slice(1)} may be given ${levelWord(level)} at most.`;
  const { highest, longest, makes } = rules;
  const makers = { owners: "Owners make", administrators: "Administrators make", staff: "All staff may make" };
  return [
    upTo(highest.staff, "a member of staff"),
    `${upTo(highest.groups, "a group")}${rules.ownGroups ? " Stewards give only to groups that they are in." : ""}`,
    upTo(highest.everyone, "Everyone"),
    upTo(highest.guests, "a guest"),
    longest.staff === null
      ? "Access of staff may be without an end."
      : `Access of staff lasts ${sayDays(longest.staff)} at most without a second steward’s yes.`,
    longest.guests === null
      ? "Access of guests may be without an end."
      : `Access of guests lasts ${sayDays(longest.guests)} at most without a second steward’s yes.`,
    rules.reasonFrom === null
      ? "A reason is welcome whenever access is given, and never asked for."
      : `Whoever gives ${levelWord(rules.reasonFrom)}${rules.reasonFrom === "steward" ? "" : " or more"} says what for.`,
    `${makers[makes.vaults]} vaults.`,
    `${makers[makes.groups]} groups.`,
    makes.guests === "stewards" ? "Stewards and administrators ask guests in." : "Administrators ask guests in.",
    makes.handovers === "nobody"
      ? "Nobody makes handover links."
      : makes.handovers === "stewards"
        ? "Stewards make handover links."
        : "Whoever may reveal something may make a handover link to it.",
    rules.emergency
      ? "In an emergency somebody may get past a steward’s yes, with a reason that all stewards read at once."
      : "Nobody gets past a steward’s yes.",
    rules.accept
      ? "Whoever is given something in a vault accepts it, and confirms the vault’s house note, before it works."
      : "What somebody is given works at once.",
  ];
}
