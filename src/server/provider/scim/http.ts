/** SCIM 2.0 over HTTP (RFC 7644): users and groups, filters, PATCH, pages, versions. Bulk is refused, as announced. */
import { and, asc, count, eq, gt, or, type SQL } from "drizzle-orm";
import { type ScimPatchOperation, type ScimResource, scimPatch } from "scim-patch";
import { type Filter, filter as matcherOf, parse } from "scim2-parse-filter";
import { z } from "zod";
import { inJson } from "../../database/bulk";
import { providerAccounts, providerGroups, providerMembers, providers } from "../../database/schema";
import type { Galtry } from "../../galtry";
import { galtry } from "../../galtry";
import { readJson } from "../../http";
import { unexpected } from "../../log";
import { tokenHash } from "../../people/tokens";
import { Refused } from "../../refused";
import { dropGroup, dropUser, keepGroup, keepUser } from "./acts";
import { MOST_RESULTS, resourceTypes, schemas, serviceProviderConfig } from "./describing";
import { ScimError } from "./errors";
import {
  type AccountRow,
  type GroupRow,
  groupResource,
  LIST,
  PATCH,
  type Resource,
  readGroup,
  readUser,
  userResource,
} from "./resources";

const SERVER = { kind: "server" } as const;
/** A filter that no index answers is asked of this many at most. */
const MOST_LOOKED_AT = 20_000;
const MOST_FILTER = 1000;
const MOST_OPERATIONS = 1000;

interface Asked {
  app: Galtry;
  providerId: string;
  base: string;
  request: Request;
  query: URLSearchParams;
}

/** Whose token it is: the one in use, or, for a day, the one before it. @throws ScimError 401 */
async function providerOf(app: Galtry, request: Request): Promise<string> {
  const token = /^Bearer\s+(\S{20,200})$/i.exec(request.headers.get("authorization") ?? "")?.[1];
  if (token) {
    const hash = tokenHash(token);
    const [found] = await app.db
      .select({ id: providers.id })
      .from(providers)
      .where(
        or(
          eq(providers.scimHash, hash),
          and(eq(providers.scimBefore, hash), gt(providers.scimBeforeUntil, Date.now())),
        ),
      );
    if (found) return found.id;
  }
  throw new ScimError(401, "This token is not known or has ended.");
}

const answer = (body: unknown, status = 200, headers: Record<string, string> = {}): Response =>
  new Response(body === null ? null : JSON.stringify(body), {
    status,
    headers: { "content-type": "application/scim+json; charset=utf-8", "cache-control": "no-store", ...headers },
  });

const withVersion = (resource: Resource, status = 200): Response =>
  answer(resource, status, {
    etag: resource.meta.version,
    ...(status === 201 && { location: String(resource.meta.location) }),
  });

/** @param path after /scim/v2; @param running another Galtry than that of this process */
export async function scimAt(request: Request, path: string[], running?: Galtry): Promise<Response> {
  try {
    const app = running ?? (await galtry());
    const providerId = await providerOf(app, request);
    const base = new URL("/scim/v2", app.configuration.publicUrl).href;
    const asked: Asked = { app, providerId, base, request, query: new URL(request.url).searchParams };
    return await routed(asked, path);
  } catch (error) {
    const said = asScimError(error, request);
    return answer(said.body(), said.status, said.status === 401 ? { "www-authenticate": "Bearer" } : {});
  }
}

function asScimError(error: unknown, request: Request): ScimError {
  if (error instanceof ScimError) return error;
  if (error instanceof Refused) {
    if (error.code === "conflict") return new ScimError(409, error.message, "uniqueness");
    if (error.code === "not-found") return new ScimError(404, "This resource does not exist.");
    return new ScimError(400, error.message, "invalidValue");
  }
  return new ScimError(500, `Something went wrong. Reference: ${unexpected(new URL(request.url).pathname, error)}`);
}

