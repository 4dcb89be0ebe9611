/**
 * Looks for findings where something has changed, and where a date has come: what triggers have written down, the newest
 * first, a few at a time. One process does it, beside all other work.
 */

import { setTimeout as sleep } from "node:timers/promises";
import { and, eq, inArray, isNull, lte, sql } from "drizzle-orm";
import { z } from "zod";
import { PASSWORD } from "../../core/kinds/kind";
import { FINDING_KINDS, type Finding, type Look, lookAtAccess, lookAtEntry, partOf } from "../../core/upkeep/findings";
import type { OpenIndex } from "../access/openIndex";
import { command, idSchema, type Topic } from "../command";
import { bulkInsert, inJson } from "../database/bulk";
import { checks, findings, unchecked } from "../database/schema";
import { findingDetail } from "../database/stored";
import type { Galtry } from "../galtry";
import { groupBy } from "../groupBy";
import { uuidv7 } from "../ids";
import { endLease, holdLease } from "../lease";
import { failed } from "../log";
import { accessFacts, entryFacts } from "./facts";

/** In one go; between two of them the other work of the process has its turn. */
const AT_ONCE = 100;
/** What one change at a node or of a person brings along is written down in pieces of so many. */
const MOST_WRITTEN = 300;
const SERVER = { kind: "server" } as const;
const WORK = "upkeep.check";

const finding = z.strictObject({
  kind: z.enum(FINDING_KINDS as [Finding["kind"], ...Finding["kind"][]]),
  key: z.string().max(80),
  since: z.number(),
  detail: findingDetail,
});
const looked = z.strictObject({
  nodeId: idSchema,
  vaultId: z.string(),
  part: z.enum(["entry", "access"]),
  findings: z.array(finding),
  dueAt: z.number().nullable(),
});
const reference = z.strictObject({ kind: z.enum(["entry", "access"]), ref: z.string() });

type Row = typeof findings.$inferSelect;

/**
 * Whether the people of a vault are told to look again. Of the same password twice they are not: who writes a guess into an
 * entry of their own would see by it that another vault has it.
 */
const isTold = (kind: Row["kind"]): boolean => kind !== "reused";

/** What was found takes the place of what was found before. What is there no more is over, and stays as history. */
export const recordFindings = command({
  name: "upkeep.recordFindings",
  input: z.strictObject({
    looks: z.array(looked).max(1_000),
    /** What was looked at; what has changed since then is not among it, and is looked at again. */
    done: z.array(z.number().int()).max(10_000),
    /** What is to be looked at because of it. */
    next: z.array(reference).max(10_000),
  }),
  by: ["server"],
  lowPriority: true,
  allow: () => undefined,
  run: async ({ tx, input, at }): Promise<string[]> => {
    if (input.done.length > 0) await tx.delete(unchecked).where(inJson(unchecked.seq, input.done));
    if (input.next.length > 0)
      await tx.run(sql`insert or ignore into unchecked (kind, ref)
        select value ->> 'kind', value ->> 'ref' from json_each(${JSON.stringify(input.next)})`);
    const ids = [...new Set(input.looks.map(({ nodeId }) => nodeId))];
    const open =
      ids.length === 0
        ? []
        : await tx
            .select()
            .from(findings)
            .where(and(inJson(findings.nodeId, ids), isNull(findings.endedAt)));
    const touched = new Set<string>();
    const before = groupBy(open, ({ nodeId, kind }) => `${partOf(kind)} ${nodeId}`);
    const gone: Row[] = [];
    const fresh: (typeof findings.$inferInsert)[] = [];
    for (const { nodeId, vaultId, part, findings: found } of input.looks) {
      const known = before.get(`${part} ${nodeId}`) ?? [];
      gone.push(...known.filter((row) => !found.some(({ kind, key }) => kind === row.kind && key === row.key)));
      for (const { kind, key, since, detail } of found) {
        const row = known.find((one) => one.kind === kind && one.key === key);
        if (!row) {
          const from = Math.min(since || at, at);
          fresh.push({ ...{ id: uuidv7(), nodeId, vaultId, kind, key, detail, since: from, foundAt: at } });
        } else if (row.vaultId !== vaultId || JSON.stringify(row.detail) !== JSON.stringify(detail))
          await tx.update(findings).set({ vaultId, detail }).where(eq(findings.id, row.id));
        else continue;
        if (isTold(kind)) touched.add(vaultId);
      }
    }
    for (const { vaultId, kind } of gone) if (isTold(kind)) touched.add(vaultId);
    if (gone.length > 0)
      await tx
        .update(findings)
        .set({ endedAt: at })
        .where(
          inJson(
            findings.id,
            gone.map(({ id }) => id),
          ),
        );
    await bulkInsert(tx, findings, fresh);
    for (const part of ["entry", "access"] as const) {
      const own = input.looks.filter((look) => look.part === part).map(({ nodeId }) => nodeId);
      if (own.length > 0) await tx.delete(checks).where(and(inJson(checks.nodeId, own), eq(checks.part, part)));
    }
    await bulkInsert(
      tx,
      checks,
      input.looks.flatMap(({ nodeId, part, dueAt }) => (dueAt === null ? [] : [{ nodeId, part, dueAt }])),
    );
    return [...touched].filter(Boolean);
  },
  journal: null,
  tell: ({ result }) => [
    ...result.map((id): Topic => `vault:${id}`),
    ...(result.length > 0 ? (["administrators"] as const) : []),
  ],
});

