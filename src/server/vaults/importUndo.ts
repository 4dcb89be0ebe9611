/** What an import brought, what of it needs a look, and undoing the whole of it for a day. */
import { eq, inArray, sql } from "drizzle-orm";
import { z } from "zod";
import { atLeast } from "../../core/access";
import { counted } from "../../core/counted";
import { MOST_ENTRIES } from "../../core/formats/rows";
import { strengthOf } from "../../core/generator/strengthWords";
import { PASSWORD } from "../../core/kinds/kind";
import { type Asking, loadReachIn, reachOf, requireLevel } from "../access/load";
import { nodeName } from "../access/nodeName";
import { sortByName } from "../byName";
import { personIdOf } from "../caller";
import { command, idSchema, query } from "../command";
import { bulk } from "../database/bulk";
import type { Reader } from "../database/client";
import { entries, imports } from "../database/schema";
import { notFound, Refused } from "../refused";
import { yieldToEventLoop } from "../yieldToEventLoop";
import { takeBackUpdates, updatedBy } from "./importUpdates";
import { importUndo as t } from "./strings";
import { UNDOABLE_MS } from "./vaults";

const isWeak = (guesses: number) => strengthOf(guesses).word.endsWith("weak");

/** The import, by whoever made it or a steward of where it went; within a day. */
async function requireUndoable(context: Asking, importId: string) {
  const { tx, me, at } = context;
  const [found] = await tx.select().from(imports).where(eq(imports.id, importId));
  if (!found?.publishedAt) throw notFound();
  const allowed = await requireLevel(context, found.parentId, found.personId === me.id ? "edit" : "steward");
  if (found.undoneAt !== null) throw new Refused("conflict", t.itHasAlreadyBeenUndone);
  if (at - found.publishedAt > UNDOABLE_MS) throw new Refused("conflict", t.itCanBeUndoneForADay);
  return { ...allowed, found };
}

interface Brought {
  entryId: string;
  name: string;
  /** Somebody changed, moved, granted or used it since; in words, null when nobody did. */
  since: string | null;
}

async function broughtIn(tx: Reader, found: typeof imports.$inferSelect): Promise<Brought[]> {
  const rows = await bulk<{
    entryId: string;
    name: string;
    changed: number;
    moved: number;
    granted: number;
    used: number;
  }>(
    tx,
    {
      entryId: sql`r.entry_id`,
      name: sql`e.name`,
      changed: sql`e.version_id <> r.version_id`,
      moved: sql`not exists (select 1 from places p where p.id = r.place_id and p.valid_until is null)`,
      granted: sql`exists (select 1 from grants g where g.node_id = r.entry_id)`,
      used: sql`exists (select 1 from sign_ins s where s.entry_id = r.entry_id and s.how <> 'tested')`,
    },
    sql`from import_rows r join entries e on e.node_id = r.entry_id
      where r.import_id = ${found.id} and e.binned_at is null`,
  );
  return sortByName(rows).map((row) => ({
    entryId: row.entryId,
    name: row.name,
    since: row.changed ? "changed" : row.moved ? "moved" : row.granted ? "given to someone" : row.used ? "used" : null,
  }));
}

/** How an import stands: what undoing it would take, what stays unless it is ticked, and what needs a look. */
export const importPage = query({
  name: "vaults.importPage",
  offMainThread: true,
  input: z.strictObject({ importId: idSchema }),
  by: ["person"],
  allow: (context) => requireUndoable(context, context.input.importId),
  run: async ({ tx, me, at, allowed: { found } }) => {
    const brought = await broughtIn(tx, found);
    const updated = await updatedBy(tx, found.id);
    // What others have taken out of the reader's reach since is counted, but no longer named.
    const { levels } = reachOf(tx, me, at);
    const named = (one: { entryId: string }) => atLeast(levels.get(one.entryId) ?? "none", "use");
    const look = sortByName(
      await bulk<{
        entryId: string;
        name: string;
        page: string;
        mark: string | null;
        guesses: number | null;
        gated: number;
      }>(
        tx,
        {
          entryId: sql`e.node_id`,
          name: sql`e.name`,
          page: sql`e.sign_in_page`,
          mark: sql`f.fingerprint`,
          guesses: sql`c.guesses`,
          gated: sql`e.asks_first > 0 or e.ask_again`,
        },
        sql`from import_rows r join entries e on e.node_id = r.entry_id
          left join fingerprints f on f.version_id = r.version_id and f.field = ${PASSWORD}
          left join conditions c on c.version_id = r.version_id and c.field = ${PASSWORD}
          where r.import_id = ${found.id} and e.binned_at is null`,
      ),
    );
    await yieldToEventLoop();
    const twins = new Map<string, number>();
    const compared = look.filter(
      (one) => one.gated === 0 && atLeast(levels.get(one.entryId) ?? "none", "reveal") && one.mark !== null,
    );
    for (const { mark } of compared) twins.set(mark!, (twins.get(mark!) ?? 0) + 1);
    const sameAs = new Map(compared.map((one) => [one.entryId, twins.get(one.mark!)!]));
    return {
      entries: brought.length,
      updated: updated.length,
      /** Updated, and changed again since: undoing leaves those as they are. */
      updatedSince: updated.filter((one) => one.changedSince).length,
      stays: brought.filter((one) => one.since !== null && named(one)),
      /** Stay whatever is ticked: out of the reader's reach by now. */
      beyond: brought.filter((one) => one.since !== null && !named(one)).length,
      /** Logins that can be tried, one after another. */
      testable: look.filter((one) => one.page !== "" && atLeast(levels.get(one.entryId) ?? "none", "edit")).length,
      parentId: found.parentId,
      vaultId: found.vaultId,
      look: look.filter(named).flatMap(({ entryId, name, page, guesses }) => {
        const same = sameAs.get(entryId) ?? 0;
        const reasons = [
          ...(page === "" ? ["no sign-in page"] : []),
          ...(page !== "" && new URL(page).pathname === "/" ? ["the home page instead of the sign-in page"] : []),
          ...(page.startsWith("http:") ? ["plain http, which anyone on the network can read"] : []),
          ...(guesses !== null && isWeak(guesses) ? ["weak"] : []),
          ...(same > 1 ? [`the same password ${same} times`] : []),
        ];
        return reasons.length > 0 ? [{ entryId, name, reasons }] : [];
      }),
    };
  },
});

