/**
 * The database. Times are UTC milliseconds, ids UUIDv7. Rows with `validFrom` and `validUntil` are history: a
 * change closes one and opens another, none is overwritten. Secrets stand only in sealed blobs.
 */

import { sql } from "drizzle-orm";
import {
  type AnySQLiteColumn,
  blob,
  foreignKey,
  index,
  integer,
  primaryKey,
  real,
  sqliteTable,
  text,
  uniqueIndex,
} from "drizzle-orm/sqlite-core";
import { z } from "zod";
import type { Given, Level, Standing } from "../../core/access";
import type { HouseRules } from "../../core/access/houseRules";
import type { Purpose } from "../../core/kinds/kind";
import type { NoticeSort } from "../../core/people/notices";
import type { Role } from "../../core/people/role";
import type { Question, ReportTime } from "../../core/reports/questions";
import type { ChangeOutcome, RunWhat } from "../../core/signin/changing";
import type { FindingKind } from "../../core/upkeep/findings";
import * as stored from "./stored";

const id = () => text("id").primaryKey();
const time = (name: string) => integer(name);
const bytes = (name: string) => blob(name, { mode: "buffer" });
const valid = {
  validFrom: integer("valid_from").notNull(),
  validUntil: integer("valid_until"),
  commandId: text("command_id").notNull(),
};

export type { Role };

export const organisation = sqliteTable("organisation", {
  id: id(),
  name: text("name").notNull(),
  timeZone: text("time_zone").notNull(),
  createdAt: time("created_at").notNull(),
  /** House rules, as far as anybody has said otherwise than is usual. */
  rules: text("rules", { mode: "json" }).$type<Partial<HouseRules>>().notNull().default({}),
  /** When a mail first went out, and when the last backup was made. */
  mailedAt: time("mailed_at"),
  backedUpAt: time("backed_up_at"),
  /** When a checkpoint of the Journal last went where it can be found again: a folder, a mail, a reader's browser. */
  checkpointNotedAt: time("checkpoint_noted_at"),
  /** Whom to ask, on top of every page of help. */
  helpNote: text("help_note").notNull().default(""),
});

/** One-time texts that a browser presents: set-up address, sign-in links. Only their hashes are kept. */
export type LinkPurpose = "set-up" | "sign-in" | "reset" | "not-me";

export const links = sqliteTable(
  "links",
  {
    id: id(),
    tokenHash: text("token_hash").notNull().unique(),
    /** "reset" sets a sign-in password and lets nobody in by itself; "not-me" ends what somebody else opened. */
    purpose: text("purpose").$type<LinkPurpose>().notNull(),
    personId: text("person_id").references(() => persons.id),
    createdAt: time("created_at").notNull(),
    expiresAt: time("expires_at").notNull(),
    usedAt: time("used_at"),
    withdrawnAt: time("withdrawn_at"),
    /** First looked at. */
    openedAt: time("opened_at"),
    /** The mail that carried it; null where it was passed on by hand. */
    mailId: text("mail_id"),
  },
  (t) => [
    index("links_open").on(t.personId, t.purpose).where(sql`used_at is null and withdrawn_at is null`),
    index("links_expiry").on(t.expiresAt),
  ],
);

export const persons = sqliteTable(
  "persons",
  {
    id: id(),
    mail: text("mail").notNull().unique(),
    name: text("name").notNull(),
    passwordHash: text("password_hash"),
    createdAt: time("created_at").notNull(),
    invitedBy: text("invited_by"),
    /** By sort of notice, as far as somebody has said otherwise than is usual. */
    mailChoices: stored.json("mail_choices", stored.mailChoices),
    /** They put the list of first steps away. */
    stepsDismissedAt: time("steps_dismissed_at"),
    /** Of a leaver: name and address are gone for good. */
    erasedAt: time("erased_at"),
    /** How often their address stands in lists of leaked accounts, since when that is known, and when it was looked up. */
    addressLeaks: integer("address_leaks").notNull().default(0),
    addressLeakedAt: time("address_leaked_at"),
    addressLookedUpAt: time("address_looked_up_at").notNull().default(0),
  },
  (t) => [
    index("persons_address_looked_up").on(t.addressLookedUpAt),
    index("persons_address_leaked").on(t.addressLeakedAt).where(sql`address_leaked_at is not null`),
  ],
);

/** Passkeys (WebAuthn): what signs a person in without anything typed. Only public keys are here. */
export const passkeys = sqliteTable(
  "passkeys",
  {
    id: id(),
    personId: text("person_id")
      .notNull()
      .references(() => persons.id),
    /** As the authenticator calls it, base64url. */
    credentialId: text("credential_id").notNull().unique(),
    publicKey: bytes("public_key").notNull(),
    /** How often it has signed, where it counts: one that goes back has a copy. */
    counter: integer("counter").notNull(),
    transports: text("transports", { mode: "json" }).$type<string[]>().notNull(),
    name: text("name").notNull(),
    createdAt: time("created_at").notNull(),
    lastUsedAt: time("last_used_at"),
  },
  (t) => [index("passkeys_person").on(t.personId)],
);

/** Apps that show one-time codes (TOTP, RFC 6238) for signing in to Galtry; one a person. */
export const codeApps = sqliteTable(
  "code_apps",
  {
    id: id(),
    personId: text("person_id")
      .notNull()
      .references(() => persons.id),
    /** The secret key, sealed. */
    sealed: bytes("sealed").notNull(),
    createdAt: time("created_at").notNull(),
    /** A code of it was given: from then on it counts. */
    confirmedAt: time("confirmed_at"),
    /** The step of the last code that was taken: none is taken twice. */
    lastStep: integer("last_step"),
    lastUsedAt: time("last_used_at"),
  },
  (t) => [uniqueIndex("code_apps_person").on(t.personId)],
);

/** Recovery codes, each good for one sign-in; only hashes are here. */
export const recoveryCodes = sqliteTable(
  "recovery_codes",
  {
    id: id(),
    personId: text("person_id")
      .notNull()
      .references(() => persons.id),
    hash: text("hash").notNull(),
    createdAt: time("created_at").notNull(),
    usedAt: time("used_at"),
  },
  (t) => [index("recovery_codes_person").on(t.personId)],
);

/** Challenges that an authenticator is asked to sign, each once and within minutes. */
export const ceremonies = sqliteTable(
  "ceremonies",
  {
    id: id(),
    kind: text("kind").$type<"add" | "join" | "sign-in" | "second" | "prove">().notNull(),
    challenge: text("challenge").notNull(),
    /** Whom it is for; null where the passkey says it. */
    personId: text("person_id"),
    expiresAt: time("expires_at").notNull(),
    usedAt: time("used_at"),
  },
  (t) => [index("ceremonies_expiry").on(t.expiresAt)],
);

/** A right sign-in password that waits for its second step. */
export const secondSteps = sqliteTable(
  "second_steps",
  {
    tokenHash: text("token_hash").primaryKey(),
    personId: text("person_id").notNull(),
    tries: integer("tries").notNull().default(0),
    expiresAt: time("expires_at").notNull(),
    usedAt: time("used_at"),
  },
  (t) => [index("second_steps_expiry").on(t.expiresAt)],
);

/** Role and state of a person over time. */
export const personStates = sqliteTable(
  "standings",
  {
    id: id(),
    personId: text("person_id")
      .notNull()
      .references(() => persons.id),
    role: text("role").$type<Role>().notNull(),
    standing: text("standing").$type<Standing>().notNull(),
    /** The contract of somebody who is here for a season: all access ends then. */
    until: integer("until_at"),
    ...valid,
  },
  (t) => [
    index("standings_end").on(t.until).where(sql`valid_until is null and until_at is not null`),
    index("standings_role").on(t.role, t.standing).where(sql`valid_until is null`),
    index("standings_person").on(t.personId, t.validUntil),
  ],
);

export const sessions = sqliteTable(
  "sessions",
  {
    id: id(),
    tokenHash: text("token_hash").notNull().unique(),
    personId: text("person_id")
      .notNull()
      .references(() => persons.id),
    createdAt: time("created_at").notNull(),
    /** When the sign-in password was last given in this session. */
    provedAt: time("proved_at").notNull(),
    lastSeenAt: time("last_seen_at").notNull(),
    expiresAt: time("expires_at").notNull(),
    endedAt: time("ended_at"),
    browser: text("browser").notNull(),
    address: text("address").notNull(),
    /** The identity provider it came by, and the session there. */
    providerId: text("provider_id"),
    providerSid: text("provider_sid"),
    /** Until a way in is added that the house rules require, it is good for nothing else. */
    limited: integer("limited", { mode: "boolean" }).notNull().default(false),
  },
  (t) => [
    index("sessions_expiry").on(t.expiresAt),
    index("sessions_person").on(t.personId),
    index("sessions_provider").on(t.providerId, t.providerSid).where(sql`provider_id is not null and ended_at is null`),
  ],
);

