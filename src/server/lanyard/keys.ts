/** What Lanyard asks about pages: which keys fit, whether a login is kept, and keeping it. */

import { and, desc, eq, isNull, ne, sql } from "drizzle-orm";
import { z } from "zod";
import { atLeast, type Reach } from "../../core/access";
import { toBase64 } from "../../core/crypto";
import { PASSWORD } from "../../core/kinds/kind";
import { hostOf, plainPage, siteName } from "../../core/signin/address";
import { codeAt } from "../../core/signin/code";
import { siteOf } from "../../core/signin/site";
import { reachOf } from "../access/load";
import { requireSecretGates } from "../access/requests/accepting";
import { byName } from "../byName";
import { type Caller, personIdOf } from "../caller";
import { command, idSchema, none, query } from "../command";
import { inJson } from "../database/bulk";
import { entries, entryVersions, neverKept, notices, signIns } from "../database/schema";
import { uuidv7 } from "../ids";
import { findHome } from "../organisation";
import { attemptKey, countAttempt, requireFewAttempts } from "../people/attempts";
import { Refused } from "../refused";
import { codesAskedOf } from "../signin/askedCodes";
import { belongs } from "../signin/changePassword";
import { currentMarks } from "../vaults/currentMarks";
import { requireEntries, requireEntry, requireInUse } from "../vaults/entries";
import { placesToAdd, vaultNames } from "../vaults/places";
import { fingerprint, loginOf } from "../vaults/sealing";
import { openValues } from "../vaults/vaultKeys";
import { currentVersion, noteSighting, rewrite } from "../vaults/writing";
import { lanyardRules } from "./allowed";
import { keys as t } from "./strings";
import { markKeyFor, userMarks } from "./userMarks";

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
  /** Keyed mark of its user name (`core/signin/keptAlready`); null where the person may not know it. */
  userMark: string | null;
  /** What was typed may be compared with its password: the person may Reveal it, and nothing more is required. */
  comparable: boolean;
  /** What a changed password would follow, for who may edit it; null for others. */
  versionId: string | null;
  /** Where its password is changed at the site, for who may change it; null where that is not known. */
  changePage: string | null;
}

/**
 * Everything the person reaches, without a single identifier or secret. Lanyard keeps it in memory only, and tells by it
 * whether what somebody has typed is kept already.
 */
export const keyList = query({
  name: "lanyard.keyList",
  input: none,
  by: ["lanyard"],
  evenFor: ["no-lanyard"],
  allow: () => undefined,
  run: async ({ tx, me, at, app: galtry, caller }) => {
    const person = me;
    const { lanyardId } = caller as Extract<Caller, { kind: "lanyard" }>;
    const personId = person.id;
    const rules = await lanyardRules(tx, person);
    const { levels, node } = reachOf(tx, person, at);
    // Where the house rules let them use none, there is nothing: what was handed over goes with it.
    const reached = rules.use ? [...levels.keys()] : [];
    const vaultsAt = reached.map((id) => node(id)!.vaultId);
    const [usable, vaultName, used, home, never, [told]] = await Promise.all([
      tx
        .select()
        .from(entries)
        .where(
          and(
            inJson(
              entries.nodeId,
              reached.filter((id) => node(id)!.type === "entry"),
            ),
            isNull(entries.binnedAt),
            isNull(entries.asideAt),
            ne(entries.signInPage, ""),
          ),
        ),
      vaultNames(tx, person, vaultsAt, at),
      tx
        .select({ entryId: signIns.entryId, at: signIns.begunAt })
        .from(signIns)
        .where(and(eq(signIns.personId, personId), eq(signIns.outcome, "signed-in"), ne(signIns.how, "tested")))
        .orderBy(desc(signIns.begunAt))
        .limit(500),
      findHome(tx),
      tx.select({ site: neverKept.site }).from(neverKept).where(eq(neverKept.personId, personId)),
      tx
        .select({ count: sql<number>`count(*)` })
        .from(notices)
        .where(and(eq(notices.personId, personId), isNull(notices.putAwayAt))),
    ]);
    const lastUse = new Map<string, number>();
    for (const one of used) if (!lastUse.has(one.entryId)) lastUse.set(one.entryId, one.at);
    const mayKnow = (row: (typeof usable)[number]) =>
      row.useSeesUserName || atLeast(levels.get(row.nodeId) ?? "none", "reveal");
    const versions = await tx
      .select()
      .from(entryVersions)
      .where(
        inJson(
          entryVersions.id,
          usable.filter(mayKnow).map((row) => row.versionId),
        ),
      );
    const marks = await userMarks(tx, galtry, lanyardId, versions);
    const keys = usable
      .map(
        (row): KeyLine => ({
          id: row.nodeId,
          name: row.name,
          description: row.description,
          site: siteName(row.signInPage),
          signInPage: row.signInPage,
          reach: row.reach,
          hosts: row.steps.hosts,
          vault: vaultName(node(row.nodeId)!.vaultId),
          hasCode: row.hasCode,
          guardedFill: row.guardedFill && row.filling !== "never",
          offered: row.filling !== "never",
          level: levels.get(row.nodeId)!,
          lastUsedAt: lastUse.get(row.nodeId) ?? null,
          userMark: mayKnow(row) ? (marks.get(row.versionId) ?? null) : null,
          versionId: atLeast(levels.get(row.nodeId)!, "edit") && row.asksFirst === 0 ? row.versionId : null,
          changePage: atLeast(levels.get(row.nodeId)!, "edit") ? row.changePage || null : null,
          comparable: atLeast(levels.get(row.nodeId)!, "reveal") && row.asksFirst === 0 && !row.askAgain,
        }),
      )
      .sort(byName);
    const mayAdd = rules.add ? await placesToAdd(tx, person, at) : [];
    return {
      /** Whether the house rules let this person use Lanyard. */
      mayUse: rules.use,
      person: person.name,
      organisation: home?.name ?? "",
      keys,
      mayAdd,
      neverOn: never.map((row) => row.site),
      notices: told?.count ?? 0,
      /** Sign-ins that wait for a code which this person receives. */
      codesAsked: rules.use ? await codesAskedOf(tx, person, at) : [],
      /** The same for all people, by the house rules. */
      neverOnForAll: rules.neverOn,
      /** Whether a login may be filled in as its page opens. */
      fillsOnOpening: rules.fillsOnOpening,
      markKey: toBase64(markKeyFor(galtry, lanyardId)),
    };
  },
});