/** Those of an import that can be tried at their sites by the asker, in the order of their names. */
export const importTestable = query({
  name: "vaults.importTestable",
  input: z.strictObject({ importId: idSchema }),
  by: ["person"],
  allow: (context) => requireUndoable(context, context.input.importId),
  run: async ({ tx, me, at, allowed: { found } }) => {
    const { levels } = reachOf(tx, me, at);
    const rows = await tx.all<{ entryId: string; name: string }>(sql`
      select e.node_id as "entryId", e.name as name from import_rows r join entries e on e.node_id = r.entry_id
      where r.import_id = ${found.id} and e.binned_at is null and e.sign_in_page <> ''`);
    return sortByName(rows.filter((row) => atLeast(levels.get(row.entryId) ?? "none", "edit")));
  },
});

export const undoImport = command({
  name: "vaults.undoImport",
  input: z.strictObject({ importId: idSchema, also: z.array(idSchema).max(MOST_ENTRIES).default([]) }),
  by: ["person"],
  allow: (context) => requireUndoable(context, context.input.importId),
  run: async (context) => {
    const { tx, me, input, caller, at, allowed } = context;
    const { found } = allowed;
    const also = new Set(input.also);
    // What it brought, and what it changed: those may lie in other vaults by now.
    const touched = await tx.all<{ vaultId: string }>(sql`
      select distinct p.vault_id as "vaultId" from places p where p.valid_until is null and p.node_id in (
        select entry_id from import_rows where import_id = ${found.id}
        union select entry_id from import_updates where import_id = ${found.id})`);
    const { levels } = await loadReachIn(
      tx,
      me,
      touched.map((row) => row.vaultId),
      at,
    );
    const gone = (await broughtIn(tx, found)).filter(
      (one) => one.since === null || (also.has(one.entryId) && atLeast(levels.get(one.entryId) ?? "none", "edit")),
    );
    const binned = { binnedAt: at, binnedBy: personIdOf(caller) };
    for (let i = 0; i < gone.length; i += 500)
      await tx
        .update(entries)
        .set(binned)
        .where(
          inArray(
            entries.nodeId,
            gone.slice(i, i + 500).map((one) => one.entryId),
          ),
        );
    // The innermost first: a folder is empty when nothing that is not in the bin lies in it.
    for (const folderId of found.foldersMade.toReversed())
      await tx.run(sql`
        update folders set binned_at = ${at}, binned_by = ${personIdOf(caller)}, binned_with = ${folderId}
        where node_id = ${folderId} and binned_at is null and not exists (
          select 1 from places p left join entries e on e.node_id = p.node_id left join folders f on f.node_id = p.node_id
          where p.parent_id = ${folderId} and p.valid_until is null and coalesce(e.binned_at, f.binned_at) is null)`);
    const back = await takeBackUpdates(context, found.id, (id) => levels.get(id) ?? "none");
    await tx.update(imports).set({ undoneAt: at }).where(eq(imports.id, found.id));
    return { entries: gone.length, back, place: await nodeName(tx, found.parentId) };
  },
  journal: ({ result, allowed }) => ({
    node: allowed.found.parentId,
    vault: allowed.vaultId,
    details: { entries: result.entries, back: result.back },
    names: { [allowed.found.parentId]: result.place },
  }),
  says: ({ details, place }) => `undid the import of ${counted(Number(details.entries), "entry")}${place("to")}`,
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`],
});
