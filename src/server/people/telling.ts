/** Notices to those whom a change of people concerns: stewards of what they reach, owners where a steward is lacking. */

import { and, eq, inArray, isNull } from "drizzle-orm";
import { atLeast } from "../../core/access";
import type { NoticeSort } from "../../core/people/notices";
import { loadReachIn, loadSteps } from "../access/load";
import { nodeName } from "../access/nodeName";
import { loadPerson, type Person } from "../access/person";
import { stewardsAt, withoutSteward } from "../access/stewards";
import { inJson } from "../database/bulk";
import type { Reader, Transaction } from "../database/client";
import { grants, notices, personStates, places } from "../database/schema";
import { uuidv7 } from "../ids";
import { whenMailed } from "../mail/noticeTime";
import { telling as t } from "./strings";

export interface NewNotice {
  /** The person who reads it. */
  to: string;
  at: number;
  sort: NoticeSort;
  text: string;
  nodeId?: string | null;
  /** The id of what waits for the reader: once that is dealt with, the notice is dismissed by itself. */
  about?: string;
  /** A mail of its own says the same. */
  mailed?: boolean;
}

export async function addNotice(
  tx: Transaction,
  { to, nodeId = null, about, mailed = false, ...notice }: NewNotice,
): Promise<void> {
  const mailAt = mailed ? null : await whenMailed(tx, to, notice.sort, notice.at);
  await tx.insert(notices).values({ id: uuidv7(), personId: to, nodeId, about: about ?? null, mailAt, ...notice });
}

/** What waited is dealt with, by everybody or by one person: what said so is dismissed. */
export async function settleNotices(tx: Transaction, about: string, at: number, personId?: string): Promise<void> {
  await tx
    .update(notices)
    .set({ putAwayAt: at })
    .where(
      and(
        eq(notices.about, about),
        isNull(notices.putAwayAt),
        personId === undefined ? undefined : eq(notices.personId, personId),
      ),
    );
}

/** Tells the stewards of each node, but not whoever did it, or who knows it already; `says` gets the node's name. */
export async function tellStewards(
  tx: Transaction,
  nodeIds: readonly string[],
  says: (node: string) => string,
  at: number,
  except: string | null | ReadonlySet<string>,
  sort: NoticeSort = "watch",
): Promise<void> {
  if (nodeIds.length === 0) return;
  const told = (id: string): boolean => (typeof except === "object" && except ? except.has(id) : id === except);
  for (const nodeId of new Set(nodeIds)) {
    const text = says(await nodeName(tx, nodeId));
    for (const person of await stewardsAt(tx, nodeId, at))
      if (!told(person.id)) await addNotice(tx, { to: person.id, at, sort, text, nodeId });
  }
}

/** Nodes on which a group has a grant. */
export async function nodesOfGroup(tx: Reader, groupId: string): Promise<{ nodeId: string; level: string }[]> {
  return tx
    .select({ nodeId: grants.nodeId, level: grants.level })
    .from(grants)
    .where(and(eq(grants.subjectId, groupId), isNull(grants.validUntil)));
}

/** Vaults in which a person has Reveal or more on something. */
export async function vaultsRevealedTo(tx: Reader, personId: string, at: number): Promise<string[]> {
  const person = await loadPerson(tx, personId, at);
  if (!person) return [];
  // What they had before a suspension counts too: whoever takes the link over would have it.
  const named = await vaultsNaming(tx, person);
  const { levels, node } = await loadReachIn(tx, { ...person, standing: "active" }, named, at);
  return [...new Set([...levels].filter(([, level]) => atLeast(level, "reveal")).map(([id]) => node(id)!.vaultId))];
}

/** Vaults in which a grant names a person, one of their groups or Everyone: outside them they reach nothing. */
async function vaultsNaming(tx: Reader, person: Person): Promise<string[]> {
  const rows = await tx
    .selectDistinct({ vaultId: places.vaultId })
    .from(grants)
    .innerJoin(places, and(eq(places.nodeId, grants.nodeId), isNull(places.validUntil)))
    .where(
      and(
        isNull(grants.validUntil),
        inJson(grants.subjectId, [person.id, ...person.groups, ...(person.guest ? [] : [""])]),
      ),
    );
  return rows.map((row) => row.vaultId);
}

/**
 * Does a change that is never refused for leaving something without a steward, and tells the owners what it left.
 * @param personId whose stewardship may end
 */
export async function tellingOwners(
  tx: Transaction,
  personId: string,
  name: string,
  at: number,
  change: () => Promise<void>,
): Promise<void> {
  const person = await loadPerson(tx, personId, at);
  const held = await tx
    .select({ nodeId: grants.nodeId })
    .from(grants)
    .where(
      and(
        isNull(grants.validUntil),
        eq(grants.level, "steward"),
        inArray(grants.subjectId, [personId, ...(person?.groups ?? [])]),
      ),
    );
  const unstewarded = async () =>
    (await Promise.all([...new Set(held.map((row) => row.nodeId))].map((id) => withoutSteward(tx, id, at)))).flat();
  const before = new Set(held.length > 0 ? await unstewarded() : []);
  await change();
  if (held.length === 0) return;
  const left = [...new Set(await unstewarded())].filter((id) => !before.has(id));
  if (left.length === 0) return;
  const owners = await tx
    .select({ id: personStates.personId })
    .from(personStates)
    .where(and(eq(personStates.role, "owner"), eq(personStates.standing, "active"), isNull(personStates.validUntil)));
  for (const nodeId of left) {
    const { path } = await loadSteps(tx, nodeId);
    const vault = await nodeName(tx, path[0]!.vaultId);
    const what = path[0]!.type === "vault" ? t.theVault(vault) : t.anEntryIn(vault);
    for (const owner of owners)
      await addNotice(tx, { to: owner.id, at, sort: "watch", text: t.hasNoStewardWasTheLastOne(what, name) });
  }
}