async function routed(asked: Asked, [kind = "", id, ...more]: string[]): Promise<Response> {
  const { request, base } = asked;
  const { method } = request;
  if (more.length > 0) throw new ScimError(404, "There is nothing at this address.");
  if (kind === "ServiceProviderConfig" && method === "GET" && id === undefined)
    return answer(serviceProviderConfig(base));
  if (kind === "Schemas" && method === "GET") return described(schemas(base), id);
  if (kind === "ResourceTypes" && method === "GET") return described(resourceTypes(base), id);
  if (kind === "Bulk") throw new ScimError(501, "Bulk is not supported; see ServiceProviderConfig.");
  if (kind === "Me") throw new ScimError(501, "There is no person behind a token.");
  const handlers = kind === "Users" ? USERS : kind === "Groups" ? GROUPS : null;
  if (!handlers) throw new ScimError(404, "There is nothing at this address.");
  if (id === ".search" && method === "POST") return searched(asked, handlers);
  if (id === undefined) {
    if (method === "GET") return listed(asked, handlers, asked.query);
    if (method === "POST") return withVersion(await handlers.keep(asked, null, await readJson(request)), 201);
    throw new ScimError(405, "This method is not for a list.");
  }
  const before = await handlers.find(asked, id);
  if (!before) throw new ScimError(404, "This resource does not exist.");
  if (method === "GET") {
    if (matches(request.headers.get("if-none-match"), before.meta.version))
      return answer(null, 304, { etag: before.meta.version });
    return withVersion(only(before, asked.query));
  }
  const wanted = request.headers.get("if-match");
  if (wanted !== null && !matches(wanted, before.meta.version))
    throw new ScimError(412, "It has changed since; read it again.");
  if (method === "PUT") return withVersion(await handlers.keep(asked, id, await readJson(request)));
  if (method === "PATCH") return withVersion(await handlers.keep(asked, id, patched(before, await readJson(request))));
  if (method === "DELETE") {
    await handlers.drop(asked, id);
    return answer(null, 204);
  }
  throw new ScimError(405, "This method is not for a resource.");
}

