/** What Lanyard asks about pages: which keys fit, whether a login is kept, and keeping it. */
import { and, desc, eq, inArray, isNull, ne } from "drizzle-orm";
import { z } from "zod";
import { atLeast, type Reach } from "../../core/access";
import { PASSWORD } from "../../core/kinds/kind";
import { hostOf, siteName } from "../../core/signin/address";
import { codeAt } from "../../core/signin/code";
import { matches, siteOf } from "../../core/signin/site";
import { requireReady } from "../access/accepting";
import { loadReach } from "../access/load";
import type { Person } from "../access/person";
import { byName } from "../byName";
import { personIdOf } from "../caller";
import { command, idSchema, none, query } from "../command";
import type { Reader } from "../database/client";
import { entries, fingerprints, neverKept, organisation, persons, signIns, vaults } from "../database/schema";
import { uuidv7 } from "../ids";
import { attemptKey, countAttempt, requireFewAttempts } from "../people/attempts";
import { Refused } from "../refused";
import { requireEntry, requireInUse } from "../vaults/entries";
import { vaultNameFor } from "../vaults/places";
import { fingerprint, loginOf } from "../vaults/sealing";
import { openValues } from "../vaults/vaultKeys";
import { currentVersion, noteSighting, rewrite } from "../vaults/writing";

export interface KeyLine {
  id: string;
  name: string;
  description: string;
  site: string;
  signInPage: string;
  reach: "site" | "host";
  /** Hosts its sign-in passes through, besides its own. */
  hosts: string[];
  vault: string;
  hasCode: boolean;
  guardedFill: boolean;
  /** Whether Lanyard offers it in the pages of its site. */
  offered: boolean;
  level: Reach;
  lastUsedAt: number | null;
}

/** Everything the person reaches, without a single identifier or secret. Lanyard keeps it in memory only. */
export const keyList = query({
  name: "lanyard.keys",
  input: none,
  by: ["lanyard"],
  allow: () => undefined,
  run: async ({ tx, me, at }) => {
    const person = me!;
    const personId = person.id;
    const [{ levels, tree }, rows, vaultRows, used, named, [house], never] = await Promise.all([
      loadReach(tx, person, at),
      tx
        .select()
        .from(entries)
        .where(and(isNull(entries.binnedAt), isNull(entries.asideAt), ne(entries.signInPage, ""))),
      tx.select().from(vaults),
      tx
        .select({ entryId: signIns.entryId, at: signIns.begunAt })
        .from(signIns)
        .where(and(eq(signIns.personId, personId), eq(signIns.outcome, "signed-in"), ne(signIns.how, "proved")))
        .orderBy(desc(signIns.begunAt))
        .limit(500),
      tx.select({ name: persons.name }).from(persons).where(eq(persons.id, personId)),
      tx.select().from(organisation),
      tx.select({ site: neverKept.site }).from(neverKept).where(eq(neverKept.personId, personId)),
    ]);
    const vaultNames = new Map(
      vaultRows.map((row) => [row.nodeId, vaultNameFor(person, levels.get(row.nodeId), row.name)]),
    );
    const keys = rows
      .filter((row) => atLeast(levels.get(row.nodeId) ?? "none", "use"))
      .map(
        (row): KeyLine => ({
          id: row.nodeId,
          name: row.name,
          description: row.description,
          site: siteName(row.signInPage),
          signInPage: row.signInPage,
          reach: row.reach,
          hosts: row.steps.hosts,
          vault: vaultNames.get(tree.get(row.nodeId)!.vaultId) ?? "",
          hasCode: row.hasCode,
          guardedFill: row.guardedFill && row.filling !== "never",
          offered: row.filling !== "never",
          level: levels.get(row.nodeId)!,
          lastUsedAt: used.find((one) => one.entryId === row.nodeId)?.at ?? null,
        }),
      )
      .sort(byName);
    const mayAdd = vaultRows
      .filter((row) => atLeast(levels.get(row.nodeId) ?? "none", "edit"))
      .map((row) => ({ id: row.nodeId, name: row.name }));
    return {
      person: named[0]?.name ?? "",
      organisation: house?.name ?? "",
      keys,
      mayAdd,
      neverOn: never.map((row) => row.site),
    };
  },
});

