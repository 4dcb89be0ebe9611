/**
 * What columns hold as JSON: parsed when it is read, so that a row which Galtry did not write, or wrote differently long
 * ago, is met at its own place and not somewhere in a page.
 */
import { customType } from "drizzle-orm/sqlite-core";
import { z } from "zod";
import { type Change, LEVELS } from "../../core/access";
import type { Odd } from "../../core/access/rounds";
import type { Weekly } from "../../core/access/weekly";
import type { Field } from "../../core/kinds/kind";
import { ledgerViewSchema } from "../../core/ledgerView";
import { CHOSEN_SORTS, MAIL_TIMES, type MailChoices } from "../../core/people/notices";
import { FAILURES, type Failure } from "../../core/signin/outcome";
import { stepsSchema } from "../../core/signin/steps";
import { testedPageSchema } from "../../core/signin/testReport";
import type { FindingDetail } from "../../core/upkeep/findings";

/** A row holds something else than its column is for. Says where; never what. */
export class StoredWrongly extends Error {
  constructor(column: string, problem: string) {
    super(`the database holds something unexpected in ${column}: ${problem}`);
  }
}

/** A text column with JSON of one shape. */
export const json = <T>(name: string, schema: z.ZodType<T>) =>
  customType<{ data: T; driverData: string }>({
    dataType: () => "text",
    toDriver: (value) => JSON.stringify(value),
    fromDriver: (text) => {
      let held: unknown;
      try {
        held = JSON.parse(text);
      } catch {
        throw new StoredWrongly(name, "not JSON");
      }
      const read = schema.safeParse(held);
      if (read.success) return read.data;
      const [issue] = read.error.issues;
      // Zod's own message may repeat what is there.
      throw new StoredWrongly(name, `${issue?.code ?? "other"} at ${issue?.path.join(".") || "its top"}`);
    },
  })(name);

const instant = z.number().nullable();
const given = z.enum([...LEVELS, "blocked"]);
const window = { from: instant, until: instant };

export const texts = z.array(z.string());
export const marks = z.array(z.object({ field: z.string(), mark: z.string() }));
export const mailChoices: z.ZodType<MailChoices> = z.partialRecord(z.enum(CHOSEN_SORTS), z.enum(MAIL_TIMES));
export const numbers = z.array(z.number());
export const textByName = z.record(z.string(), z.string());
/** Values of a version, by field; each kind reads its own. */
export const anythingByName = z.record(z.string(), z.unknown());

export const weekly: z.ZodType<Weekly> = z.object({
  days: z.array(z.number()),
  start: z.number(),
  end: z.number(),
  zone: z.string(),
});

const subject = z.discriminatedUnion("kind", [
  z.object({ kind: z.literal("person"), id: z.string() }),
  z.object({ kind: z.literal("group"), id: z.string() }),
  z.object({ kind: z.literal("everyone") }),
]);

export const change: z.ZodType<Change> = z.discriminatedUnion("type", [
  z.object({
    type: z.literal("set"),
    nodeId: z.string(),
    subject,
    grants: z.array(z.object({ level: given, ...window, weekly: weekly.nullish() })),
  }),
  z.object({
    type: z.literal("member"),
    groupId: z.string(),
    personId: z.string(),
    held: z.object(window).nullable(),
    keeper: z.boolean().optional(),
  }),
  z.object({ type: z.literal("move"), nodeId: z.string(), parentId: z.string() }),
  z.object({
    type: z.literal("separate"),
    nodeId: z.string(),
    separate: z.boolean(),
    keeper: z.string().nullable(),
  }),
]);

/** A change of access that was drafted, and what was there when it was. */
export const slipChange = z.object({
  change,
  /** The grants of the cell as the drafter saw them; for memberships, places and marks what they were. */
  was: z.string(),
});

export const taker = z.object({ kind: z.enum(["person", "group"]), id: z.string() });

const say = z.enum(["confirmed", "lower", "end"]);

/** What a steward said to one grant of a round. */
export const roundSaid = z.object({ grantId: z.string(), say, by: z.string(), at: z.number() });

const odd: z.ZodType<Odd> = z.enum(["gone", "no-end", "unused", "ways", "passed"]);

