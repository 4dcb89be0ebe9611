/**
 * Taking out: entries with all their values, for their stewards and for whom a rule of the vault names, after a
 * warning, the sign-in password and a reason. One line in the journal names how many; each entry counts as seen. What
 * asks again before a reveal stays here. What is taken is fetched part by part, so that it never stands here whole.
 */
import { and, count, eq, inArray, isNull, lt } from "drizzle-orm";
import { z } from "zod";
import { atLeast } from "../../core/access";
import { counted } from "../../core/counted";
import type { TakenEntry } from "../../core/formats/taken";
import type { Kind } from "../../core/kinds/kind";
import { type Asking, loadPath, loadReachIn, reachOf, requireLevel } from "../access/load";
import { nodeName } from "../access/nodeName";
import type { Person } from "../access/person";
import { personIdOf } from "../caller";
import { command, idSchema, query } from "../command";
import { bulkInsert } from "../database/bulk";
import type { Reader } from "../database/client";
import {
  attachments,
  entries,
  entryVersions,
  fingerprints,
  folders,
  groups,
  persons,
  places,
  sightings,
  type Taker,
  takingParts,
  takings,
  vaults,
} from "../database/schema";
import { uuidv7 } from "../ids";
import { notFound, Refused } from "../refused";
import { yieldToEventLoop } from "../yieldToEventLoop";
import { isSecret } from "./composing";
import { idsBelow } from "./folders";
import { kindsById } from "./kinds";
import { takingOut as t } from "./strings";
import { openValues } from "./vaultKeys";
import { valuesOfVersion } from "./writing";

const MOST_TAKEN = 100_000;
/** Entries of one part. */
const PART = 200;
/** The sign-in password was given within this time. */
const PROVED_MS = 2 * 60_000;
/** The parts are fetched within this time. */
const FETCHED_MS = 10 * 60_000;

const FORMATS = ["exchange", "csv", "page"] as const;

const isTaker = (me: Person, takers: readonly Taker[]): boolean =>
  takers.some(({ kind, id }) => (kind === "person" ? id === me.id : me.groups.has(id)));

/** Whether each of these may be taken out now: stewards take, and takers of the vault what they may reveal. */
async function takeable({ tx, me, at }: Pick<Asking, "tx" | "me" | "at">, vaultId: string) {
  const { levels } = tx.access ? reachOf(tx, me, at) : await loadReachIn(tx, me, [vaultId], at);
  const [vault] = await tx.select({ takers: vaults.takers }).from(vaults).where(eq(vaults.nodeId, vaultId));
  const least = isTaker(me, vault?.takers ?? []) ? "reveal" : "steward";
  return (id: string) => atLeast(levels.get(id) ?? "none", least);
}