/** Tries of one person a quarter of an hour; more than anybody signs in by hand. */
const MOST_COMPARISONS = 30;

/**
 * Whether a login that the site has just accepted is kept. With entries of Use only site and visible user name
 * count, whatever password was typed; a password is compared only with entries the person may Reveal.
 */
export const compareLogin = command({
  name: "lanyard.compare",
  input: z.strictObject({ page: z.url().max(2000), userName: z.string().max(500), password: z.string().max(1000) }),
  by: ["lanyard"],
  allow: async ({ tx, caller, at, house }) => {
    const key = attemptKey(house.keys, "compare", personIdOf(caller)!);
    await requireFewAttempts(tx, key, MOST_COMPARISONS, at);
    return { key };
  },
  run: async ({ tx, input, me, at, house, allowed }) => {
    await countAttempt(tx, allowed.key, at);
    const reached = await entriesFor(tx, me!, input.page, at);
    const nameMark = fingerprint(house.keys, "userName", input.userName);
    const passwordMark = fingerprint(house.keys, "password", input.password);
    const marks = await marksOf(
      tx,
      reached.map(({ entry }) => entry.versionId),
    );
    // What requires more than Reveal is compared with nothing.
    const readable = reached.filter(
      ({ entry, level }) => atLeast(level, "reveal") && entry.asksFirst === 0 && !entry.askAgain,
    );
    const same = readable.filter(
      ({ entry }) => input.userName === "" || marks.get(`${entry.versionId} userName`) === nameMark,
    );
    if (same.some(({ entry }) => marks.get(`${entry.versionId} password`) === passwordMark))
      return { answer: "kept" as const };
    const editable = same.filter(({ level }) => atLeast(level, "edit"));
    if (editable.length > 0)
      return {
        answer: "changed" as const,
        entries: editable.map(({ entry }) => ({ id: entry.nodeId, name: entry.name, versionId: entry.versionId })),
      };
    // At Use: a user name that one may see, or any at this site, counts as kept.
    const usable = reached.filter((one) => !readable.includes(one));
    const sameVisible = usable.some(
      ({ entry, level }) =>
        !(entry.useSeesUserName || atLeast(level, "reveal")) || marks.get(`${entry.versionId} userName`) === nameMark,
    );
    return { answer: sameVisible || same.length > 0 ? ("kept" as const) : ("new" as const) };
  },
  journal: () => null,
  tell: () => [],
});

async function entriesFor(tx: Reader, person: Person, page: string, at: number) {
  const host = hostOf(page);
  if (host === null) return [];
  const rows = (
    await tx
      .select()
      .from(entries)
      .where(and(eq(entries.site, siteOf(host)), isNull(entries.binnedAt), isNull(entries.asideAt)))
  ).filter((row) => matches(row, page));
  if (rows.length === 0) return [];
  const { levels } = await loadReach(tx, person, at);
  return rows
    .map((entry) => ({ entry, level: levels.get(entry.nodeId) ?? ("none" as const) }))
    .filter(({ level }) => level !== "none");
}

async function marksOf(tx: Reader, versionIds: string[]): Promise<Map<string, string>> {
  if (versionIds.length === 0) return new Map();
  const rows = await tx.select().from(fingerprints).where(inArray(fingerprints.versionId, versionIds));
  return new Map(rows.map((row) => [`${row.versionId} ${row.field}`, row.fingerprint]));
}