/** A line of a round that is finished, as it was then: what an auditor reads. */
export const roundKept = z.object({
  who: z.string(),
  nodeId: z.string(),
  what: z.string(),
  level: given,
  until: instant,
  why: z.string(),
  lastUse: instant,
  odd: z.array(odd),
  say,
  by: z.string(),
  at: z.number(),
});

/** A version, and the names of the folders around it. */
export const takenRow = z.object({ versionId: z.string(), folder: texts });

/** Of a kind that the organisation made. Its values are checked when it is made; here only that it is a field. */
export const field = z.looseObject({
  id: z.string(),
  label: z.string(),
  class: z.string(),
  form: z.string(),
}) as unknown as z.ZodType<Field>;

export const extraField = z.object({
  id: z.string(),
  label: z.string(),
  class: z.enum(["open", "identifier", "secret"]),
  /** Only of the class open; the others stand in the sealed blob. */
  value: z.string().optional(),
});

export const pendingVersion = z.object({
  number: z.number(),
  vaultId: z.string(),
  keyVersion: z.number(),
  open: anythingByName,
  hasCode: z.boolean(),
  fingerprints: z.array(z.object({ field: z.string(), fingerprint: z.string(), seen: z.boolean() })),
});

export const yesSaid = z.object({ by: z.string(), at: z.number() });
export const givenInstead = z.object({ level: z.enum(LEVELS), until: instant });

export { ledgerViewSchema as ledgerView, stepsSchema as steps };

export const testedPages = z.array(testedPageSchema);

export const providerSettings = z.discriminatedUnion("protocol", [
  z.object({
    protocol: z.literal("oidc"),
    clientId: z.string(),
    secretIn: z.enum(["header", "body", "none"]),
    scopes: z.string(),
    groupsClaim: z.string(),
  }),
  z.object({
    protocol: z.literal("saml"),
    signOnUrl: z.string(),
    /** PEM bodies without their first and last lines: two while one takes the place of another. */
    certificates: z.array(z.string()),
    mailAttribute: z.string(),
    nameAttribute: z.string(),
    groupsAttribute: z.string(),
  }),
]);
export type ProviderSettings = z.output<typeof providerSettings>;

export const providerDomains = z.array(
  z.object({
    domain: z.string(),
    /** What stands in the domain's DNS record. */
    token: z.string(),
    provedAt: z.number().nullable(),
    how: z.enum(["dns", "statement"]).nullable(),
    by: z.string().nullable(),
  }),
);
export type ProviderDomain = z.output<typeof providerDomains>[number];

export const TEST_STEPS = ["discovery", "keys", "sign-in", "exchange", "token", "person"] as const;
export type TestStep = (typeof TEST_STEPS)[number];
export const providerTest = z.object({
  at: z.number(),
  by: z.string(),
  steps: z.array(z.object({ step: z.enum(TEST_STEPS), ok: z.boolean(), ms: z.number(), said: z.string() })),
  /** What came back about whoever tested, by name. */
  claims: z.record(z.string(), z.string()),
});
export type ProviderTest = z.output<typeof providerTest>;

/** The parts of a SCIM user (RFC 7643, 4.1) that are kept and given back. */
export const scimUser = z.object({
  displayName: z.string().optional(),
  name: z
    .object({
      formatted: z.string().optional(),
      givenName: z.string().optional(),
      familyName: z.string().optional(),
    })
    .optional(),
  emails: z
    .array(z.object({ value: z.string(), type: z.string().optional(), primary: z.boolean().optional() }))
    .optional(),
});
export type ScimUser = z.output<typeof scimUser>;

export const findingDetail: z.ZodType<FindingDetail> = z.object({
  times: z.number().optional(),
  guesses: z.number().optional(),
  people: texts.optional(),
  failure: z.enum(Object.keys(FAILURES) as [Failure, ...Failure[]]).optional(),
  level: z.enum(LEVELS).optional(),
  lastAt: z.number().nullable().optional(),
  until: z.number().optional(),
  months: z.number().optional(),
  count: z.number().optional(),
  most: z.number().optional(),
  field: z.string().optional(),
  date: z.number().optional(),
});