/** Tries of one person a quarter of an hour; more than anybody signs in by hand. */
const MOST_COMPARISONS = 30;

/**
 * Whether a password that a site has just accepted is the one that is kept. Lanyard asks only where site and user name
 * are those of logins that its person may Reveal; at any other there is no answer.
 */
export const compareLogin = command({
  name: "lanyard.compareLogin",
  input: z.strictObject({ entryIds: z.array(idSchema).min(1).max(20), password: z.string().min(1).max(1000) }),
  by: ["lanyard"],
  allow: async (context) => {
    const { tx, input, caller, at, app } = context;
    const key = attemptKey(app.keys, "compare", personIdOf(caller));
    await requireFewAttempts(tx, key, MOST_COMPARISONS, at);
    const { found } = await requireEntries(context, input.entryIds, "reveal");
    for (const { entry } of found)
      if (entry.asksFirst > 0 || entry.askAgain)
        throw new Refused("not-allowed", t.requiresMoreThanRevealSo(entry.name));
    return { key, found };
  },
  run: async ({ tx, input, at, app, allowed }) => {
    await countAttempt(tx, allowed.key, at);
    const mark = fingerprint(app.keys, PASSWORD, input.password);
    for (const { entry } of allowed.found)
      if ((await currentMarks(tx, entry.versionId)).get(PASSWORD) === mark) return { answer: "kept" as const };
    const editable = allowed.found.filter(({ level }) => atLeast(level, "edit"));
    if (editable.length === 0) return { answer: "kept" as const };
    return {
      answer: "changed" as const,
      entries: editable.map(({ entry }) => ({ id: entry.nodeId, name: entry.name, versionId: entry.versionId })),
    };
  },
  journal: null,
  tell: () => [],
});