/** Browsers a person has signed in from: guessing elsewhere never shuts them out here. */
export const knownBrowsers = sqliteTable(
  "known_browsers",
  {
    tokenHash: text("token_hash").notNull(),
    personId: text("person_id")
      .notNull()
      .references(() => persons.id),
    lastUsedAt: time("last_used_at").notNull(),
  },
  (t) => [
    index("known_browsers_used").on(t.lastUsedAt),
    index("known_browsers_person").on(t.personId),
    primaryKey({ columns: [t.tokenHash, t.personId] }),
  ],
);

/** Codes mailed to people who join without being invited; neither the code nor the address is written down. */
export const joinCodes = sqliteTable(
  "join_codes",
  {
    id: id(),
    /** Keyed hash of the address. One code of an address stands at a time. */
    mailHash: text("mail_hash").notNull().unique(),
    codeHash: text("code_hash").notNull(),
    /** So many wrong ones were typed. */
    wrong: integer("wrong").notNull(),
    expiresAt: time("expires_at").notNull(),
  },
  (t) => [index("join_codes_expiry").on(t.expiresAt)],
);

/** Sign-ins that wait for a yes on a device where their person is signed in already: for a hundred seconds. */
export const deviceSignIns = sqliteTable(
  "device_sign_ins",
  {
    id: id(),
    /** Of what only the waiting browser has. */
    tokenHash: text("token_hash").notNull().unique(),
    /** Keyed hash of the number that it shows. */
    numberHash: text("number_hash").notNull(),
    browser: text("browser").notNull(),
    address: text("address").notNull(),
    createdAt: time("created_at").notNull(),
    expiresAt: time("expires_at").notNull(),
    approvedBy: text("approved_by").references(() => persons.id),
    declinedAt: time("declined_at"),
    usedAt: time("used_at"),
  },
  (t) => [index("device_sign_ins_number").on(t.numberHash), index("device_sign_ins_expiry").on(t.expiresAt)],
);

/** Counters of guesses; keys are keyed hashes. */
export const attempts = sqliteTable(
  "attempts",
  {
    key: text("key").notNull(),
    window: integer("window").notNull(),
    count: integer("count").notNull(),
  },
  (t) => [index("attempts_window").on(t.window), primaryKey({ columns: [t.key, t.window] })],
);

/** Failed sign-ins of known people, counted by the minute until they are journaled as one line. */
export const failedSignIns = sqliteTable(
  "failed_sign_ins",
  {
    personId: text("person_id")
      .notNull()
      .references(() => persons.id),
    minute: integer("minute").notNull(),
    count: integer("count").notNull(),
  },
  (t) => [index("failed_sign_ins_minute").on(t.minute), primaryKey({ columns: [t.personId, t.minute] })],
);

export const groups = sqliteTable("groups", {
  id: id(),
  name: text("name").notNull(),
  description: text("description").notNull().default(""),
  createdAt: time("created_at").notNull(),
  /** Nobody is in it longer than this. */
  until: integer("until_at"),
  /** The identity provider that decides who is in it; null where it is kept here. */
  providerId: text("provider_id"),
});

export const memberships = sqliteTable(
  "memberships",
  {
    id: id(),
    groupId: text("group_id").notNull(),
    personId: text("person_id")
      .notNull()
      .references(() => persons.id),
    from: integer("from_at"),
    until: integer("until_at"),
    keeper: integer("keeper", { mode: "boolean" }).notNull().default(false),
    ...valid,
  },
  (t) => [
    index("memberships_from").on(t.from).where(sql`valid_until is null and from_at is not null`),
    index("memberships_end").on(t.until).where(sql`valid_until is null and until_at is not null`),
    index("memberships_person").on(t.personId, t.validUntil),
    uniqueIndex("memberships_current").on(t.groupId, t.personId).where(sql`valid_until is null`),
  ],
);

export type NodeType = "vault" | "folder" | "entry";

export const nodes = sqliteTable("nodes", {
  id: id(),
  type: text("type").$type<NodeType>().notNull(),
  createdAt: time("created_at").notNull(),
  createdBy: text("created_by").notNull(),
});

export const places = sqliteTable(
  "places",
  {
    id: id(),
    nodeId: text("node_id")
      .notNull()
      .references(() => nodes.id),
    parentId: text("parent_id").references(() => nodes.id),
    vaultId: text("vault_id")
      .notNull()
      .references(() => nodes.id),
    ...valid,
  },
  (t) => [
    index("places_node").on(t.nodeId, t.validUntil),
    index("places_parent").on(t.parentId, t.validUntil),
    index("places_vault").on(t.vaultId, t.validUntil),
  ],
);

export const separations = sqliteTable(
  "separations",
  {
    id: id(),
    nodeId: text("node_id")
      .notNull()
      .references(() => nodes.id),
    ...valid,
  },
  (t) => [index("separations_node").on(t.nodeId, t.validUntil)],
);

/** In the bin, and with which folder: what went there with one comes back with it. */
const binned = {
  binnedAt: time("binned_at"),
  binnedBy: text("binned_by"),
  binnedWith: text("binned_with"),
};

export const vaults = sqliteTable("vaults", {
  nodeId: text("node_id")
    .primaryKey()
    .references(() => nodes.id),
  name: text("name").notNull(),
  description: text("description").notNull().default(""),
  asideAt: time("aside_at"),
  asideBy: text("aside_by"),
  pictureId: text("picture_id"),
  /** Who may take out what they may reveal, besides its stewards. */
  takers: stored.json("takers", z.array(stored.taker)).notNull().default([]),
  /** What whoever is given something here confirms first, where the house rules ask for that. */
  houseNote: text("house_note").notNull().default(""),
  /** More people than these are too many, as its stewards say; null for any number. */
  mostPeople: integer("most_people"),
  /** Every so many months its stewards look through who has what; null for never. */
  roundsMonths: integer("rounds_months"),
  /** When that was said. */
  roundsSince: time("rounds_since"),
});

export type RoundSaid = z.infer<typeof stored.roundSaid>;

export type RoundKept = z.infer<typeof stored.roundKept>;

/** Rounds of a vault: its stewards look through who has what. */
export const rounds = sqliteTable(
  "rounds",
  {
    id: id(),
    vaultId: text("vault_id")
      .notNull()
      .references(() => nodes.id),
    startedAt: time("started_at").notNull(),
    /** Null: by itself, as its time had come. */
    startedBy: text("started_by"),
    /** The steward who is asked now, since when, and when they were told again. */
    asked: text("asked").notNull(),
    askedAt: time("asked_at").notNull(),
    remindedAt: time("reminded_at"),
    /** Stewards who were asked before and did not answer. */
    passed: stored.json("passed", stored.texts).notNull().default([]),
    said: stored.json("said", z.array(stored.roundSaid)).notNull().default([]),
    finishedAt: time("finished_at"),
    finishedBy: text("finished_by"),
    kept: stored.json("kept", z.array(stored.roundKept)),
  },
  (t) => [
    index("rounds_finished").on(t.vaultId, t.finishedAt),
    uniqueIndex("rounds_open").on(t.vaultId).where(sql`finished_at is null`),
  ],
);

/** Who has accepted what they were given in a vault, with the house note as it was then. */
export const acceptances = sqliteTable(
  "acceptances",
  {
    personId: text("person_id")
      .notNull()
      .references(() => persons.id),
    vaultId: text("vault_id")
      .notNull()
      .references(() => vaults.nodeId),
    note: text("note").notNull(),
    at: time("at").notNull(),
  },
  (t) => [index("acceptances_vault").on(t.vaultId), primaryKey({ columns: [t.personId, t.vaultId] })],
);

export type Taker = z.infer<typeof stored.taker>;

/** What somebody is taking out just now, in parts: fetched one after another within minutes, by whoever began it. */
export const takings = sqliteTable(
  "takings",
  {
    id: id(),
    vaultId: text("vault_id")
      .notNull()
      .references(() => nodes.id),
    personId: text("person_id")
      .notNull()
      .references(() => persons.id),
    sessionId: text("session_id"),
    at: time("at").notNull(),
  },
  (t) => [index("takings_at").on(t.at), index("takings_vault").on(t.vaultId)],
);

