/**
 * Taking out: entries with all their values, for their stewards, after a warning, the sign-in password and a reason.
 * One line in the journal names how many; each entry counts as seen. What asks again before a reveal stays here.
 */
import { and, eq, inArray, isNull } from "drizzle-orm";
import { z } from "zod";
import type { TakenEntry } from "../../core/formats/taken";
import { isReadyKind } from "../../core/kinds/ready";
import { loadPath, requireLevel } from "../access/load";
import { nodeName } from "../access/nodeName";
import { personIdOf } from "../caller";
import { type Context, command, idSchema } from "../command";
import type { Reader } from "../database/client";
import { attachments, entries, entryVersions, fingerprints, folders, places, sightings } from "../database/schema";
import { uuidv7 } from "../ids";
import { Refused } from "../refused";
import { isSecret } from "./composing";
import { idsBelow } from "./folders";
import { kindsById } from "./kinds";
import { openValues } from "./vaultKeys";
import { valuesOfVersion } from "./writing";

/** All of it is opened within one act; a vault of more is taken out folder by folder. */
const MOST_TAKEN = 20_000;
/** The sign-in password was given within this time. */
const PROVED_MS = 2 * 60_000;

const FORMATS = ["exchange", "csv", "page"] as const;

export const takeOut = command({
  name: "vaults.takeOut",
  input: z.strictObject({
    /** Vaults, folders and entries. */
    nodeIds: z.array(idSchema).min(1).max(500),
    format: z.enum(FORMATS),
    /** Whether the file is encrypted with age before it is saved. */
    encrypted: z.boolean(),
    why: z.string().trim().min(3, "Say what for: it stands in the journal.").max(500),
  }),
  by: ["person"],
  allow: async (context) => {
    const { tx, input, caller, at } = context;
    const ids = new Set<string>();
    const vaultsOf = new Set<string>();
    for (const nodeId of input.nodeIds) {
      vaultsOf.add((await requireLevel(context, nodeId, "steward")).vaultId);
      for (const id of await idsBelow(tx, nodeId)) ids.add(id);
    }
    const inside = [...ids];
    // One line in the journal, where the stewards of that vault read it.
    if (vaultsOf.size > 1) throw new Refused("bad-input", "Take out of one vault at a time.", "nodeIds");
    await requireStewardOfAll(context, inside);
    if (caller.kind !== "person" || at - caller.provedAt > PROVED_MS)
      throw new Refused("prove-again", "Taking out shows everything at once. Give your sign-in password first.");
    const [first] = await loadPath(tx, input.nodeIds[0]!);
    return { vaultId: first!.vaultId, inside, name: await nodeName(tx, input.nodeIds[0]!) };
  },
  run: async (context) => {
    const { tx, input, at, caller, house, allowed } = context;
    const personId = personIdOf(caller)!;
    const kept = await keptWithin(tx, allowed.inside);
    if (kept.length > MOST_TAKEN)
      throw new Refused("bad-input", `At most ${MOST_TAKEN.toLocaleString("en-GB")} entries at once.`);
    const leftOut = kept.filter(({ entry }) => entry.askAgain).map(({ entry }) => entry.name);
    const taken = kept.filter(({ entry }) => !entry.askAgain);
    const kinds = await kindsById(tx);
    const folderOf = await folderWays(tx, allowed.inside, input.nodeIds);
    const result: TakenEntry[] = [];
    for (const { entry, version } of taken) {
      const kind = kinds.get(entry.kind)!;
      const values = valuesOfVersion(kind, version, await openValues(tx, house.keys, version));
      const { extras, code, fields, ...open } = values;
      result.push({
        ...open,
        extras,
        code: code ?? null,
        fields,
        kind,
        folder: folderOf(entry.nodeId),
        createdAt: entry.createdAt,
        changedAt: entry.changedAt,
      });
    }
    // One sighting a person and entry: all that is secret in it was seen.
    const marks = await marksOf(
      tx,
      taken.map(({ version }) => version.id),
    );
    const seen = taken.flatMap(({ entry, version }) =>
      (marks.get(version.id) ?? [])
        .filter((mark) => isSecret(kinds.get(entry.kind)!, mark.field))
        .map((mark) => ({
          id: uuidv7(),
          entryId: entry.nodeId,
          field: mark.field,
          fingerprint: mark.fingerprint,
          personId,
          at,
          how: "taken out" as const,
        })),
    );
    for (let i = 0; i < seen.length; i += 500) await tx.insert(sightings).values(seen.slice(i, i + 500));
    return {
      entries: result,
      leftOut,
      /** What no format carries. */
      attachments: await countAttachments(
        tx,
        taken.map(({ entry }) => entry.nodeId),
      ),
      ownKinds: taken.filter(({ entry }) => !isReadyKind(entry.kind)).length,
    };
  },
  journal: ({ input, result, allowed }) => ({
    node: input.nodeIds[0]!,
    vault: allowed.vaultId,
    details: {
      entries: result.entries.length,
      format: input.format,
      encrypted: input.encrypted,
      why: input.why,
      more: input.nodeIds.length - 1,
    },
    names: { [input.nodeIds[0]!]: allowed.name },
  }),
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`],
});

async function requireStewardOfAll(
  context: Pick<Context<unknown, Reader>, "tx" | "me" | "at">,
  ids: readonly string[],
) {
  try {
    for (const id of ids) await requireLevel(context, id, "steward");
  } catch (error) {
    throw error instanceof Refused
      ? new Refused("not-allowed", "Something in it has other stewards: take out only what you are steward of.")
      : error;
  }
}

async function keptWithin(tx: Reader, ids: readonly string[]) {
  const found: { entry: typeof entries.$inferSelect; version: typeof entryVersions.$inferSelect }[] = [];
  for (let i = 0; i < ids.length; i += 500)
    found.push(
      ...(await tx
        .select({ entry: entries, version: entryVersions })
        .from(entries)
        .innerJoin(entryVersions, eq(entryVersions.id, entries.versionId))
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
  const marks = new Map<string, (typeof fingerprints.$inferSelect)[]>();
  for (let i = 0; i < versionIds.length; i += 500)
    for (const row of await tx
      .select()
      .from(fingerprints)
      .where(inArray(fingerprints.versionId, versionIds.slice(i, i + 500))))
      marks.set(row.versionId, [...(marks.get(row.versionId) ?? []), row]);
  return marks;
}

async function countAttachments(tx: Reader, entryIds: readonly string[]): Promise<number> {
  let files = 0;
  for (let i = 0; i < entryIds.length; i += 500)
    files += (
      await tx
        .select({ id: attachments.id })
        .from(attachments)
        .where(inArray(attachments.entryId, entryIds.slice(i, i + 500)))
    ).length;
  return files;
}