type Changed = typeof unchecked.$inferSelect;

/**
 * What is looked at next: first what brings others along, so that each of these is looked at once; then what has changed, the
 * newest first; then what is due.
 */
async function nextOnes(app: Galtry, at: number): Promise<{ rows: Changed[]; due: Pick<Changed, "kind" | "ref">[] }> {
  const bringing = await app.db
    .select()
    .from(unchecked)
    .where(inArray(unchecked.kind, ["person", "mark"]))
    .limit(AT_ONCE);
  if (bringing.length > 0) return { rows: bringing, due: [] };
  const rows = await app.db.select().from(unchecked).orderBy(sql`seq desc`).limit(AT_ONCE);
  if (rows.length > 0) return { rows, due: [] };
  const due = await app.db.select().from(checks).where(lte(checks.dueAt, at)).orderBy(checks.dueAt).limit(AT_ONCE);
  return { rows, due: due.map(({ part, nodeId }) => ({ kind: part, ref: nodeId })) };
}

/** Looks at some of what has changed or is due. @returns whether there was any */
export async function checkSome(app: Galtry, at = Date.now()): Promise<boolean> {
  const { rows, due } = await nextOnes(app, at);
  const all = [...rows, ...due];
  if (all.length === 0) return false;
  const index = await app.access.fresh();
  const refs = (kind: Changed["kind"]) => [...new Set(all.filter((row) => row.kind === kind).map(({ ref }) => ref))];
  const next = new Next();
  await broughtAlong(app, index, { nodes: refs("access"), people: refs("person"), marks: refs("mark") }, next);
  await usedAgain(app, index, refs("use"), next);
  const entries = await lookAtEntries(app, index, [...new Set([...refs("entry"), ...refs("use")])], at, next);
  const access = await lookAtNodes(app, index, refs("access"), at);
  const looks = [...entries, ...access];
  const pieces = next.pieces();
  // What it brings along is written down before it counts as looked at: an end in between loses nothing.
  for (const piece of pieces) await recordFindings.execute(app, { looks: [], done: [], next: piece }, SERVER, at);
  await recordFindings.execute(app, { looks, done: rows.map(({ seq }) => seq), next: [] }, SERVER, at);
  return true;
}