export const takingParts = sqliteTable(
  "taking_parts",
  {
    takingId: text("taking_id")
      .notNull()
      .references(() => takings.id),
    number: integer("number").notNull(),
    /** Versions, and the names of the folders around each. */
    rows: stored.json("rows", z.array(stored.takenRow)).notNull(),
  },
  (t) => [primaryKey({ columns: [t.takingId, t.number] })],
);

export const folders = sqliteTable(
  "folders",
  {
    nodeId: text("node_id")
      .primaryKey()
      .references(() => nodes.id),
    name: text("name").notNull(),
    ...binned,
  },
  (t) => [
    index("folders_binned").on(t.binnedAt).where(sql`binned_at is not null`),
    index("folders_binned_with").on(t.binnedWith).where(sql`binned_with is not null`),
  ],
);

export const vaultKeys = sqliteTable(
  "vault_keys",
  {
    vaultId: text("vault_id")
      .notNull()
      .references(() => vaults.nodeId),
    version: integer("version").notNull(),
    wrapped: bytes("wrapped").notNull(),
    createdAt: time("created_at").notNull(),
    /** Sealing anew what an earlier version sealed was stopped, until somebody goes on with it. */
    stoppedAt: time("stopped_at"),
    /** Of an earlier version: nothing has needed it since. */
    unusedSince: time("unused_since"),
  },
  (t) => [primaryKey({ columns: [t.vaultId, t.version] })],
);

export type ExtraField = z.infer<typeof stored.extraField>;

/** Kinds that the organisation made. A field that is taken out stays here as retired: entries may hold a value in it. */
export const kinds = sqliteTable("kinds", {
  id: id(),
  name: text("name").notNull(),
  purpose: text("purpose").$type<Purpose>().notNull(),
  /** Months after which its secrets are old; null for never. */
  oldAfter: integer("old_after"),
  fields: stored.json("fields", z.array(stored.field)).notNull(),
  title: text("title"),
  pictureId: text("picture_id"),
  createdAt: time("created_at").notNull(),
  createdBy: text("created_by").notNull(),
  changedAt: time("changed_at").notNull(),
  closedAt: time("closed_at"),
});

/** Sites we use: ready starts for new entries. */
export const sites = sqliteTable("sites", {
  id: id(),
  name: text("name").notNull(),
  signInPage: text("sign_in_page").notNull(),
  kind: text("kind").notNull(),
  hint: text("hint").notNull().default(""),
  /** HTML `passwordrules`, empty where none are known. */
  passwordRules: text("password_rules").notNull().default(""),
  /** It lets people sign in with a one-time code besides the password. */
  offersCodes: integer("offers_codes", { mode: "boolean" }).notNull().default(false),
  createdAt: time("created_at").notNull(),
  createdBy: text("created_by").notNull(),
});

/** Pictures of entries, vaults and kinds, made small and drawn anew before they are kept. */
export const pictures = sqliteTable("pictures", {
  id: id(),
  png: bytes("png").notNull(),
  createdAt: time("created_at").notNull(),
  createdBy: text("created_by").notNull(),
});

/** Whether guarded fill may type into a page, and send it. */
export type Filling = "send" | "type" | "never";

export const entries = sqliteTable(
  "entries",
  {
    nodeId: text("node_id")
      .primaryKey()
      .references(() => nodes.id),
    kind: text("kind").notNull(),
    name: text("name").notNull(),
    description: text("description").notNull().default(""),
    /** Open values by field id; the sign-in page has columns of its own, for pages are matched by it. */
    fields: stored.json("fields", stored.textByName).notNull(),
    /** Empty where nobody signs in, and so are host and site. */
    signInPage: text("sign_in_page").notNull(),
    reach: text("reach").$type<"site" | "host">().notNull(),
    /** Host of the sign-in page and its registrable domain: what a page is matched by. */
    host: text("host").notNull(),
    site: text("site").notNull(),
    notes: text("notes").notNull().default(""),
    tags: stored.json("tags", stored.texts).notNull(),
    extras: stored.json("extras", z.array(stored.extraField)).notNull(),
    useSeesUserName: integer("use_sees_user_name", { mode: "boolean" }).notNull().default(false),
    guardedFill: integer("guarded_fill", { mode: "boolean" }).notNull().default(false),
    /** Where its password is changed at the site, as Lanyard saw it changed there by hand; empty where that is not known. */
    changePage: text("change_page").notNull().default(""),
    /** Which engine of sealed sign-in got in last time. */
    signInEngine: text("sign_in_engine", { enum: ["http", "browser"] }),
    /** The steward accepted in words that this site gets its password over plain http. */
    plainHttp: integer("plain_http", { mode: "boolean" }).notNull().default(false),
    /** Who receives the codes that its site sends: nobody (empty), any of its stewards (`stewards`), or a person by id. */
    codesReach: text("codes_reach").notNull().default(""),
    hasCode: integer("has_code", { mode: "boolean" }).notNull().default(false),
    steps: stored.json("steps", stored.steps).notNull(),
    versionId: text("version_id")
      .notNull()
      .references((): AnySQLiteColumn => entryVersions.id),
    changedAt: time("changed_at").notNull(),
    changedBy: text("changed_by").notNull(),
    createdAt: time("created_at").notNull(),
    createdBy: text("created_by").notNull(),
    ...binned,
    /** Kept, but offered nowhere until it is brought back. */
    asideAt: time("aside_at"),
    asideBy: text("aside_by"),
    /** The vault with which it was set aside: it comes back with it. */
    asideWith: text("aside_with"),
    /** A reveal takes the sign-in password again. */
    askAgain: integer("ask_again", { mode: "boolean" }).notNull().default(false),
    /** Its stewards want its password changed regularly, as the house rules say how often. */
    changedRegularly: integer("changed_regularly", { mode: "boolean" }).notNull().default(false),
    /** So many stewards say yes before each sign-in or reveal; 0 for none. */
    asksFirst: integer("asks_first").notNull().default(0),
    /** For so long a yes holds. */
    yesMinutes: integer("yes_minutes").notNull().default(30),
    filling: text("filling").$type<Filling>().notNull().default("send"),
    /** Any member of staff may know that it exists, and ask for it. */
    listed: integer("listed", { mode: "boolean" }).notNull().default(false),
    pictureId: text("picture_id"),
    /** Nobody has rated the passwords of its current version yet. */
    unrated: integer("unrated", { mode: "boolean" }).notNull().default(true),
  },
  (t) => [
    index("entries_binned_with").on(t.binnedWith).where(sql`binned_with is not null`),
    index("entries_unrated").on(t.versionId).where(sql`unrated = 1`),
    index("entries_changed_regularly").on(t.nodeId).where(sql`changed_regularly = 1`),
    index("entries_site").on(t.site),
    index("entries_version").on(t.versionId),
    index("entries_kind").on(t.kind),
    index("entries_picture").on(t.pictureId).where(sql`picture_id is not null`),
    index("entries_listed").on(t.listed).where(sql`listed = 1`),
    index("entries_binned").on(t.binnedAt).where(sql`binned_at is not null`),
    index("entries_aside").on(t.asideWith).where(sql`aside_with is not null`),
  ],
);

/** How long a secret of a version would stand, by field; the field is empty where a version has none to be rated. */
export const conditions = sqliteTable(
  "conditions",
  {
    versionId: text("version_id")
      .notNull()
      .references(() => entryVersions.id),
    field: text("field").notNull(),
    /** log10 of the guesses that find it. */
    guesses: real("guesses").notNull(),
  },
  (t) => [primaryKey({ columns: [t.versionId, t.field] })],
);

/**
 * Passwords as they stood in the list of leaked ones, of current versions. Triggers put a row here for each version as it
 * becomes current, and take it away with its entry, or as another takes its place.
 */
export const leaks = sqliteTable(
  "leaks",
  {
    versionId: text("version_id").primaryKey(),
    /** How often; 0 where it is not in it. */
    times: integer("times").notNull().default(0),
    /** 0 before the first look-up. */
    lookedUpAt: time("looked_up_at").notNull().default(0),
  },
  (t) => [index("leaks_looked_up").on(t.lookedUpAt)],
);

