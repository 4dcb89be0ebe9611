/** One person, with what they have and why: in full for themselves, for others as far as each is steward. */
import { and, eq, isNull } from "drizzle-orm";
import { z } from "zod";
import { explain, Lookup, type Namer, type Reach } from "../../core/access";
import { sayDay, sayTime } from "../../core/time";
import { reachOf } from "../access/load";
import { loadOrganised } from "../access/organised";
import { loadPerson, standingAt } from "../access/person";
import { toSubject } from "../access/rows";
import { loadNames } from "../access/who";
import { byName } from "../byName";
import { isAdministrator, readsAll } from "../caller";
import { idSchema, query } from "../command";
import { inJson } from "../database/bulk";
import type { Reader } from "../database/client";
import { entries, folders, groups, memberships, personStates, persons, places, vaults } from "../database/schema";
import { notFound } from "../refused";
import { inUse } from "./teams";

export interface Holds {
  nodeId: string;
  what: string;
  vault: { id: string; name: string };
  type: "vault" | "folder" | "entry";
  /** Null where the reader cannot open it. */
  link: string | null;
  level: Reach;
  sentence: string;
  /** Entries for which it is so. */
  entries: number;
}

export const personPage = query({
  name: "people.personPage",
  input: z.strictObject({ personId: idSchema }),
  by: ["person"],
  offMainThread: true,
  allow: async ({ tx, me, input, at }) => {
    const reach = reachOf(tx, me, at);
    const self = input.personId === me.id;
    const reads = me.role === "auditor";
    const stewards = reads
      ? await allNodes(tx)
      : [...reach.levels].filter(([, level]) => level === "steward").map(([id]) => id);
    if (!self && (me.guest || (stewards.length === 0 && !readsAll(me.role)))) throw notFound();
    const person = await loadPerson(tx, input.personId, at);
    if (!person) throw notFound();
    const seen = self ? [...reach.levels.keys()] : stewards;
    return { self, reads, person, seen: new Set(seen), nodeAt: reach.node };
  },
  run: async ({ tx, me, at, allowed }) => {
    const { self, reads, person, seen, nodeAt } = allowed;
    const organised = await loadOrganised(tx, new Set([...seen].map((id) => nodeAt(id)!.vaultId)));
    const mine = new Set([person.id, "", ...(tx.access?.person(person.id)?.held ?? []).map(({ groupId }) => groupId)]);
    const speaking = organised.rows.filter((row) => mine.has(row.subjectId));
    const names = await loadNames(
      tx,
      speaking.flatMap((row) => [row.subjectId, row.nodeId]),
    );
    const lookup = new Lookup(organised);
    const member = lookup.person.get(person.id);
    const nodes = new Map(organised.nodes.map((node) => [node.id, node]));
    const given = new Map(organised.rows.map((row) => [row.id, row.validFrom]));
    const vaultIds = [...new Set([...seen].map((id) => nodeAt(id)!.vaultId))];
    const [vaultRows, folderRows, entryRows] = await Promise.all([
      tx.select({ id: vaults.nodeId, name: vaults.name }).from(vaults).where(inJson(vaults.nodeId, vaultIds)),
      tx
        .select({ id: folders.nodeId, name: folders.name })
        .from(folders)
        .where(and(inJson(folders.nodeId, [...seen]), isNull(folders.binnedAt))),
      tx
        .select({ id: entries.nodeId, name: entries.name })
        .from(entries)
        .where(and(inJson(entries.nodeId, [...seen]), isNull(entries.binnedAt))),
    ]);
    const called = new Map([...vaultRows, ...folderRows, ...entryRows].map(({ id, name }) => [id, name]));
    // What decides about one node decides about all of its region: a line for each.
    const counts = new Map<string, number>();
    for (const id of seen) {
      const region = lookup.region(id);
      if (called.has(id)) counts.set(region, (counts.get(region) ?? 0) + (nodes.get(id)?.type === "entry" ? 1 : 0));
    }
    const lines: Holds[] = [];
    for (const [id, count] of counts) {
      const node = nodes.get(id);
      const name = called.get(id);
      if (!member || !node || name === undefined) continue;
      // A guest learns no name around what they were asked into.
      if (!seen.has(id)) continue;
      const resolution = lookup.resolve(member, id, at);
      if (resolution.level === "none" && resolution.because.length === 0) continue;
      const namer: Namer = {
        subject: names.subject,
        node: (where, distance) => (distance === 0 ? `this ${node.type}` : names.node(where)),
        since: (grant) => {
          const start = grant.from ?? given.get(grant.id) ?? null;
          return start === null ? null : sayDay(start, at, names.zone);
        },
        until: (grant) => (grant.until === null ? null : sayTime(grant.until, at, names.zone)),
      };
      const whose = { name: self ? "you" : person.name, personId: person.id };
      lines.push({
        ...{ nodeId: id, what: name, type: node.type, level: resolution.level, entries: count },
        // Whoever has Use on something inside knows the vault's name, but for a guest.
        vault: {
          id: node.vaultId,
          name: !me.guest || seen.has(node.vaultId) ? (called.get(node.vaultId) ?? "") : "",
        },
        link: reads ? null : linkTo(node),
        sentence: explain(resolution, namer, whose),
      });
    }
    const gave = organised.rows
      .filter((row) => row.givenBy === person.id && seen.has(row.nodeId) && called.has(row.nodeId))
      .toSorted((a, b) => b.validFrom - a.validFrom);
    const to = await loadNames(
      tx,
      gave.slice(0, MOST_GIVEN).map((row) => row.subjectId),
    );
    const [row] = await tx
      .select({ mail: persons.mail, standing: standingAt(at) })
      .from(persons)
      .innerJoin(personStates, and(eq(personStates.personId, persons.id), isNull(personStates.validUntil)))
      .where(eq(persons.id, person.id));
    const held = me.guest
      ? []
      : await tx
          .select({ id: groups.id, name: groups.name })
          .from(memberships)
          .innerJoin(groups, eq(groups.id, memberships.groupId))
          .where(and(eq(memberships.personId, person.id), isNull(memberships.validUntil)));
    return {
      id: person.id,
      self,
      name: person.name,
      mail: row!.mail,
      role: person.role,
      standing: row!.standing,
      ends: person.ends,
      groups: self || readsAll(me.role) ? held.sort(byName) : [],
      /** What they gave, as far as the reader is steward there; the latest first. */
      gave: {
        count: gave.length,
        lines: gave.slice(0, MOST_GIVEN).map((given) => ({
          id: given.id,
          level: given.level,
          to: to.subject(toSubject(given.subjectKind, given.subjectId)),
          what: called.get(given.nodeId) ?? "",
          link: reads ? null : linkTo(nodes.get(given.nodeId)),
          since: given.validFrom,
          until: given.until,
        })),
      },
      elsewhere: !self && isAdministrator(me.role) ? await countElsewhere(tx, person.id, seen, at) : [],
      lines: lines.sort((a, b) => a.vault.name.localeCompare(b.vault.name) || rankOf(a) - rankOf(b) || byWhat(a, b)),
    };
  },
});