/** Only the password of a kept entry, as Lanyard saw it accepted. */
export const updatePassword = command({
  name: "lanyard.updatePassword",
  input: z.strictObject({
    ...{ entryId: idSchema, versionId: idSchema, password: z.string().min(1).max(1000) },
    /** Where it was changed at the site, if it was: there Galtry changes it the next time. */
    changePage: z.string().max(2000).default(""),
  }),
  by: ["lanyard"],
  allow: (context) => requireEntry(context, context.input.entryId, "edit"),
  run: async (context) => {
    const { tx, input, allowed } = context;
    const current = await currentVersion(tx, allowed.entry);
    if (current.id !== input.versionId) throw new Refused("conflict", t.someoneElseHasChangedThisEntry);
    const { versionId } = await rewrite(context, {
      entry: allowed.entry,
      held: allowed,
      how: "captured",
      change: (values) => ({ ...values, fields: { ...values.fields, [PASSWORD]: input.password } }),
    });
    const changePage = plainPage(input.changePage);
    if (changePage !== null && belongs(allowed.entry, changePage))
      await tx.update(entries).set({ changePage }).where(eq(entries.nodeId, input.entryId));
    return { versionId };
  },
  journal: ({ input, allowed }) => ({
    node: input.entryId,
    vault: allowed.vaultId,
    details: { changed: "password", captured: true },
    names: { [input.entryId]: allowed.entry.name },
  }),
  says: ({ it }) => `changed the password of ${it} with Lanyard`,
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`],
});

export const neverOffer = command({
  name: "lanyard.neverOffer",
  input: z.strictObject({ page: z.url().max(2000) }),
  by: ["lanyard"],
  allow: () => undefined,
  run: async ({ tx, input, caller, at }) => {
    await tx
      .insert(neverKept)
      .values({ personId: personIdOf(caller), site: siteOf(hostOf(input.page) ?? ""), at })
      .onConflictDoNothing();
  },
  journal: null,
  tell: () => [],
});

/** Taken back: logins at the site are offered to be added again. */
export const offerAgain = command({
  name: "lanyard.offerAgain",
  input: z.strictObject({ site: z.string().min(1).max(300) }),
  by: ["lanyard"],
  allow: () => undefined,
  run: async ({ tx, input, caller }) => {
    await tx.delete(neverKept).where(and(eq(neverKept.personId, personIdOf(caller)), eq(neverKept.site, input.site)));
  },
  journal: null,
  tell: () => [],
});

/**
 * Guarded fill: user name, password and current code for one page of the entry, sent to this browser at this
 * moment. The person counts among those who have seen it. For a page that asks for the user name alone nothing else leaves.
 */
export const guardedFill = command({
  name: "lanyard.guardedFill",
  input: z.strictObject({
    entryId: idSchema,
    page: z.url().max(2000),
    part: z.enum(["user-name", "all"]).default("all"),
    /** As the page opened, without a press. */
    onOpening: z.boolean().default(false),
  }),
  by: ["lanyard"],
  allow: async (context) => {
    const { input } = context;
    const allowed = await requireEntry(context, input.entryId, "use");
    requireInUse(allowed.entry);
    await requireSecretGates(context, allowed.entry, allowed.vaultId, allowed.level);
    if (!allowed.entry.guardedFill || allowed.entry.filling === "never")
      throw new Refused("not-allowed", t.guardedFillIsOffForThisEntry);
    if (input.onOpening && !(await lanyardRules(context.tx, context.me)).fillsOnOpening)
      throw new Refused("not-allowed", t.nothingIsFilledInByItself);
    const page = new URL(input.page);
    if (hostOf(input.page) !== allowed.entry.host)
      throw new Refused("not-allowed", t.guardedFillTypesOnlyAt(allowed.entry.host));
    return { ...allowed, page };
  },
  run: async ({ tx, input, caller, at, app, allowed }) => {
    const listed = app.configuration.allowedTargets.has(allowed.page.host);
    if (allowed.page.protocol !== "https:" && !listed && !allowed.entry.plainHttp)
      throw new Refused("not-allowed", t.thisPageIsNotEncryptedLanyard);
    const version = await currentVersion(tx, allowed.entry);
    if (version.refusedAt !== null) throw new Refused("not-allowed", t.theSiteRejectedTheSaved);
    const login = loginOf(await openValues(tx, app.keys, version));
    const page = {
      send: allowed.entry.filling === "send",
      userName: login.userName,
      hosts: [allowed.entry.host, ...allowed.entry.steps.hosts],
    };
    if (input.part === "user-name") return { ...page, signInId: null, password: null, code: null };
    const personId = personIdOf(caller);
    await noteSighting(tx, {
      entryId: input.entryId,
      field: PASSWORD,
      mark: fingerprint(app.keys, PASSWORD, login.password),
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
      process: app.process,
      begunAt: at,
      endedAt: at,
      outcome: "signed-in",
      detail: "",
    });
    return {
      ...{ ...page, signInId, password: login.password },
      code: login.code ? codeAt(login.code, at).code : null,
    };
  },
  journal: ({ input, allowed }) => ({
    node: input.entryId,
    vault: allowed.vaultId,
    details: {
      how: "guarded fill",
      ...(input.part === "user-name" && { part: input.part }),
      ...(input.onOpening && { onOpening: true }),
    },
    names: { [input.entryId]: allowed.entry.name },
  }),
  says: ({ details, place }) =>
    `used guarded fill${place("with")}${details.onOpening ? " as the page opened" : ""}: the ${details.part ? "user name" : "password"} was sent to this browser`,
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`],
});