/**
 * What needs attention: of an entry, or of the access on a node. Written by the server as it looks at what has changed;
 * one that is over stays as history.
 */
export const findings = sqliteTable(
  "findings",
  {
    id: id(),
    nodeId: text("node_id")
      .notNull()
      .references(() => nodes.id),
    vaultId: text("vault_id").notNull(),
    kind: text("kind").$type<FindingKind>().notNull(),
    /** Tells several of one kind at one node apart: the grant. */
    key: text("key").notNull().default(""),
    detail: stored.json("detail", stored.findingDetail).notNull(),
    /** Since when it is so, as far as that is known. */
    since: time("since").notNull(),
    foundAt: time("found_at").notNull(),
    endedAt: integer("ended_at"),
    putOffUntil: integer("put_off_until"),
    putOffWhy: text("put_off_why").notNull().default(""),
    putOffBy: text("put_off_by"),
  },
  (t) => [
    uniqueIndex("findings_open").on(t.nodeId, t.kind, t.key).where(sql`ended_at is null`),
    index("findings_open_vault").on(t.vaultId, t.kind).where(sql`ended_at is null`),
    index("findings_vault").on(t.vaultId, t.endedAt),
    index("findings_node").on(t.nodeId),
    index("findings_ended").on(t.endedAt).where(sql`ended_at is not null`),
  ],
);

/**
 * What has changed since it was looked at for findings. Triggers write it (in the migration that makes it), so that no
 * writer can forget to. `entry` and `access`: a node; `use`: an entry that somebody used; `person`; `mark`: a fingerprint that a
 * secret has or had.
 */
export const unchecked = sqliteTable(
  "unchecked",
  {
    seq: integer("seq").primaryKey({ autoIncrement: true }),
    kind: text("kind").$type<"entry" | "access" | "use" | "person" | "mark">().notNull(),
    ref: text("ref").notNull(),
  },
  (t) => [uniqueIndex("unchecked_ref").on(t.kind, t.ref)],
);

/** When a node is looked at again although nothing changes: a date comes near, nobody has used it for so long. */
export const checks = sqliteTable(
  "checks",
  {
    nodeId: text("node_id").notNull(),
    part: text("part").$type<"entry" | "access">().notNull(),
    dueAt: time("due_at").notNull(),
  },
  (t) => [primaryKey({ columns: [t.nodeId, t.part] }), index("checks_due").on(t.dueAt)],
);

/** Recovery codes that were used, by the keyed fingerprint of each. */
export const ticks = sqliteTable(
  "ticks",
  {
    entryId: text("entry_id")
      .notNull()
      .references(() => entries.nodeId),
    fingerprint: text("fingerprint").notNull(),
    personId: text("person_id")
      .notNull()
      .references(() => persons.id),
    at: time("at").notNull(),
  },
  (t) => [primaryKey({ columns: [t.entryId, t.fingerprint] })],
);

/** A file kept with an entry; what is in it lies sealed in pieces. Not shown until the last piece is there. */
export const attachments = sqliteTable(
  "attachments",
  {
    id: id(),
    entryId: text("entry_id")
      .notNull()
      .references(() => entries.nodeId),
    vaultId: text("vault_id").notNull(),
    keyVersion: integer("key_version").notNull(),
    name: text("name").notNull(),
    /** What it is by its first bytes, never what its sender said. */
    type: text("type").notNull(),
    size: integer("size").notNull(),
    pieces: integer("pieces").notNull(),
    createdAt: time("created_at").notNull(),
    createdBy: text("created_by").notNull(),
    completeAt: time("complete_at"),
  },
  (t) => [
    index("attachments_key").on(t.vaultId, t.keyVersion),
    foreignKey({ columns: [t.vaultId, t.keyVersion], foreignColumns: [vaultKeys.vaultId, vaultKeys.version] }),
    index("attachments_begun").on(t.createdAt).where(sql`complete_at is null`),
    index("attachments_entry").on(t.entryId),
  ],
);

export const attachmentPieces = sqliteTable(
  "attachment_pieces",
  {
    attachmentId: text("attachment_id")
      .notNull()
      .references(() => attachments.id),
    number: integer("number").notNull(),
    sealed: bytes("sealed").notNull(),
    /** Where the vault's key is being renewed and this piece has come before its attachment; else the attachment's. */
    keyVersion: integer("key_version"),
  },
  (t) => [primaryKey({ columns: [t.attachmentId, t.number] })],
);

/** How a person likes one vault's ledger. */
export const ledgerViews = sqliteTable(
  "ledger_views",
  {
    personId: text("person_id")
      .notNull()
      .references(() => persons.id),
    vaultId: text("vault_id")
      .notNull()
      .references(() => vaults.nodeId),
    view: stored.json("view", stored.ledgerView).notNull(),
  },
  (t) => [index("ledger_views_vault").on(t.vaultId), primaryKey({ columns: [t.personId, t.vaultId] })],
);

/** What becomes of the columns of a file, kept under a name for the next one like it. */
export const mappings = sqliteTable(
  "mappings",
  {
    id: id(),
    personId: text("person_id")
      .notNull()
      .references(() => persons.id),
    name: text("name").notNull(),
    mapping: stored.json("mapping", stored.anythingByName).notNull(),
    changedAt: time("changed_at").notNull(),
  },
  (t) => [index("mappings_person").on(t.personId)],
);

/** Entries that an import changed: what undoing it brings back. */
export const importUpdates = sqliteTable(
  "import_updates",
  {
    importId: text("import_id")
      .notNull()
      .references(() => imports.id),
    entryId: text("entry_id")
      .notNull()
      .references(() => entries.nodeId),
    beforeVersionId: text("before_version_id").notNull(),
    versionId: text("version_id").notNull(),
    /** The whole of the new version until it is published, as rows of their tables; the blob stands apart. */
    pending: stored.json("pending", stored.pendingVersion),
    sealed: bytes("sealed"),
  },
  (t) => [index("import_updates_entry").on(t.entryId), primaryKey({ columns: [t.importId, t.entryId] })],
);

export type PendingVersion = z.infer<typeof stored.pendingVersion>;

/** Earlier and current values; open ones as JSON, identifiers and secrets in one sealed blob. */
export const entryVersions = sqliteTable(
  "entry_versions",
  {
    id: id(),
    entryId: text("entry_id")
      .notNull()
      .references(() => entries.nodeId),
    number: integer("number").notNull(),
    vaultId: text("vault_id").notNull(),
    keyVersion: integer("key_version").notNull(),
    open: stored.json("open", stored.anythingByName).notNull(),
    sealed: bytes("sealed").notNull(),
    createdAt: time("created_at").notNull(),
    createdBy: text("created_by").notNull(),
    /** The site said no to it: nobody sends it again until it changes or somebody with Edit says so. */
    refusedAt: time("refused_at"),
  },
  (t) => [
    index("entry_versions_key").on(t.vaultId, t.keyVersion),
    foreignKey({ columns: [t.vaultId, t.keyVersion], foreignColumns: [vaultKeys.vaultId, vaultKeys.version] }),
    uniqueIndex("entry_versions_number").on(t.entryId, t.number),
    // Which versions hold values in the fields of a kind: such a kind changes no class and is not deleted.
    index("entry_versions_kind").on(sql`json_extract(open, '$.kind')`),
  ],
);

/** A table that is being brought in. Its entries have no places, and so nobody reaches them, until it is published. */
export const imports = sqliteTable(
  "imports",
  {
    id: id(),
    vaultId: text("vault_id")
      .notNull()
      .references(() => nodes.id),
    parentId: text("parent_id")
      .notNull()
      .references(() => nodes.id),
    personId: text("person_id")
      .notNull()
      .references(() => persons.id),
    /** Machine and process id: what a dead process began is swept away. */
    process: text("process").notNull(),
    begunAt: time("begun_at").notNull(),
    /** When rows came last. */
    movedAt: time("moved_at").notNull(),
    publishedAt: time("published_at"),
    cancelledAt: time("cancelled_at"),
    undoneAt: time("undone_at"),
    /** How many came so far. */
    rows: integer("rows").notNull().default(0),
    foldersMade: stored.json("folders_made", stored.texts).notNull(),
  },
  (t) => [
    index("imports_published").on(t.publishedAt).where(sql`published_at is not null`),
    index("imports_vault").on(t.vaultId),
    index("imports_parent").on(t.parentId),
    index("imports_open").on(t.process).where(sql`published_at is null and cancelled_at is null`),
    index("imports_cancelled").on(t.id).where(sql`cancelled_at is not null`),
  ],
);