export const exportEntries = command({
  name: "vaults.exportEntries",
  input: z.strictObject({
    /** Vaults, folders and entries. */
    nodeIds: z.array(idSchema).min(1).max(500),
    format: z.enum(FORMATS),
    /** Whether the file is encrypted with age before it is saved. */
    encrypted: z.boolean(),
    why: z.string().trim().min(3, t.giveAReasonItIsWrittenIn).max(500),
  }),
  by: ["person"],
  allow: async (context) => {
    const { tx, input, caller, at } = context;
    const ids = new Set<string>();
    const vaultsOf = new Set<string>();
    for (const nodeId of input.nodeIds) {
      vaultsOf.add((await requireLevel(context, nodeId, "reveal")).vaultId);
      for (const id of await idsBelow(tx, nodeId)) ids.add(id);
    }
    // One line in the journal, where the stewards of that vault read it.
    if (vaultsOf.size > 1) throw new Refused("bad-input", t.exportFromOneVaultAtATime, "nodeIds");
    const [first] = await loadPath(tx, input.nodeIds[0]!);
    const may = await takeable(context, first!.vaultId);
    if (!input.nodeIds.every(may)) throw new Refused("not-allowed", t.onlyItsStewardsAndThePeopleIts);
    const inside = [...ids];
    if (!inside.every(may)) throw new Refused("not-allowed", t.somethingInItHasOtherStewards);
    if (caller.kind !== "person" || at - caller.provedAt > PROVED_MS)
      throw new Refused("prove-again", t.anExportShowsEverythingAtOnce);
    return { vaultId: first!.vaultId, inside, name: await nodeName(tx, input.nodeIds[0]!) };
  },
  run: async (context) => {
    const { tx, input, at, caller, allowed } = context;
    const personId = personIdOf(caller);
    const kept = await keptWithin(tx, allowed.inside);
    if (kept.length > MOST_TAKEN)
      throw new Refused("bad-input", t.atMostEntriesAtOnce(MOST_TAKEN.toLocaleString("en-GB")));
    const taken = kept.filter((entry) => !asksBefore(entry));
    const kinds = await kindsById(tx);
    const kindOfVersion = new Map(taken.map((entry) => [entry.versionId, kinds.get(entry.kind)!]));
    // One sighting a person and entry: all that is secret in it was seen.
    const seen = (await marksOf(tx, [...kindOfVersion.keys()]))
      .filter((mark) => isSecret(kindOfVersion.get(mark.versionId)!, mark.field))
      .map(({ entryId, field, fingerprint }) => ({
        id: uuidv7(),
        entryId,
        field,
        fingerprint,
        personId,
        at,
        how: "taken out" as const,
      }));
    await bulkInsert(tx, sightings, seen);
    const takingId = uuidv7();
    const sessionId = caller.kind === "person" ? caller.sessionId : null;
    await tx.insert(takings).values({ id: takingId, vaultId: allowed.vaultId, personId, sessionId, at });
    const folderOf = await folderWays(tx, allowed.inside, input.nodeIds);
    const rows = taken.map(({ nodeId, versionId }) => ({ versionId, folder: folderOf(nodeId) }));
    const parts = Array.from({ length: Math.ceil(rows.length / PART) }, (_, number) => ({
      takingId,
      number,
      rows: rows.slice(number * PART, (number + 1) * PART),
    }));
    await bulkInsert(tx, takingParts, parts);
    const [by] = await tx.select().from(persons).where(eq(persons.id, personId));
    return {
      takingId,
      parts: parts.length,
      entries: taken.length,
      leftOut: kept.filter(asksBefore).map((entry) => entry.name),
      /** What no format carries. */
      attachments: await countAttachments(
        tx,
        taken.map((entry) => entry.nodeId),
      ),
      /** Of the organisation's own, those that some of it have. */
      kinds: [...new Set(kindOfVersion.values())].filter((kind) => kind.own).map(withoutPicture),
      by: { name: by!.name, mail: by!.mail },
    };
  },
  journal: ({ input, result, allowed }) => ({
    node: input.nodeIds[0]!,
    vault: allowed.vaultId,
    details: {
      entries: result.entries,
      format: input.format,
      encrypted: input.encrypted,
      why: input.why,
      more: input.nodeIds.length - 1,
    },
    names: { [input.nodeIds[0]!]: allowed.name },
  }),
  says: ({ details, place, why }) =>
    `exported ${counted(Number(details.entries), "entry")}${place("from")}${place("") && details.more ? ` and ${details.more} more` : ""}, ${details.format === "page" ? "as a page to print" : details.format === "csv" ? "as CSV" : "as exchange JSON"}, ${details.encrypted ? "encrypted" : "unencrypted"}${why}`,
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`],
});

const withoutPicture = ({ picture: _, ...kind }: Kind): Kind => kind;

/** Some of what is being taken out, opened: by whoever began it, in that session, while they may still take it. */
export const exportPart = query({
  name: "vaults.exportPart",
  input: z.strictObject({ takingId: idSchema, number: z.number().int().min(0) }),
  by: ["person"],
  allow: async (context) => {
    const { tx, input, caller, at } = context;
    const [taking] = await tx.select().from(takings).where(eq(takings.id, input.takingId));
    const sessionId = caller.kind === "person" ? caller.sessionId : null;
    if (!taking || taking.personId !== personIdOf(caller) || taking.sessionId !== sessionId) throw notFound();
    if (at - taking.at > FETCHED_MS) throw new Refused("conflict", t.thisTookTooLongExportItAgain);
    const [part] = await tx
      .select({ rows: takingParts.rows })
      .from(takingParts)
      .where(and(eq(takingParts.takingId, taking.id), eq(takingParts.number, input.number)));
    if (!part) throw notFound();
    return { rows: part.rows, may: await takeable(context, taking.vaultId) };
  },
  run: async ({ tx, app, allowed: { rows, may } }): Promise<TakenEntry[]> => {
    const found = new Map(
      (
        await tx
          .select({ entry: entries, version: entryVersions })
          .from(entryVersions)
          .innerJoin(entries, eq(entries.nodeId, entryVersions.entryId))
          .where(
            inArray(
              entryVersions.id,
              rows.map((row) => row.versionId),
            ),
          )
      ).map((row) => [row.version.id, row]),
    );
    const kinds = await kindsById(tx);
    await yieldToEventLoop();
    const taken: TakenEntry[] = [];
    for (const { versionId, folder } of rows) {
      const row = found.get(versionId);
      if (!row || !may(row.entry.nodeId) || asksBefore(row.entry))
        throw new Refused("conflict", t.somethingInItHasChangedExport);
      const kind = kinds.get(row.entry.kind)!;
      const values = valuesOfVersion(kind, row.version, await openValues(tx, app.keys, row.version));
      taken.push({
        ...values,
        code: values.code ?? null,
        kind: withoutPicture(kind),
        folder,
        createdAt: row.entry.createdAt,
        changedAt: row.entry.changedAt,
      });
    }
    return taken;
  },
});

/** Forgets what was to be fetched. */
export const sweepExports = command({
  name: "vaults.sweepExports",
  input: z.strictObject({}),
  by: ["server"],
  allow: () => undefined,
  run: async ({ tx, at }) => {
    const over = tx
      .select({ id: takings.id })
      .from(takings)
      .where(lt(takings.at, at - FETCHED_MS));
    await tx.delete(takingParts).where(inArray(takingParts.takingId, over));
    await tx.delete(takings).where(lt(takings.at, at - FETCHED_MS));
  },
  journal: null,
  tell: () => [],
});

/** The vault's rule about who else takes out: off while nobody is named. */
export const setExporters = command({
  name: "vaults.setExporters",
  input: z.strictObject({
    vaultId: idSchema,
    takers: z
      .array(z.strictObject({ kind: z.enum(["person", "group"]), id: idSchema }))
      .max(50, t.atMost50PeopleAndGroups),
  }),
  by: ["person"],
  allow: (context) => requireLevel(context, context.input.vaultId, "steward"),
  run: async ({ tx, input }) => {
    const names = await takerNames(tx, input.takers);
    if (input.takers.some((taker) => !names.has(taker.id)))
      throw new Refused("bad-input", t.thisPersonOrGroupDoesNotExist, "takers");
    const [vault] = await tx.select().from(vaults).where(eq(vaults.nodeId, input.vaultId));
    if (!vault) throw notFound();
    await tx.update(vaults).set({ takers: input.takers }).where(eq(vaults.nodeId, input.vaultId));
    return { name: vault.name, names: [...names.values()] };
  },
  journal: ({ input, result }) => ({
    node: input.vaultId,
    vault: input.vaultId,
    details: { takers: result.names.join(", ") },
    names: { [input.vaultId]: result.name },
  }),
  says: ({ details, place }) =>
    details.takers
      ? `chose who can export${place("from")}: ${details.takers}`
      : `let only its stewards export${place("from")}`,
  tell: ({ input }) => [`vault:${input.vaultId}`],
});

async function takerNames(tx: Reader, takers: readonly Taker[]): Promise<Map<string, string>> {
  const ids = (kind: Taker["kind"]) => takers.filter((taker) => taker.kind === kind).map((taker) => taker.id);
  return new Map(
    [
      ...(await tx
        .select({ id: persons.id, name: persons.name })
        .from(persons)
        .where(inArray(persons.id, ids("person")))),
      ...(await tx
        .select({ id: groups.id, name: groups.name })
        .from(groups)
        .where(inArray(groups.id, ids("group")))),
    ].map((row) => [row.id, row.name]),
  );
}

/** For the vault's stewards. */
export const exporterList = query({
  name: "vaults.exporterList",
  input: z.strictObject({ vaultId: idSchema }),
  by: ["person"],
  allow: (context) => requireLevel(context, context.input.vaultId, "steward"),
  run: async ({ tx, input }) => {
    const [vault] = await tx.select({ takers: vaults.takers }).from(vaults).where(eq(vaults.nodeId, input.vaultId));
    const names = await takerNames(tx, vault?.takers ?? []);
    return (vault?.takers ?? []).map((taker) => ({ ...taker, name: names.get(taker.id) ?? "" }));
  },
});

/** Whether the reader may take out of a vault what they may reveal there. */
export async function isTakerOf(tx: Reader, me: Person, vaultId: string): Promise<boolean> {
  const [vault] = await tx.select({ takers: vaults.takers }).from(vaults).where(eq(vaults.nodeId, vaultId));
  return isTaker(me, vault?.takers ?? []);
}

/** Is not taken out with others: it asks for the sign-in password, or a steward, each time. */
const asksBefore = (entry: { askAgain: boolean; asksFirst: number }): boolean => entry.askAgain || entry.asksFirst > 0;

async function keptWithin(tx: Reader, ids: readonly string[]) {
  const found: Pick<
    typeof entries.$inferSelect,
    "nodeId" | "name" | "kind" | "versionId" | "askAgain" | "asksFirst"
  >[] = [];
  for (let i = 0; i < ids.length; i += 500)
    found.push(
      ...(await tx
        .select({
          nodeId: entries.nodeId,
          name: entries.name,
          kind: entries.kind,
          versionId: entries.versionId,
          askAgain: entries.askAgain,
          asksFirst: entries.asksFirst,
        })
        .from(entries)
        .where(and(inArray(entries.nodeId, ids.slice(i, i + 500)), isNull(entries.binnedAt)))),
    );
  return found;
}

/** Names of the folders around an entry, from the node that is taken out on: a folder that is itself taken counts. */
async function folderWays(tx: Reader, ids: readonly string[], roots: readonly string[]) {
  const parents = new Map<string, string | null>();
  const names = new Map<string, string>();
  for (let i = 0; i < ids.length; i += 500) {
    const some = ids.slice(i, i + 500);
    for (const row of await tx
      .select({ id: places.nodeId, parent: places.parentId })
      .from(places)
      .where(and(inArray(places.nodeId, some), isNull(places.validUntil))))
      parents.set(row.id, row.parent);
    for (const row of await tx.select().from(folders).where(inArray(folders.nodeId, some)))
      names.set(row.nodeId, row.name);
  }
  const top = new Set(roots);
  return (id: string): string[] => {
    const way: string[] = [];
    if (top.has(id)) return way;
    for (let up = parents.get(id) ?? null; up !== null && names.has(up); up = parents.get(up) ?? null) {
      way.unshift(names.get(up)!);
      if (top.has(up)) break;
    }
    return way;
  };
}

async function marksOf(tx: Reader, versionIds: readonly string[]) {
  const marks: { entryId: string; versionId: string; field: string; fingerprint: string }[] = [];
  for (let i = 0; i < versionIds.length; i += 500)
    marks.push(
      ...(await tx
        .select({
          entryId: entryVersions.entryId,
          versionId: fingerprints.versionId,
          field: fingerprints.field,
          fingerprint: fingerprints.fingerprint,
        })
        .from(fingerprints)
        .innerJoin(entryVersions, eq(entryVersions.id, fingerprints.versionId))
        .where(inArray(fingerprints.versionId, versionIds.slice(i, i + 500)))),
    );
  return marks;
}

async function countAttachments(tx: Reader, entryIds: readonly string[]): Promise<number> {
  let files = 0;
  for (let i = 0; i < entryIds.length; i += 500) {
    const [found] = await tx
      .select({ files: count() })
      .from(attachments)
      .where(inArray(attachments.entryId, entryIds.slice(i, i + 500)));
    files += found!.files;
  }
  return files;
}