/** Only the password of a kept entry, as Lanyard saw it accepted. */
export const updatePassword = command({
  name: "lanyard.updatePassword",
  input: z.strictObject({ entryId: idSchema, versionId: idSchema, password: z.string().min(1).max(1000) }),
  by: ["lanyard"],
  allow: (context) => requireEntry(context, context.input.entryId, "edit"),
  run: async (context) => {
    const { tx, input, allowed } = context;
    const current = await currentVersion(tx, allowed.entry);
    if (current.id !== input.versionId)
      throw new Refused("conflict", "Somebody changed this entry meanwhile. Sign in once more to keep the password.");
    const { versionId } = await rewrite(context, {
      entry: allowed.entry,
      held: allowed,
      how: "captured",
      change: (values) => ({ ...values, fields: { ...values.fields, [PASSWORD]: input.password } }),
    });
    return { versionId };
  },
  journal: ({ input, allowed }) => ({
    node: input.entryId,
    vault: allowed.vaultId,
    details: { changed: "password", captured: true },
    names: { [input.entryId]: allowed.entry.name },
  }),
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`],
});

export const neverKeep = command({
  name: "lanyard.neverKeep",
  input: z.strictObject({ page: z.url().max(2000) }),
  by: ["lanyard"],
  allow: () => undefined,
  run: async ({ tx, input, caller, at }) => {
    await tx
      .insert(neverKept)
      .values({ personId: personIdOf(caller)!, site: siteOf(hostOf(input.page) ?? ""), at })
      .onConflictDoNothing();
  },
  journal: () => null,
  tell: () => [],
});

/**
 * Guarded fill: user name, password and current code for one page of the entry, sent to this browser at this
 * moment. The person counts among those who have seen it.
 */
export const guardedFill = command({
  name: "lanyard.guardedFill",
  input: z.strictObject({ entryId: idSchema, page: z.url().max(2000) }),
  by: ["lanyard"],
  allow: async (context) => {
    const { input } = context;
    const allowed = await requireEntry(context, input.entryId, "use");
    requireInUse(allowed.entry);
    await requireReady(context, allowed.entry, allowed.vaultId, allowed.level);
    if (!allowed.entry.guardedFill || allowed.entry.filling === "never")
      throw new Refused("not-allowed", "Guarded fill is off for this entry. Its steward can switch it on.");
    const page = new URL(input.page);
    if (hostOf(input.page) !== allowed.entry.host)
      throw new Refused("not-allowed", `Guarded fill types only at ${allowed.entry.host}.`);
    return { ...allowed, page };
  },
  run: async ({ tx, input, caller, at, house, allowed }) => {
    const listed = house.configuration.allowedTargets.has(allowed.page.host);
    if (allowed.page.protocol !== "https:" && !listed && !allowed.entry.plainHttp)
      throw new Refused("not-allowed", "This page is not encrypted: Lanyard does not type a password here.");
    const version = await currentVersion(tx, allowed.entry);
    if (version.refusedAt !== null)
      throw new Refused("not-allowed", "The site refused the password that is kept. It has to be put right first.");
    const login = loginOf(await openValues(tx, house.keys, version));
    const personId = personIdOf(caller)!;
    await noteSighting(tx, {
      entryId: input.entryId,
      field: PASSWORD,
      mark: fingerprint(house.keys, PASSWORD, login.password),
      personId,
      at,
      how: "guarded fill",
    });
    const signInId = uuidv7();
    await tx.insert(signIns).values({
      id: signInId,
      entryId: input.entryId,
      versionId: version.id,
      personId,
      lanyardId: (caller as { lanyardId: string }).lanyardId,
      how: "guarded",
      queueKey: "",
      process: house.process,
      begunAt: at,
      endedAt: at,
      outcome: "signed-in",
      detail: "",
    });
    return {
      send: allowed.entry.filling === "send",
      userName: login.userName,
      password: login.password,
      code: login.code ? codeAt(login.code, at).code : null,
      hosts: [allowed.entry.host, ...allowed.entry.steps.hosts],
    };
  },
  journal: ({ input, allowed }) => ({
    node: input.entryId,
    vault: allowed.vaultId,
    details: { how: "guarded fill" },
    names: { [input.entryId]: allowed.entry.name },
  }),
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`],
});