export const importRows = sqliteTable(
  "import_rows",
  {
    entryId: text("entry_id")
      .primaryKey()
      .references(() => entries.nodeId),
    importId: text("import_id")
      .notNull()
      .references(() => imports.id),
    versionId: text("version_id").notNull(),
    /** Made beforehand, so that publishing only copies. */
    placeId: text("place_id").notNull(),
    /** Names of folders, the outermost first. */
    folder: stored.json("folder", stored.texts).notNull(),
  },
  (t) => [index("import_rows_import").on(t.importId)],
);

/** Keyed fingerprints (HMAC) of the values of a version: the same value twice shows without opening either. */
export const fingerprints = sqliteTable(
  "fingerprints",
  {
    versionId: text("version_id")
      .notNull()
      .references(() => entryVersions.id),
    field: text("field").notNull(),
    fingerprint: text("fingerprint").notNull(),
  },
  (t) => [primaryKey({ columns: [t.versionId, t.field] }), index("fingerprints_value").on(t.fingerprint)],
);

export const grants = sqliteTable(
  "grants",
  {
    id: id(),
    nodeId: text("node_id")
      .notNull()
      .references(() => nodes.id),
    subjectKind: text("subject_kind").$type<"person" | "group" | "everyone">().notNull(),
    /** Empty for Everyone. */
    subjectId: text("subject_id").notNull(),
    level: text("level").$type<Given>().notNull(),
    from: integer("from_at"),
    until: integer("until_at"),
    /** Within from and until, only at these times of the week. */
    weekly: stored.json("weekly", stored.weekly),
    why: text("why").notNull().default(""),
    givenBy: text("given_by").notNull(),
    ...valid,
  },
  (t) => [
    index("grants_end").on(t.until).where(sql`valid_until is null and until_at is not null`),
    index("grants_from").on(t.from).where(sql`valid_until is null and from_at is not null`),
    index("grants_weekly").on(t.nodeId).where(sql`valid_until is null and weekly is not null`),
    index("grants_weekly").on(t.validUntil).where(sql`weekly is not null`),
    index("grants_node").on(t.nodeId, t.validUntil),
    index("grants_subject").on(t.subjectId, t.validUntil),
    index("grants_edges").on(t.validUntil, t.from, t.until),
    index("grants_giver").on(t.givenBy, t.validUntil, t.until),
  ],
);

export type SightingHow =
  | "revealed"
  | "copied"
  | "written"
  | "captured"
  | "brought in"
  | "guarded fill"
  | "filled in"
  | "taken out"
  | "handed over";

/** In place of a person: somebody who has a handover link. */
export const OUTSIDE = "outside";
/** And Galtry itself, where the house rules had it do something. */
export const ITSELF = "galtry";

export const sightings = sqliteTable(
  "sightings",
  {
    id: id(),
    entryId: text("entry_id")
      .notNull()
      .references(() => entries.nodeId),
    field: text("field").notNull(),
    fingerprint: text("fingerprint").notNull(),
    personId: text("person_id").notNull(),
    at: time("at").notNull(),
    how: text("how").$type<SightingHow>().notNull(),
  },
  (t) => [index("sightings_entry").on(t.entryId, t.field), index("sightings_person").on(t.personId, t.at)],
);

export type SlipChange = z.infer<typeof stored.slipChange>;

/** `waiting`: others are stewards of something it touches, and must say yes first. */
export type SlipState = "draft" | "waiting" | "applied" | "dropped";

/** Change slips: one open draft a person, and those that were applied or dropped. */
export const slips = sqliteTable(
  "slips",
  {
    id: id(),
    personId: text("person_id")
      .notNull()
      .references(() => persons.id),
    state: text("state").$type<SlipState>().notNull(),
    changes: stored.json("changes", z.array(stored.slipChange)).notNull(),
    /** Raised at each change of the draft. */
    revision: integer("revision").notNull().default(0),
    why: text("why").notNull().default(""),
    createdAt: time("created_at").notNull(),
    changedAt: time("changed_at").notNull(),
    appliedAt: time("applied_at"),
    /** What takes it back, worked out when it was applied. */
    back: stored.json("back", z.array(stored.change)),
    /** What its drafter read when it was sent to others: nobody says yes to something else. */
    ground: text("ground").notNull().default(""),
    /** People whom its drafter asked for a second look and who have not given one yet. */
    shownTo: stored.json("shown_to", stored.texts).notNull().default([]),
    /** Nodes whose stewards have not said yes yet. */
    waits: stored.json("waits", stored.texts).notNull().default([]),
  },
  (t) => [
    uniqueIndex("slips_draft").on(t.personId).where(sql`state = 'draft'`),
    index("slips_applied").on(t.personId, t.appliedAt),
    index("slips_state").on(t.state),
  ],
);

/** Handover links: a copy of chosen values, sealed under a key that stands in the link alone. */
export const handovers = sqliteTable(
  "handovers",
  {
    id: id(),
    tokenHash: text("token_hash").notNull().unique(),
    entryId: text("entry_id")
      .notNull()
      .references(() => entries.nodeId),
    /** Where the entry was: in another vault its links have ended. */
    vaultId: text("vault_id").notNull(),
    makerId: text("maker_id")
      .notNull()
      .references(() => persons.id),
    /** Labels of what was handed over. */
    labels: stored.json("labels", stored.texts).notNull(),
    /** Of the secrets among it, for *seen by* once it is opened. */
    marks: stored.json("marks", stored.marks).notNull().default([]),
    /** Null once it has ended: erased, not hidden. */
    sealed: bytes("sealed"),
    wordHash: text("word_hash"),
    madeAt: time("made_at").notNull(),
    expiresAt: time("expires_at").notNull(),
    /** So often it may be opened. */
    openings: integer("openings").notNull(),
    openedAt: stored.json("opened_at", stored.numbers).notNull().default([]),
    /** Hash of what the browser that opened it last presents, within ten minutes. */
    opener: text("opener"),
    wrongWords: integer("wrong_words").notNull().default(0),
    withdrawnAt: time("withdrawn_at"),
    /** Whom it is for: it opens with a code that goes there. */
    mailTo: text("mail_to"),
    /** When codes were asked for. */
    codesAt: stored.json("codes_at", stored.numbers).notNull().default([]),
    /** Keyed mark of the latest code and of the browser that asked for it; null once it was right. */
    codeMark: text("code_mark"),
    /** The mail that it went with. */
    codeMailId: text("code_mail_id"),
  },
  (t) => [
    index("handovers_expiry").on(t.expiresAt),
    index("handovers_entry").on(t.entryId),
    index("handovers_live").on(t.expiresAt).where(sql`sealed is not null`),
  ],
);

/** Mail on its way out, and for a day what went and what did not. */
export const mails = sqliteTable(
  "mails",
  {
    id: id(),
    to: text("to").notNull(),
    subject: text("subject").notNull(),
    /** The text, sealed; null once it has gone or is given up. */
    sealed: bytes("sealed"),
    madeAt: time("made_at").notNull(),
    until: time("until").notNull(),
    nextAt: time("next_at").notNull(),
    sentAt: time("sent_at"),
    failedAt: time("failed_at"),
    /** What the mail server said last. */
    wrong: text("wrong"),
    makerId: text("maker_id").notNull(),
    nodeId: text("node_id"),
  },
  (t) => [index("mails_made").on(t.madeAt), index("mails_due").on(t.nextAt)],
);

/** Letterboxes: links by which somebody outside drops a secret into one folder, once, without an account. */
export const letterboxes = sqliteTable(
  "letterboxes",
  {
    id: id(),
    tokenHash: text("token_hash").notNull().unique(),
    nodeId: text("node_id")
      .notNull()
      .references(() => nodes.id),
    makerId: text("maker_id")
      .notNull()
      .references(() => persons.id),
    /** What is asked for, and what the entry is called that comes of it. */
    name: text("name").notNull(),
    labels: stored.json("labels", stored.texts).notNull(),
    madeAt: time("made_at").notNull(),
    expiresAt: time("expires_at").notNull(),
    droppedAt: time("dropped_at"),
    entryId: text("entry_id"),
    closedAt: time("closed_at"),
  },
  (t) => [index("letterboxes_node").on(t.nodeId), index("letterboxes_maker").on(t.makerId)],
);