/**
 * For administrators: how much a person has beyond what the reader is steward of, by vault. They know the names of
 * vaults, and of nothing in them.
 */
async function countElsewhere(
  tx: Reader,
  personId: string,
  seen: ReadonlySet<string>,
  at: number,
): Promise<{ vaultId: string; vault: string; entries: number }[]> {
  const who = tx.access?.who(personId, at);
  if (!tx.access || !who) return [];
  const reached = [...tx.access.reachedBy(who, at).keys()].filter((id) => !seen.has(id));
  const counts = new Map<string, number>();
  for (const id of await inUse(tx, reached)) {
    const vaultId = tx.access.node(id)?.vaultId;
    if (vaultId !== undefined) counts.set(vaultId, (counts.get(vaultId) ?? 0) + 1);
  }
  const named = await tx
    .select({ id: vaults.nodeId, name: vaults.name })
    .from(vaults)
    .where(inJson(vaults.nodeId, [...counts.keys()]));
  return named
    .map(({ id, name }) => ({ vaultId: id, vault: name, entries: counts.get(id) ?? 0 }))
    .sort((a, b) => a.vault.localeCompare(b.vault));
}

const allNodes = async (tx: Reader): Promise<string[]> =>
  (await tx.select({ id: places.nodeId }).from(places).where(isNull(places.validUntil))).map(({ id }) => id);

/** Of what somebody gave, so much stands on their page. */
const MOST_GIVEN = 30;

const linkTo = (node: { id: string; vaultId: string; type: Holds["type"] } | undefined): string =>
  !node
    ? "/"
    : node.type === "entry"
      ? `/entry/${node.id}`
      : node.type === "folder"
        ? `/vaults/${node.vaultId}/folder/${node.id}`
        : `/vaults/${node.id}`;

const rankOf = ({ type }: Holds): number => ["vault", "folder", "entry"].indexOf(type);
const byWhat = (a: Holds, b: Holds): number => a.what.localeCompare(b.what);