/** What is still to be looked at because of what is looked at now. */
class Next {
  readonly #refs = new Map<string, z.output<typeof reference>>();
  add(kind: "entry" | "access", ref: string): void {
    this.#refs.set(`${kind} ${ref}`, { kind, ref });
  }
  pieces(): z.output<typeof reference>[][] {
    const all = [...this.#refs.values()];
    const pieces: (typeof all)[] = [];
    for (let from = 0; from < all.length; from += MOST_WRITTEN) pieces.push(all.slice(from, from + MOST_WRITTEN));
    return pieces;
  }
}

/** Entries whose secret was seen by those whose access may have changed, or is that of another; nodes that follow one. */
async function broughtAlong(
  app: Galtry,
  index: OpenIndex,
  { nodes, people, marks }: { nodes: string[]; people: string[]; marks: string[] },
  next: Next,
): Promise<void> {
  for (const id of nodes) {
    for (const below of index.distinctBelow(id))
      if (below !== id && index.node(below)?.separate) next.add("access", below);
    const ids = [...index.below(id)].filter(({ type }) => type === "entry").map((node) => node.id);
    if (ids.length === 0) continue;
    // Sightings, where somebody may have more or less; findings, where they lie in another vault now.
    const concerned = await app.db.all<{ id: string }>(sql`
      select i.value as id from json_each(${JSON.stringify(ids)}) i
      where exists (select 1 from sightings s where s.entry_id = i.value)
        or exists (select 1 from findings f where f.node_id = i.value and f.ended_at is null and f.vault_id <> ${index.node(id)!.vaultId})`);
    for (const one of concerned) next.add("entry", one.id);
  }
  if (people.length > 0) {
    const all = sql`(select value from json_each(${JSON.stringify(people)}))`;
    const seen = await app.db.all<{ id: string }>(
      sql`select distinct entry_id as id from sightings where person_id in ${all}`,
    );
    for (const { id } of seen) next.add("entry", id);
    const held = await app.db.all<{ id: string }>(sql`
      select distinct g.node_id as id from grants g
        where g.valid_until is null and g.subject_kind = 'person' and g.subject_id in ${all}
      union select g.node_id from (select distinct m.group_id from memberships m where m.person_id in ${all}) h
        cross join grants g on g.subject_id = h.group_id and g.subject_kind = 'group' and g.valid_until is null`);
    for (const { id } of held) next.add("access", id);
    // How many people there are changes with each of them, by Everyone too.
    const limited = await app.db.all<{ id: string }>(
      sql`select node_id as id from vaults where most_people is not null`,
    );
    for (const { id } of limited) next.add("access", id);
  }
  if (marks.length === 0) return;
  const alike = await app.db.all<{ id: string }>(sql`
    select distinct e.node_id as id from fingerprints f join entries e on e.version_id = f.version_id
    where f.fingerprint in (select value from json_each(${JSON.stringify(marks)})) and f.field = ${PASSWORD}`);
  for (const { id } of alike) next.add("entry", id);
}

type Looked = z.input<typeof looked>;
const NOTHING: Look = { findings: [], dueAt: null };

async function lookAtEntries(app: Galtry, index: OpenIndex, ids: string[], at: number, next: Next): Promise<Looked[]> {
  if (ids.length === 0) return [];
  const facts = await entryFacts(app.db, index, ids, at);
  // What has no place, or is at rest, has no finding of its own: looked at for one another, they would never end.
  const active = (id: string) => index.node(id) !== undefined && facts.get(id)?.atRest === false;
  await alikeWithout(
    app,
    index,
    ids.filter((id) => active(id) && facts.get(id)!.reused),
    next,
  );
  return ids.flatMap((id) => {
    const node = index.node(id);
    const known = facts.get(id);
    // Without a place it is being brought in, or gone: nothing is said of it.
    return [
      {
        nodeId: id,
        vaultId: node?.vaultId ?? "",
        part: "entry" as const,
        ...(node && known ? lookAtEntry(known, at) : NOTHING),
      },
    ];
  });
}

/** Others with the same secret of which that is not known yet: once for each secret, however many have it. */
async function alikeWithout(app: Galtry, index: OpenIndex, ids: string[], next: Next): Promise<void> {
  if (ids.length === 0) return;
  const rows = await app.db.all<{ id: string }>(sql`
    with marks(mark) as materialized (
      select distinct f.fingerprint from entries e join fingerprints f on f.version_id = e.version_id and f.field = ${PASSWORD}
      where e.node_id in (select value from json_each(${JSON.stringify(ids)}))
    )
    select o.node_id as id from marks
      cross join fingerprints g on g.fingerprint = marks.mark and g.field = ${PASSWORD}
      cross join entries o on o.version_id = g.version_id
    where o.binned_at is null and o.aside_at is null
      and not exists (select 1 from findings x where x.node_id = o.node_id and x.kind = 'reused' and x.key = '' and x.ended_at is null)`);
  for (const { id } of rows) if (!ids.includes(id) && index.node(id)) next.add("entry", id);
}

/** Access that was not used, on the way to what has been used now. */
async function usedAgain(app: Galtry, index: OpenIndex, ids: string[], next: Next): Promise<void> {
  const ways = [...new Set(ids.flatMap((id) => index.path(id).map((node) => node.id)))];
  const rows = await app.db.all<{ id: string }>(sql`
    select distinct node_id as id from findings
    where node_id in (select value from json_each(${JSON.stringify(ways)})) and ended_at is null and kind = 'unused-access'`);
  for (const { id } of rows) next.add("access", id);
}

async function lookAtNodes(app: Galtry, index: OpenIndex, ids: string[], at: number): Promise<Looked[]> {
  if (ids.length === 0) return [];
  const facts = await accessFacts(app.db, index, ids, at);
  return ids.map((nodeId) => {
    const known = facts.get(nodeId);
    const look = known ? lookAtAccess(known, at) : NOTHING;
    return { nodeId, vaultId: index.node(nodeId)?.vaultId ?? "", part: "access" as const, ...look };
  });
}

const LOOK_EVERY_MS = 1_000;
/** So long after the last page or act people are taken to be at work. */
const WORKING_MS = 2_000;

/** As long as this process lives. */
export async function keepChecking(app: Galtry): Promise<void> {
  for (;;) {
    const began = performance.now();
    const more = await look().catch((error) => {
      failed(WORK, error);
      return false;
    });
    // Half the time at most, and little of it while people work.
    const share = Date.now() - (app.askedAt ?? 0) < WORKING_MS ? 4 : 1;
    await sleep(more ? share * (performance.now() - began) : LOOK_EVERY_MS, undefined, { ref: false });
  }
  async function look(): Promise<boolean> {
    // Asked each second, and so without writing anything.
    const found = await app.db.get<{ any: number }>(sql`
      select exists (select 1 from unchecked) or exists (select 1 from checks where due_at <= ${Date.now()}) as any`);
    if (found?.any !== 1 || !(await holdLease(app, WORK))) return false;
    return checkSome(app).finally(() => endLease(app, WORK));
  }
}