/** Requests for a yes, at entries that ask first: for one person, one entry and some minutes. */
export const approvals = sqliteTable(
  "yeses",
  {
    id: id(),
    entryId: text("entry_id")
      .notNull()
      .references(() => entries.nodeId),
    personId: text("person_id")
      .notNull()
      .references(() => persons.id),
    why: text("why").notNull(),
    /** Where it was asked from: browser and address. */
    browser: text("browser").notNull(),
    address: text("address").notNull(),
    askedAt: time("asked_at").notNull(),
    /** Stewards that have to say yes, and those that have. */
    needed: integer("needed").notNull(),
    minutes: integer("minutes").notNull(),
    said: stored.json("said", z.array(stored.yesSaid)).notNull().default([]),
    /** Set once enough have said yes: it holds until then. */
    until: integer("until_at"),
    /** Past a yes, in an emergency. */
    emergency: integer("emergency", { mode: "boolean" }).notNull().default(false),
    /** Said no, taken back, or ended before its time. */
    closedAt: time("closed_at"),
    closedBy: text("closed_by"),
    word: text("word").notNull().default(""),
  },
  (t) => [
    index("yeses_entry").on(t.entryId),
    index("yeses_person").on(t.personId, t.entryId),
    index("yeses_open").on(t.closedAt, t.until),
  ],
);

export type AskState = "open" | "yes" | "no" | "withdrawn";

/** Requests for access: who asks for what, at which level, until when, and what was answered. */
export const asks = sqliteTable(
  "asks",
  {
    id: id(),
    personId: text("person_id")
      .notNull()
      .references(() => persons.id),
    /** Empty where it was asked by the address of a site for which nothing is kept. */
    nodeId: text("node_id").notNull(),
    level: text("level").$type<Level>().notNull(),
    until: integer("until_at"),
    why: text("why").notNull(),
    state: text("state").$type<AskState>().notNull(),
    askedAt: time("asked_at").notNull(),
    /** The steward it was passed on to; all stewards of the node where it is nobody. */
    passedTo: text("passed_to"),
    /** Told again to those who have not answered; then to the owners. */
    remindedAt: time("reminded_at"),
    raisedAt: time("raised_at"),
    answeredAt: time("answered_at"),
    answeredBy: text("answered_by"),
    /** What was given, where it is less or shorter than was asked for. */
    given: stored.json("given", stored.givenInstead),
    word: text("word").notNull().default(""),
    /** Asked by the address of a site: whoever asks does not learn whether anything is kept for it. */
    site: text("site").notNull().default(""),
  },
  (t) => [
    index("asks_answered").on(t.answeredAt).where(sql`answered_at is not null`),
    index("asks_state").on(t.state, t.nodeId),
    index("asks_person").on(t.personId, t.state),
  ],
);

export const pins = sqliteTable(
  "pins",
  {
    personId: text("person_id")
      .notNull()
      .references(() => persons.id),
    entryId: text("entry_id")
      .notNull()
      .references(() => entries.nodeId),
    at: time("at").notNull(),
  },
  (t) => [index("pins_entry").on(t.entryId), primaryKey({ columns: [t.personId, t.entryId] })],
);

/** When a person first opened or used an entry; until then it is new to them. */
export const firstSeen = sqliteTable(
  "met",
  {
    personId: text("person_id")
      .notNull()
      .references(() => persons.id),
    entryId: text("entry_id")
      .notNull()
      .references(() => entries.nodeId),
    at: time("at").notNull(),
  },
  (t) => [index("met_entry").on(t.entryId), primaryKey({ columns: [t.personId, t.entryId] })],
);

export const lanyards = sqliteTable(
  "lanyards",
  {
    id: id(),
    personId: text("person_id")
      .notNull()
      .references(() => persons.id),
    tokenHash: text("token_hash").notNull().unique(),
    /** RFC 7638 thumbprint of the key kept in that browser. */
    thumbprint: text("thumbprint").notNull(),
    browser: text("browser").notNull(),
    version: text("version").notNull(),
    createdAt: time("created_at").notNull(),
    lastUsedAt: time("last_used_at").notNull(),
    expiresAt: time("expires_at").notNull(),
    endedAt: time("ended_at"),
    endedBy: text("ended_by"),
    endedWhy: text("ended_why"),
  },
  (t) => [
    index("lanyards_ended").on(t.endedAt).where(sql`ended_at is not null`),
    index("lanyards_expiry").on(t.expiresAt),
    index("lanyards_unused").on(t.lastUsedAt).where(sql`ended_at is null`),
    index("lanyards_person").on(t.personId),
  ],
);

export const pairings = sqliteTable(
  "pairings",
  {
    id: id(),
    deviceHash: text("device_hash").notNull().unique(),
    userCode: text("user_code").notNull(),
    thumbprint: text("thumbprint").notNull(),
    browser: text("browser").notNull(),
    version: text("version").notNull(),
    createdAt: time("created_at").notNull(),
    expiresAt: time("expires_at").notNull(),
    confirmedBy: text("confirmed_by"),
    confirmedAt: time("confirmed_at"),
    takenAt: time("taken_at"),
    stoppedAt: time("stopped_at"),
  },
  (t) => [index("pairings_code").on(t.userCode), index("pairings_expiry").on(t.expiresAt)],
);

/** Proofs seen (RFC 9449 section 11.1). */
export const proofs = sqliteTable(
  "proofs",
  { jti: text("jti").primaryKey(), expiresAt: time("expires_at").notNull() },
  (t) => [index("proofs_expiry").on(t.expiresAt)],
);

export const neverKept = sqliteTable(
  "never_kept",
  {
    personId: text("person_id")
      .notNull()
      .references(() => persons.id),
    site: text("site").notNull(),
    at: time("at").notNull(),
  },
  (t) => [primaryKey({ columns: [t.personId, t.site] })],
);

/** One row a sign-in by Galtry: begun, then ended with what came of it. */
export const signIns = sqliteTable(
  "sign_ins",
  {
    id: id(),
    entryId: text("entry_id")
      .notNull()
      .references(() => nodes.id),
    versionId: text("version_id").notNull(),
    /** Null for a test that Galtry made by itself. */
    personId: text("person_id").references(() => persons.id),
    lanyardId: text("lanyard_id").notNull(),
    how: text("how").$type<"sealed" | "guarded" | "tested">().notNull(),
    /** Host and user name as a keyed hash: sign-ins to one account wait for each other. */
    queueKey: text("queue_key").notNull(),
    /** Machine and process id, to tell a sign-in under way from one broken off. */
    process: text("process").notNull(),
    begunAt: time("begun_at").notNull(),
    endedAt: time("ended_at"),
    outcome: text("outcome"),
    detail: text("detail"),
    /** The session as handed over, to sign out with: sealed under the vault's key. */
    jar: bytes("jar"),
    keyVersion: integer("key_version"),
    signedOutAt: time("signed_out_at"),
  },
  (t) => [
    index("sign_ins_entry").on(t.entryId, t.begunAt),
    index("sign_ins_person").on(t.personId, t.begunAt),
    index("sign_ins_open").on(t.endedAt, t.queueKey),
    // Sessions that were handed over and not signed out of.
    index("sign_ins_kept").on(t.id).where(sql`jar is not null`),
    index("sign_ins_kept_person").on(t.personId).where(sql`jar is not null`),
    index("sign_ins_kept_entry").on(t.entryId).where(sql`jar is not null`),
  ],
);

/** Sign-ins that wait for a code which the site has sent to a steward. */
export const askedCodes = sqliteTable(
  "asked_codes",
  {
    id: id(),
    signInId: text("sign_in_id")
      .notNull()
      .references(() => signIns.id),
    entryId: text("entry_id").notNull(),
    vaultId: text("vault_id").notNull(),
    /** As the entry said it then. */
    reaches: text("reaches").notNull(),
    askedAt: time("asked_at").notNull(),
    until: time("until").notNull(),
    /** Who received none. */
    declined: stored.json("declined", stored.texts).notNull().default([]),
    answeredAt: integer("answered_at"),
    answeredBy: text("answered_by"),
    /** The code under the vault's key, until the sign-in takes it. */
    sealed: bytes("sealed"),
    keyVersion: integer("key_version"),
    closedAt: integer("closed_at"),
  },
  (t) => [
    index("asked_codes_open").on(t.until).where(sql`closed_at is null`),
    index("asked_codes_asked").on(t.askedAt),
    index("asked_codes_sign_in").on(t.signInId),
  ],
);

