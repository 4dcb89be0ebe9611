/** House rules about giving: what the organisation lets its stewards give, to whom, for how long, and who makes what. */

import { z } from "zod";
import { counted, every, listOf } from "../counted";
import type { Instant } from "./instant";
import { type Given, LEVELS, type Level, levelWord, rank } from "./level";

const reach = z.enum(["none", ...LEVELS]);
const days = z.number().int().min(1).max(3650).nullable();

export const WAY_NEEDS = ["second-step", "passkey"] as const;
export type WayNeed = (typeof WAY_NEEDS)[number];

/** Acts before which the rules may want people to show that it is them. Exports and ways to sign in always want it. */
export const CONFIRMED_ACTS = ["reveal", "steward", "role", "rules"] as const;
export type ConfirmedAct = (typeof CONFIRMED_ACTS)[number];

/** A host name with two labels or more, as it stands after the @ of an address (RFC 1035, letters, digits, hyphens). */
const DOMAIN = /^(?:[a-z0-9](?:[a-z0-9-]{0,61}[a-z0-9])?\.)+[a-z](?:[a-z0-9-]{0,61}[a-z0-9])?$/;

/** Months. */
export const CHANGE_EVERY = [1, 3, 6, 12] as const;

const groupIds = z.array(z.string().max(64)).min(1).max(20).nullable().default(null);

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
  /** A forgotten sign-in password is set anew by a link in a mail; otherwise an administrator makes one. */
  forgottenByMail: z.boolean().default(false),
  /** Whoever shows by a mailed code that an address there is theirs becomes a member, without being invited. */
  joinDomains: z
    .array(z.string().trim().toLowerCase().max(253).regex(DOMAIN, "Give a domain, such as company.example."))
    .max(20)
    .default([]),
  /** What people must have to sign in, by group; null is all staff and guests. */
  waysIn: z
    .array(
      z.strictObject({
        groupId: z.string().max(64).nullable(),
        needs: z.enum(WAY_NEEDS),
        /** The first day on which it counts, as the organisation's clocks show it: "2026-12-01". */
        from: z.iso.date(),
      }),
    )
    .max(20)
    .default([]),
  /** Before which acts people show that it is them, unless they did so many minutes ago at most. */
  confirm: z
    .strictObject({ acts: z.array(z.enum(CONFIRMED_ACTS)).max(10), minutes: z.number().int().min(1).max(60) })
    .default({ acts: [], minutes: 5 }),
  /** Whoever gets something in a vault for the first time accepts it before it works. */
  accept: z.boolean().default(false),
  /** Logins that have worked are tested each night, so that a site that changed is found early. */
  nightTests: z.boolean().default(false),
  /** Passwords that their stewards want changed regularly are changed by Galtry every so many months; null for never. */
  changeEvery: z.literal(CHANGE_EVERY).nullable().default(null),
  lanyard: z
    .strictObject({
      /** Groups whose people can use Lanyard, and those whose people can add logins with it; null is all people. */
      use: groupIds,
      add: groupIds,
      /** Domains at which, and below which, Lanyard offers nobody to add a login. */
      neverOn: z
        .array(z.string().trim().toLowerCase().max(253).regex(DOMAIN, "Give a site, such as company.example."))
        .max(200, "At most 200 sites.")
        .default([]),
      /** Where a person has chosen so for a login, guarded fill fills it in as its page opens, without a press. */
      fillsOnOpening: z.boolean().default(false),
    })
    .default({ use: null, add: null, neverOn: [], fillsOnOpening: false }),
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
  if (highest === "none") return no("subject", `The house rules do not allow access for ${to}.`);
  if (rank(giving.level) > rank(highest))
    return no("level", `The house rules allow ${to} up to ${levelWord(highest)}.`);
  if (giving.to === "groups" && rules.ownGroups && !giving.inIt)
    return no("subject", "The house rules let a steward give access only to groups they are in.");
  if (rules.reasonFrom && rank(giving.level) >= rank(rules.reasonFrom) && giving.why === "")
    return no("why", `The house rules require a reason for ${levelWord(giving.level)}.`);
  const longest = giving.to === "guests" ? rules.longest.guests : rules.longest.staff;
  if (longest !== null && (giving.until === null || giving.until > at + longest * DAY + SLACK))
    return {
      field: "until",
      second: true,
      message: `The house rules allow ${counted(longest, "day")}. Longer needs a second steward: add it to your change slip.`,
    };
  return null;
}

const no = (field: Broken["field"], message: string): Broken => ({ field, message, second: false });