const matches = (header: string | null, version: string): boolean =>
  header !== null &&
  (header.trim() === "*" ||
    header.split(",").some((one) => one.trim().replace(/^W\//, "") === version.replace(/^W\//, "")));

function described(all: { id: string }[], id: string | undefined): Response {
  if (id === undefined)
    return answer({
      schemas: [LIST],
      totalResults: all.length,
      itemsPerPage: all.length,
      startIndex: 1,
      Resources: all,
    });
  const found = all.find((one) => one.id === id);
  if (!found) throw new ScimError(404, "This resource does not exist.");
  return answer(found);
}

/** As far as the client wants it (RFC 7644, 3.9): id and schemas always. */
function only<R extends Record<string, unknown>>(resource: R, query: URLSearchParams): R {
  const names = (name: string) =>
    (query.get(name) ?? "")
      .split(",")
      .map((one) => one.trim().split(/[.:]/).at(0)?.toLowerCase() ?? "")
      .filter(Boolean);
  const [wanted, unwanted] = [names("attributes"), names("excludedAttributes")];
  if (wanted.length === 0 && unwanted.length === 0) return resource;
  const always = ["id", "schemas", "meta"];
  return Object.fromEntries(
    Object.entries(resource).filter(([name]) =>
      always.includes(name)
        ? true
        : wanted.length > 0
          ? wanted.includes(name.toLowerCase())
          : !unwanted.includes(name.toLowerCase()),
    ),
  ) as R;
}

const patchSchema = z.object({
  schemas: z.array(z.string()).optional(),
  Operations: z
    .array(z.object({ op: z.string(), path: z.string().max(500).optional(), value: z.unknown().optional() }))
    .min(1)
    .max(MOST_OPERATIONS),
});

/** What a PATCH makes of a resource. @throws ScimError */
function patched(before: Resource, body: unknown): unknown {
  const read = patchSchema.safeParse(body);
  if (!read.success || (read.data.schemas && !read.data.schemas.includes(PATCH)))
    throw new ScimError(400, "This is not a PATCH operation.", "invalidSyntax");
  const operations = read.data.Operations.flatMap(({ op, path, value }) => {
    const name = op.toLowerCase();
    if (reachesPrototype(path ?? "") || namesPrototype(value))
      throw new ScimError(400, "This attribute does not exist.", "invalidPath");
    if (!["add", "replace", "remove"].includes(name))
      throw new ScimError(400, `There is no operation “${op}”.`, "invalidSyntax");
    if (path !== undefined && /^(id|meta|schemas)\b/i.test(path))
      throw new ScimError(400, `${path} cannot be changed.`, "mutability");
    const gone = name === "remove" && path?.toLowerCase() === "members" ? namedIn(value) : null;
    if (gone) return gone.map((id) => ({ op: "remove", path: `members[value eq "${id}"]` }) as ScimPatchOperation);
    return [
      {
        op: name,
        ...(path !== undefined && { path: plainPath(path) }),
        ...(value !== undefined && { value }),
      } as ScimPatchOperation,
    ];
  });
  try {
    // It changes what it is given.
    const { groups: _, ...copy } = structuredClone(before);
    return scimPatch(copy as unknown as ScimResource, operations, { mutateDocument: true });
  } catch (error) {
    const { name, message } = error as Error;
    if (name === "NoTarget") throw new ScimError(400, message, "noTarget");
    throw new ScimError(400, message, /path/i.test(message) ? "invalidPath" : "invalidValue");
  }
}

/** Members that some name as a value, in place of a filter: known by their id alone. Null for all of them. */
function namedIn(value: unknown): string[] | null {
  const read = z
    .array(z.object({ value: z.string().regex(/^[\w-]{1,60}$/) }))
    .min(1)
    .safeParse(value);
  return read.success ? read.data.map((one) => one.value) : null;
}

const PROTOTYPE = ["__proto__", "constructor", "prototype"];

/** Whether a path would walk into what every object of this process shares. */
const reachesPrototype = (path: string): boolean => PROTOTYPE.some((name) => path.toLowerCase().includes(name));

function namesPrototype(value: unknown, depth = 0): boolean {
  if (typeof value !== "object" || value === null) return false;
  if (depth > 20) return true;
  return Object.entries(value).some(([name, one]) => reachesPrototype(name) || namesPrototype(one, depth + 1));
}

/** With the schema in front of an attribute it is the same attribute. */
const plainPath = (path: string): string => path.replace(/^urn:ietf:params:scim:schemas:core:2\.0:(User|Group):/i, "");

interface Handlers {
  find: (asked: Asked, id: string) => Promise<Resource | null>;
  keep: (asked: Asked, id: string | null, body: unknown) => Promise<Resource>;
  drop: (asked: Asked, id: string) => Promise<void>;
  /** By what an index answers; null where every one is looked at. */
  indexed: (compare: { attribute: string; value: string }) => SQL | null;
  page: (asked: Asked, where: SQL | undefined, from: number, most: number) => Promise<Resource[]>;
  count: (asked: Asked, where: SQL | undefined) => Promise<number>;
}

async function searched(asked: Asked, handlers: Handlers): Promise<Response> {
  const body = z
    .object({
      filter: z.string().optional(),
      startIndex: z.number().int().optional(),
      count: z.number().int().optional(),
      attributes: z.array(z.string()).optional(),
      excludedAttributes: z.array(z.string()).optional(),
    })
    .safeParse(await readJson(asked.request));
  if (!body.success) throw new ScimError(400, "This is not a search.", "invalidSyntax");
  const query = new URLSearchParams();
  for (const [name, value] of Object.entries(body.data)) if (value !== undefined) query.set(name, String(value));
  return listed(asked, handlers, query);
}

function filterOf(query: URLSearchParams): Filter | null {
  const text = query.get("filter");
  if (text === null || text.trim() === "") return null;
  if (text.length > MOST_FILTER) throw new ScimError(400, "The filter is too long.", "invalidFilter");
  try {
    return parse(text);
  } catch (error) {
    throw new ScimError(400, `The filter cannot be read: ${(error as Error).message}`.slice(0, 300), "invalidFilter");
  }
}

const whole = (text: string | null, usual: number): number => {
  const number = Number.parseInt(text ?? "", 10);
  return Number.isNaN(number) ? usual : number;
};

async function listed(asked: Asked, handlers: Handlers, query: URLSearchParams): Promise<Response> {
  const startIndex = Math.max(1, whole(query.get("startIndex"), 1));
  const most = Math.min(MOST_RESULTS, Math.max(0, whole(query.get("count"), MOST_RESULTS)));
  const filter = filterOf(query);
  const simple =
    filter?.op === "eq" && "compValue" in filter && typeof filter.compValue === "string"
      ? handlers.indexed({ attribute: plainPath(filter.attrPath).toLowerCase(), value: filter.compValue })
      : null;
  let found: Resource[];
  let total: number;
  if (filter && !simple) {
    if ((await handlers.count(asked, undefined)) > MOST_LOOKED_AT)
      throw new ScimError(
        400,
        "Too many would have to be looked at: use userName, externalId or displayName.",
        "tooMany",
      );
    const matched = (await handlers.page(asked, undefined, 0, MOST_LOOKED_AT)).filter(safely(matcherOf(filter)));
    total = matched.length;
    found = matched.slice(startIndex - 1, startIndex - 1 + most);
  } else {
    const where = simple ?? undefined;
    total = await handlers.count(asked, where);
    found = most === 0 ? [] : await handlers.page(asked, where, startIndex - 1, most);
  }
  return answer({
    schemas: [LIST],
    totalResults: total,
    startIndex,
    itemsPerPage: found.length,
    Resources: found.map((one) => only(one, query)),
  });
}

/** A comparison that makes no sense for a value is no match. */
const safely = (matcher: (resource: Resource) => boolean) => (resource: Resource) => {
  try {
    return matcher(resource);
  } catch {
    return false;
  }
};

const members = async ({ app }: Asked, groupId: string) => {
  const rows = await app.db
    .select({ value: providerAccounts.id, display: providerAccounts.name })
    .from(providerMembers)
    .innerJoin(providerAccounts, eq(providerAccounts.id, providerMembers.accountId))
    .where(eq(providerMembers.providerGroupId, groupId));
  return rows;
};

const groupsOf = async ({ app }: Asked, accountIds: string[]) => {
  const rows = await app.db
    .select({ accountId: providerMembers.accountId, value: providerGroups.id, display: providerGroups.name })
    .from(providerMembers)
    .innerJoin(providerGroups, eq(providerGroups.id, providerMembers.providerGroupId))
    .where(inJson(providerMembers.accountId, accountIds));
  const by = new Map<string, { value: string; display: string }[]>();
  for (const { accountId, ...group } of rows) by.set(accountId, [...(by.get(accountId) ?? []), group]);
  return by;
};

const ofUser = ({ providerId }: Asked, where?: SQL) =>
  and(eq(providerAccounts.providerId, providerId), eq(providerAccounts.scim, true), where);
const ofGroup = ({ providerId }: Asked, where?: SQL) =>
  and(eq(providerGroups.providerId, providerId), eq(providerGroups.scim, true), where);

async function asUsers(asked: Asked, rows: AccountRow[]): Promise<Resource[]> {
  const groups = await groupsOf(
    asked,
    rows.map(({ id }) => id),
  );
  return rows.map((row) => userResource(row, asked.base, groups.get(row.id)));
}

const USERS: Handlers = {
  find: async (asked, id) => {
    const rows = await asked.app.db
      .select()
      .from(providerAccounts)
      .where(ofUser(asked, eq(providerAccounts.id, id)));
    return (await asUsers(asked, rows))[0] ?? null;
  },
  keep: async (asked, accountId, body) => {
    const user = readUser(body);
    const { providerId, app } = asked;
    const { account } = await keepUser.execute(app, { providerId, accountId, user }, SERVER);
    return (await asUsers(asked, [account]))[0]!;
  },
  drop: async ({ app, providerId }, accountId) => {
    await dropUser.execute(app, { providerId, accountId }, SERVER);
  },
  indexed: ({ attribute, value }) =>
    attribute === "username"
      ? eq(providerAccounts.userNameLower, value.toLowerCase())
      : attribute === "externalid"
        ? eq(providerAccounts.externalId, value)
        : attribute === "id"
          ? eq(providerAccounts.id, value)
          : null,
  page: async (asked, where, from, most) =>
    asUsers(
      asked,
      await asked.app.db
        .select()
        .from(providerAccounts)
        .where(ofUser(asked, where))
        .orderBy(asc(providerAccounts.id))
        .limit(most)
        .offset(from),
    ),
  count: async (asked, where) =>
    (await asked.app.db.select({ n: count() }).from(providerAccounts).where(ofUser(asked, where)))[0]?.n ?? 0,
};

async function asGroups(asked: Asked, rows: GroupRow[]): Promise<Resource[]> {
  const excluded = /(^|,)\s*members\b/i.test(asked.query.get("excludedAttributes") ?? "");
  const made: Resource[] = [];
  for (const row of rows) made.push(groupResource(row, asked.base, excluded ? null : await members(asked, row.id)));
  return made;
}

const GROUPS: Handlers = {
  find: async (asked, id) => {
    const rows = await asked.app.db
      .select()
      .from(providerGroups)
      .where(ofGroup(asked, eq(providerGroups.id, id)));
    return (await asGroups(asked, rows))[0] ?? null;
  },
  keep: async (asked, groupId, body) => {
    const group = readGroup(body);
    const { providerId, app } = asked;
    // Said anew without a word of its members it has none (RFC 7644, 3.5.1).
    const said = groupId === null || group.members !== null ? group : { ...group, members: [] };
    const { row } = await keepGroup.execute(app, { providerId, groupId, group: said }, SERVER);
    return (await asGroups(asked, [row]))[0]!;
  },
  drop: async ({ app, providerId }, groupId) => {
    await dropGroup.execute(app, { providerId, groupId }, SERVER);
  },
  indexed: ({ attribute, value }) =>
    attribute === "displayname"
      ? eq(providerGroups.name, value)
      : attribute === "externalid"
        ? eq(providerGroups.externalId, value)
        : attribute === "id"
          ? eq(providerGroups.id, value)
          : null,
  page: async (asked, where, from, most) =>
    asGroups(
      asked,
      await asked.app.db
        .select()
        .from(providerGroups)
        .where(ofGroup(asked, where))
        .orderBy(asc(providerGroups.id))
        .limit(most)
        .offset(from),
    ),
  count: async (asked, where) =>
    (await asked.app.db.select({ n: count() }).from(providerGroups).where(ofGroup(asked, where)))[0]?.n ?? 0,
};