/**
 * Passwords that Galtry changes at their sites: the new one is written down before it is sent, and stays until it is
 * proven, or known not to count.
 */
export const passwordChanges = sqliteTable(
  "password_changes",
  {
    id: id(),
    entryId: text("entry_id")
      .notNull()
      .references(() => entries.nodeId),
    /** The version whose password it replaces. */
    versionId: text("version_id").notNull(),
    /** Who had it changed, or decided afterwards which one stands. */
    personId: text("person_id").notNull(),
    process: text("process").notNull(),
    begunAt: time("begun_at").notNull(),
    /** It has left for the site: from then on either may be the one that works. */
    sentAt: integer("sent_at"),
    /** Null while it is under way. */
    outcome: text("outcome").$type<ChangeOutcome>(),
    detail: text("detail").notNull().default(""),
    endedAt: integer("ended_at"),
    /** Where it is changed, of the last one that got there. */
    at: text("at").notNull().default(""),
    /** The new password under the vault's key; empty before it is made, and once it is a version or known not to count. */
    sealed: bytes("sealed"),
    keyVersion: integer("key_version"),
  },
  (t) => [
    index("password_changes_entry").on(t.entryId, t.begunAt),
    index("password_changes_open").on(t.begunAt).where(sql`ended_at is null`),
    index("password_changes_sealed").on(t.entryId).where(sql`sealed is not null`),
  ],
);

/** Reports that somebody gets by mail every so often: what is asked, and when next. */
export const reportMails = sqliteTable(
  "report_mails",
  {
    id: id(),
    personId: text("person_id")
      .notNull()
      .references(() => persons.id),
    question: text("question").$type<Question>().notNull(),
    nodeId: text("node_id"),
    aboutId: text("about_id"),
    every: text("every").$type<ReportTime>().notNull(),
    nextAt: time("next_at").notNull(),
    /** Of the last one. */
    count: integer("count"),
  },
  (t) => [index("report_mails_next").on(t.nextAt), index("report_mails_person").on(t.personId)],
);

export type ChangeListSort = "left" | "lowered" | "lost";

/** What somebody has seen and what has to be changed because of it: shared out among the stewards, with a date. */
export const changeLists = sqliteTable(
  "change_lists",
  {
    id: id(),
    personId: text("person_id").notNull(),
    sort: text("sort").$type<ChangeListSort>().notNull(),
    why: text("why").notNull(),
    dueAt: time("due_at").notNull(),
    /** What they saw later is not on it. */
    openedAt: time("opened_at").notNull(),
    /** Null where the date on which somebody leaves was reached. */
    openedBy: text("opened_by"),
    remindedAt: time("reminded_at"),
    endedAt: time("ended_at"),
  },
  (t) => [
    index("change_lists_person").on(t.personId, t.openedAt),
    index("change_lists_ended").on(t.endedAt),
    index("change_lists_open").on(t.dueAt).where(sql`ended_at is null`),
  ],
);

export const changeListItems = sqliteTable(
  "change_list_items",
  {
    listId: text("list_id")
      .notNull()
      .references(() => changeLists.id),
    entryId: text("entry_id").notNull(),
    /** A steward has decided that this version stays as it is. */
    leftVersionId: text("left_version_id"),
    leftWhy: text("left_why").notNull().default(""),
    leftBy: text("left_by"),
    leftAt: time("left_at"),
  },
  (t) => [primaryKey({ columns: [t.listId, t.entryId] })],
);

/** Many logins changed or tested one after the other, by somebody or as the house rules say; it goes on without their page. */
export const runs = sqliteTable(
  "runs",
  {
    id: id(),
    what: text("what").$type<RunWhat>().notNull(),
    /** Whose run it is, and whose access counts at each entry; null for the house rules. */
    personId: text("person_id"),
    /** Whose sightings it is about: a leaver's, or of somebody who stays. Null for others. */
    aboutId: text("about_id"),
    /** As they asked for it. */
    provedAt: time("proved_at").notNull(),
    address: text("address").notNull(),
    browser: text("browser").notNull(),
    language: text("language").notNull(),
    begunAt: time("begun_at").notNull(),
    stoppedAt: time("stopped_at"),
    endedAt: time("ended_at"),
    dismissedAt: time("dismissed_at"),
  },
  (t) => [
    index("runs_open").on(t.begunAt).where(sql`ended_at is null`),
    index("runs_person").on(t.personId).where(sql`dismissed_at is null`),
    index("runs_ended").on(t.endedAt),
  ],
);

export const runItems = sqliteTable(
  "run_items",
  {
    runId: text("run_id")
      .notNull()
      .references(() => runs.id),
    number: integer("number").notNull(),
    entryId: text("entry_id").notNull(),
    process: text("process"),
    begunAt: time("begun_at"),
    endedAt: time("ended_at"),
    good: integer("good", { mode: "boolean" }).notNull().default(false),
    /** How it ended, in words; it holds no secret. */
    says: text("says").notNull().default(""),
  },
  (t) => [
    primaryKey({ columns: [t.runId, t.number] }),
    index("run_items_ended").on(t.endedAt, t.begunAt),
    index("run_items_entry").on(t.entryId, t.endedAt),
  ],
);

/** The last test of each entry: what it went through, page by page, and how the last page looked. */
export const signInTests = sqliteTable("sign_in_tests", {
  entryId: text("entry_id")
    .primaryKey()
    .references(() => nodes.id),
  at: time("at").notNull(),
  /** Null where Galtry made it by itself, at night. */
  by: text("by").references(() => persons.id),
  outcome: text("outcome").notNull(),
  detail: text("detail").notNull(),
  /** The version of what is kept that was sent. */
  versionId: text("version_id").notNull(),
  pages: stored.json("pages", stored.testedPages).notNull(),
  /** JPEG, sealed under the vault's key; what moves or is sealed anew loses it. */
  picture: bytes("picture"),
  keyVersion: integer("key_version"),
});

/** Sign-in steps as they were, each time somebody changed them. */
export const stepVersions = sqliteTable(
  "step_versions",
  {
    id: id(),
    entryId: text("entry_id")
      .notNull()
      .references(() => nodes.id),
    steps: stored.json("steps", stored.steps).notNull(),
    how: text("how").$type<"learned" | "edited" | "restored">().notNull(),
    at: time("at").notNull(),
    by: text("by")
      .notNull()
      .references(() => persons.id),
  },
  (t) => [index("step_versions_entry").on(t.entryId, t.at)],
);

/** Time steps of one-time codes already sent: a code is used once. */
export const usedCodes = sqliteTable(
  "used_codes",
  { fingerprint: text("fingerprint").notNull(), step: integer("step").notNull() },
  (t) => [index("used_codes_step").on(t.step), primaryKey({ columns: [t.fingerprint, t.step] })],
);

export const journal = sqliteTable(
  "journal",
  {
    seq: integer("seq").primaryKey(),
    at: time("at").notNull(),
    act: text("act").notNull(),
    outcome: text("outcome").$type<"done" | "refused">().notNull(),
    person: text("person"),
    node: text("node"),
    vault: text("vault"),
    subject: text("subject"),
    details: text("details").notNull(),
    names: text("names").notNull(),
    previous: text("previous").notNull(),
    hash: text("hash").notNull(),
    mac: text("mac").notNull(),
  },
  (t) => [
    index("journal_person").on(t.person),
    index("journal_node").on(t.node),
    index("journal_vault").on(t.vault),
    index("journal_subject").on(t.subject),
    index("journal_act").on(t.act),
  ],
);

/**
 * Roots of complete parts of the tree over the Journal's lines, from 2^8 lines on: `position`-th of its level from the left,
 * counted from 0. What is smaller is worked out from the lines.
 */
export const journalTree = sqliteTable(
  "journal_tree",
  { level: integer("level").notNull(), position: integer("position").notNull(), hash: text("hash").notNull() },
  (t) => [primaryKey({ columns: [t.level, t.position] })],
);

/** Signed: so many lines, and the root over them. */
export const journalCheckpoints = sqliteTable(
  "journal_checkpoints",
  {
    size: integer("size").primaryKey(),
    at: time("at").notNull(),
    note: text("note").notNull(),
    /** When it went out by mail; most do not. */
    mailedAt: time("mailed_at"),
  },
  (t) => [index("journal_checkpoints_mailed").on(t.mailedAt)],
);

