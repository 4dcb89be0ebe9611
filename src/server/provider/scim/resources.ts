/** SCIM resources (RFC 7643): what a provider sends, and what it is given back. */
import { createHash } from "node:crypto";
import { z } from "zod";
import type { providerAccounts, providerGroups } from "../../database/schema";
import { type ScimUser, scimUser } from "../../database/stored";
import { ScimError } from "./errors";

export const USER = "urn:ietf:params:scim:schemas:core:2.0:User";
export const GROUP = "urn:ietf:params:scim:schemas:core:2.0:Group";
export const LIST = "urn:ietf:params:scim:api:messages:2.0:ListResponse";
export const PATCH = "urn:ietf:params:scim:api:messages:2.0:PatchOp";
export const SEARCH = "urn:ietf:params:scim:api:messages:2.0:SearchRequest";

export type AccountRow = typeof providerAccounts.$inferSelect;
export type GroupRow = typeof providerGroups.$inferSelect;
export type Resource = Record<string, unknown> & { id: string; meta: { version: string; [name: string]: unknown } };

/** Some send booleans as text. */
const bool = z.preprocess(
  (value) => (typeof value === "string" && /^(true|false)$/i.test(value) ? /^true$/i.test(value) : value),
  z.boolean(),
);
const text = (most: number) => z.string().trim().max(most);

/** What is taken of a user; the rest is left out, as the standard lets a server do. */
const userSchema = z.object({
  userName: text(300).min(1),
  externalId: text(300).nullish(),
  active: bool.default(true),
  displayName: text(300).nullish(),
  name: z
    .object({ formatted: text(300).nullish(), givenName: text(200).nullish(), familyName: text(200).nullish() })
    .nullish(),
  emails: z
    .array(z.object({ value: text(320), type: text(40).nullish(), primary: bool.nullish() }))
    .max(20)
    .nullish(),
});

export interface SentUser {
  userName: string;
  externalId: string | null;
  active: boolean;
  name: string;
  mail: string;
  kept: ScimUser;
}

const withoutNulls = <T>(value: T): T =>
  JSON.parse(JSON.stringify(value, (_key, one) => (one === null ? undefined : one)));

/** @throws ScimError invalidValue */
export function readUser(body: unknown): SentUser {
  const read = userSchema.safeParse(body);
  if (!read.success) {
    const [issue] = read.error.issues;
    throw new ScimError(400, `${issue?.path.join(".") || "the user"}: ${issue?.message}`, "invalidValue");
  }
  const { userName, externalId, active, displayName, name, emails } = read.data;
  const primary = emails?.find((one) => one.primary) ?? emails?.[0];
  const called =
    displayName || name?.formatted || [name?.givenName, name?.familyName].filter(Boolean).join(" ") || userName;
  return {
    ...{ userName, externalId: externalId ?? null, active, name: called },
    // A user name that is an address is one: most providers send no other.
    mail: (primary?.value || (userName.includes("@") ? userName : "")).toLowerCase(),
    kept: scimUser.parse(withoutNulls({ displayName, name, emails })),
  };
}

const groupSchema = z.object({
  displayName: text(200).min(1),
  externalId: text(300).nullish(),
  members: z
    .array(z.object({ value: z.string().max(60) }))
    .max(100_000)
    .nullish(),
});

export interface SentGroup {
  name: string;
  externalId: string | null;
  /** Ids of users; null where it says nothing of them. */
  members: string[] | null;
}

/** @throws ScimError invalidValue */
export function readGroup(body: unknown): SentGroup {
  const read = groupSchema.safeParse(body);
  if (!read.success) {
    const [issue] = read.error.issues;
    throw new ScimError(400, `${issue?.path.join(".") || "the group"}: ${issue?.message}`, "invalidValue");
  }
  const { displayName, externalId, members } = read.data;
  return {
    name: displayName,
    externalId: externalId ?? null,
    members: members ? [...new Set(members.map(({ value }) => value))] : null,
  };
}

/** With its weak version (RFC 7232), by which a change is refused that does not know of the last one. */
function versioned(
  resource: Record<string, unknown> & { id: string },
  type: "User" | "Group",
  base: string,
  row: { createdAt: number; changedAt: number },
): Resource {
  const digest = createHash("sha256").update(JSON.stringify(resource)).digest("base64url").slice(0, 22);
  return {
    ...resource,
    meta: {
      resourceType: type,
      created: new Date(row.createdAt).toISOString(),
      lastModified: new Date(row.changedAt).toISOString(),
      location: `${base}/${type}s/${resource.id}`,
      version: `W/"${digest}"`,
    },
  };
}

export const userResource = (
  row: AccountRow,
  base: string,
  groups: { value: string; display: string }[] = [],
): Resource =>
  versioned(
    {
      schemas: [USER],
      id: row.id,
      ...(row.externalId !== null && { externalId: row.externalId }),
      userName: row.userName ?? "",
      active: row.active,
      ...row.scimUser,
      ...(groups.length > 0 && { groups }),
    },
    "User",
    base,
    row,
  );

export const groupResource = (
  row: GroupRow,
  base: string,
  members: { value: string; display: string }[] | null,
): Resource =>
  versioned(
    {
      schemas: [GROUP],
      id: row.id,
      ...(row.externalId !== null && { externalId: row.externalId }),
      displayName: row.name,
      ...(members !== null && {
        members: members.map((one) => ({ ...one, type: "User", $ref: `${base}/Users/${one.value}` })),
      }),
    },
    "Group",
    base,
    row,
  );