/** Each rule as a sentence, for reading and for the journal. */
export function sayRules(rules: HouseRules, groupName: (id: string) => string = () => "a group"): string[] {
  const upTo = (level: Level | "none", to: string) =>
    level === "none"
      ? `No access for ${to}.`
      : `${to[0]!.toUpperCase()}${to.slice(1)} can be given up to ${levelWord(level)}.`;
  const { highest, longest, makes } = rules;
  const makers = {
    owners: "Owners can create",
    administrators: "Administrators can create",
    staff: "All staff can create",
  };
  return [
    upTo(highest.staff, "a member of staff"),
    `${upTo(highest.groups, "a group")}${rules.ownGroups ? " Stewards can give access only to groups they are in." : ""}`,
    upTo(highest.everyone, "Everyone"),
    upTo(highest.guests, "a guest"),
    longest.staff === null
      ? "Staff have access with or without an end date."
      : `Staff have access for up to ${counted(longest.staff, "day")}; longer needs a second steward.`,
    longest.guests === null
      ? "Guests have access until any end date."
      : `Guests have access for up to ${counted(longest.guests, "day")}; longer needs a second steward.`,
    rules.reasonFrom === null
      ? "A reason is optional when giving access."
      : `A reason is required when giving ${levelWord(rules.reasonFrom)}${rules.reasonFrom === "steward" ? "" : " or more"}.`,
    `${makers[makes.vaults]} vaults.`,
    `${makers[makes.groups]} groups.`,
    makes.guests === "stewards"
      ? "Stewards and administrators can invite guests."
      : "Administrators can invite guests.",
    makes.handovers === "nobody"
      ? "Nobody can create handover links."
      : makes.handovers === "stewards"
        ? "Stewards can create handover links."
        : "Anyone with Reveal on an entry can create a handover link for it.",
    rules.emergency
      ? "In an emergency people can use an entry without approval, with a reason that all its stewards read at once."
      : "Nobody can use an entry without its approval.",
    rules.accept
      ? "People must accept their access to a vault, and its house note, before it works."
      : "Access works at once.",
    rules.nightTests
      ? "Galtry tests logins at night and tells their stewards when a site lets it in no longer."
      : "Galtry tests logins only when someone asks for it.",
    rules.changeEvery === null
      ? "Galtry changes passwords only when someone asks for it."
      : `Galtry changes passwords ${every(rules.changeEvery, "month")}, at night, of entries whose stewards have chosen that.`,
    `Lanyard can be used by ${sayGroups(rules.lanyard.use, groupName)}, and logins added with it by ${sayGroups(rules.lanyard.add, groupName)}.`,
    rules.lanyard.neverOn.length > 0
      ? `Lanyard never offers to add a login at ${listOf(rules.lanyard.neverOn, "or")}.`
      : "Lanyard offers to add logins at any site, unless a person has told it not to.",
    rules.lanyard.fillsOnOpening
      ? "Guarded fill can fill in a login as its page opens, if its person has chosen that."
      : "Guarded fill waits until its person asks for it.",
    rules.forgottenByMail
      ? "A forgotten sign-in password is reset by email."
      : "An administrator helps with a forgotten sign-in password.",
    rules.joinDomains.length === 0
      ? "Nobody can join without being invited."
      : `People with an email address at ${listOf(rules.joinDomains, "or")} can join without being invited.`,
    `${sayConfirm(rules.confirm)}Exports and changes to ways to sign in always need confirmation.`,
    ...rules.waysIn.map(
      ({ groupId, needs, from }) =>
        `From ${sayDayOf(from)}, ${groupId === null ? "all people" : `the people in ${groupName(groupId)}`} need ${NEED_WORD[needs]} to sign in.`,
    ),
  ];
}

const sayGroups = (groups: readonly string[] | null, groupName: (id: string) => string): string =>
  groups === null ? "all people" : `the people in ${listOf(groups.map(groupName), "or")}`;

/** Whether somebody who holds these groups is among those a rule is for. */
export const isAmong = (groups: readonly string[] | null, held: { has: (groupId: string) => boolean }): boolean =>
  groups === null || groups.some((id) => held.has(id));

function sayConfirm({ acts, minutes }: HouseRules["confirm"]): string {
  if (acts.length === 0) return "People need not confirm that it is them for each act. ";
  const before = listOf(
    CONFIRMED_ACTS.filter((act) => acts.includes(act)).map((act) => ACT_WORD[act]),
    "or",
  );
  return `People confirm that it is them before ${before}, unless they did so within the last ${counted(minutes, "minute")}. `;
}

export const ACT_WORD: Record<ConfirmedAct, string> = {
  reveal: "revealing a value",
  steward: "giving Steward",
  role: "giving a role",
  rules: "changing the house rules",
};

/** Whether some act would be less guarded than before. */
export const confirmsLess = (before: HouseRules["confirm"], after: HouseRules["confirm"]): boolean =>
  before.acts.some((act) => !after.acts.includes(act)) || (before.acts.length > 0 && after.minutes > before.minutes);

export const NEED_WORD: Record<WayNeed, string> = {
  "second-step": "a passkey, one-time codes or single sign-on",
  passkey: "a passkey or single sign-on",
};

const MONTHS = "January February March April May June July August September October November December".split(" ");

/** "2026-12-01" is “1 December 2026”. */
export function sayDayOf(day: string): string {
  const [year, month, date] = day.split("-").map(Number);
  return `${date} ${MONTHS[month! - 1]} ${year}`;
}