/** How far lines have been sent on to a place, and since when it has not taken them. */
export const journalForwarding = sqliteTable("journal_forwarding", {
  target: text("target").primaryKey(),
  seq: integer("seq").notNull(),
  failedSince: time("failed_since"),
});

/** Names as they were when a line was written; a row can be erased without breaking the chain. */
export const journalNames = sqliteTable(
  "journal_names",
  {
    hash: text("hash").primaryKey(),
    ref: text("ref").notNull(),
    name: text("name").notNull(),
    salt: text("salt").notNull(),
  },
  (t) => [uniqueIndex("journal_names_ref").on(t.ref, t.name)],
);

/** Regular work that one process does at a time, and until when it may be taken to be at it. */
export const leases = sqliteTable("leases", {
  work: text("work").primaryKey(),
  process: text("process").notNull(),
  until: time("until").notNull(),
});

/**
 * Nodes and people whose access may have changed. Triggers write it (in the migration that makes it), so that no writer
 * can forget to; every process brings its access index up to the last row before it answers.
 */
export const accessChanges = sqliteTable(
  "access_changes",
  {
    seq: integer("seq").primaryKey({ autoIncrement: true }),
    at: time("at").notNull(),
    kind: text("kind").$type<"node" | "person">().notNull(),
    ref: text("ref").notNull(),
  },
  (t) => [index("access_changes_at").on(t.at)],
);

/** Whom a change concerns. Read by cursor by every process. */
export const outbox = sqliteTable("outbox", {
  seq: integer("seq").primaryKey({ autoIncrement: true }),
  at: time("at").notNull(),
  topics: stored.json("topics", stored.texts).notNull(),
});

/** Identity providers by which people sign in to Galtry. */
export const providers = sqliteTable("providers", {
  id: id(),
  name: text("name").notNull(),
  protocol: text("protocol").$type<"oidc" | "saml">().notNull(),
  /** OpenID Connect: the issuer. SAML: the entity id. */
  issuer: text("issuer").notNull(),
  settings: stored.json("settings", stored.providerSettings).notNull(),
  /** The client secret, sealed. */
  secret: bytes("secret"),
  /** Staff can sign in with it. */
  enabled: integer("enabled", { mode: "boolean" }).notNull().default(false),
  /** Staff of its domains sign in with it and in no other way; owners keep one. */
  required: integer("required", { mode: "boolean" }).notNull().default(false),
  /** Whom Galtry does not know: refused, or added without groups. */
  joins: text("joins").$type<"invited" | "themselves">().notNull().default("invited"),
  domains: stored.json("domains", stored.providerDomains).notNull().default([]),
  lastTest: stored.json("last_test", stored.providerTest),
  /** Of SCIM: the token, and until when the one before it counts too. */
  scimHash: text("scim_hash"),
  scimBefore: text("scim_before"),
  scimBeforeUntil: time("scim_before_until"),
  /** When the client secret was entered and the token created; null where there is none, or it is not known. */
  secretAt: time("secret_at"),
  scimAt: time("scim_at"),
  createdAt: time("created_at").notNull(),
});

/** Accounts at a provider, as far as they have been seen; whose they are, once that is certain. */
export const providerAccounts = sqliteTable(
  "provider_accounts",
  {
    id: id(),
    providerId: text("provider_id")
      .notNull()
      .references(() => providers.id),
    /** As the provider calls it for good; null while it is known from SCIM alone. */
    subject: text("subject"),
    personId: text("person_id").references(() => persons.id),
    /** Has the address of this account and has not said that it is theirs. */
    claims: text("claims_person").references(() => persons.id),
    mail: text("mail").notNull().default(""),
    name: text("name").notNull().default(""),
    /** Groups there by name, as SCIM or the last sign-in said; null where neither has. */
    groups: stored.json("groups", stored.texts),
    /** SCIM: as the provider keeps it. */
    userName: text("user_name"),
    externalId: text("external_id"),
    /** What else SCIM keeps of it. */
    scimUser: stored.json("scim_user", stored.scimUser),
    /** When its deactivation there suspended the person here. */
    suspendedAt: time("suspended_at"),
    /** Lower-cased, for filters. */
    userNameLower: text("user_name_lower"),
    active: integer("active", { mode: "boolean" }).notNull().default(true),
    linkedAt: time("linked_at"),
    lastAt: time("last_at"),
    createdAt: time("created_at").notNull(),
    changedAt: time("changed_at").notNull(),
    /** Provisioned by SCIM, and listed there. */
    scim: integer("scim", { mode: "boolean" }).notNull().default(false),
  },
  (t) => [
    uniqueIndex("provider_accounts_subject").on(t.providerId, t.subject),
    uniqueIndex("provider_accounts_user_name").on(t.providerId, t.userNameLower),
    index("provider_accounts_person").on(t.personId),
    index("provider_accounts_mail").on(t.mail),
    index("provider_accounts_claims").on(t.claims).where(sql`claims_person is not null`),
    index("provider_accounts_external").on(t.providerId, t.externalId),
    index("provider_accounts_scim").on(t.providerId, t.scim, t.id),
  ],
);

/** Sign-ins under way at a provider: answered once, in the browser that began them. */
export const providerFlows = sqliteTable(
  "provider_flows",
  {
    stateHash: text("state_hash").primaryKey(),
    providerId: text("provider_id").notNull(),
    purpose: text("purpose").$type<"sign-in" | "test" | "link" | "join" | "prove">().notNull(),
    browserHash: text("browser_hash").notNull(),
    nonce: text("nonce").notNull(),
    /** PKCE verifier, sealed; for SAML the id of the request. */
    verifier: bytes("verifier").notNull(),
    next: text("next").notNull(),
    /** Who began it, where somebody was signed in; who joins, where it is by a link. */
    personId: text("person_id"),
    linkHash: text("link_hash"),
    createdAt: time("created_at").notNull(),
    expiresAt: time("expires_at").notNull(),
    usedAt: time("used_at"),
  },
  (t) => [index("provider_flows_expire").on(t.expiresAt)],
);

/** Statements of a provider that count once: assertions and logout tokens. */
export const providerStatements = sqliteTable(
  "provider_statements",
  { id: text("id").primaryKey(), expiresAt: time("expires_at").notNull() },
  (t) => [index("provider_statements_expire").on(t.expiresAt)],
);

/** Groups at a provider, and the group here whose members it decides. */
export const providerGroups = sqliteTable(
  "provider_groups",
  {
    id: id(),
    providerId: text("provider_id")
      .notNull()
      .references(() => providers.id),
    name: text("name").notNull(),
    externalId: text("external_id"),
    groupId: text("group_id").references(() => groups.id),
    /** From then on the provider decides who is in it. */
    appliedAt: time("applied_at"),
    scim: integer("scim", { mode: "boolean" }).notNull().default(false),
    createdAt: time("created_at").notNull(),
    changedAt: time("changed_at").notNull(),
  },
  (t) => [
    uniqueIndex("provider_groups_name").on(t.providerId, t.name),
    index("provider_groups_group").on(t.groupId),
    index("provider_groups_scim").on(t.providerId, t.scim, t.id),
  ],
);

/** Members of groups at a provider, as SCIM says. */
export const providerMembers = sqliteTable(
  "provider_members",
  {
    providerGroupId: text("provider_group_id")
      .notNull()
      .references(() => providerGroups.id),
    accountId: text("account_id")
      .notNull()
      .references(() => providerAccounts.id),
  },
  (t) => [primaryKey({ columns: [t.providerGroupId, t.accountId] }), index("provider_members_account").on(t.accountId)],
);

/** Messages for a person that stay until they are put away. */
export const notices = sqliteTable(
  "notices",
  {
    id: id(),
    personId: text("person_id")
      .notNull()
      .references(() => persons.id),
    at: time("at").notNull(),
    text: text("text").notNull(),
    nodeId: text("node_id"),
    putAwayAt: time("put_away_at"),
    sort: text("sort").$type<NoticeSort>().notNull().default("watch"),
    /** What waits for the reader, if anything. */
    about: text("about"),
    /** When it is to go by mail; null where it is not, or has gone. */
    mailAt: time("mail_at"),
  },
  (t) => [
    index("notices_at").on(t.at),
    index("notices_about").on(t.about).where(sql`about is not null`),
    index("notices_to_mail").on(t.mailAt).where(sql`mail_at is not null`),
    index("notices_put_away").on(t.putAwayAt).where(sql`put_away_at is not null`),
    index("notices_person").on(t.personId, t.putAwayAt),
  ],
);
