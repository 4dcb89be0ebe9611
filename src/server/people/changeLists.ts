/**
 * Somebody has left, may see less than before, or has lost what their passwords stand in: what they have seen and still
 * works is shared out among its stewards, with a date. They are reminded, see how far the others are, and an owner sees
 * what is left. It is over once nothing of it works any more, but for what a steward has decided to leave as it is.
 */
import { and, desc, eq, isNull } from "drizzle-orm";
import { z } from "zod";
import { atLeast } from "../../core/access";
import type { ChangedBy } from "../../core/signin/changing";
import { sayDay } from "../../core/time";
import { reachOf, requireLevel, resolveAt } from "../access/load";
import { nodeName, nodeNames } from "../access/nodeName";
import { peopleNames } from "../access/peopleNames";
import { loadByRole, loadPerson, type Person } from "../access/person";
import { regionsOf, stewardsOfEach } from "../access/stewards";
import { byName } from "../byName";
import { isAdministrator } from "../caller";
import { type Context, command, idSchema, instantSchema, none, query, type Topic } from "../command";
import { bulkInsert } from "../database/bulk";
import type { Reader, Transaction } from "../database/client";
import { type ChangeListSort, changeListItems, changeLists } from "../database/schema";
import { uuidv7 } from "../ids";
import { timeZone } from "../organisation";
import { notFound, Refused } from "../refused";
import { requireAdministrator } from "./administrators";
import { type StillWorks, stillWorks } from "./seenSecrets";
import { changeLists as t } from "./strings";
import { addNotice, settleNotices } from "./telling";

const DAY = 86_400_000;
/** Where nobody has said otherwise. */
const USUAL_DAYS = 7;
const LONGEST_DAYS = 366;
/** Before the date, and again each so many days after it. */
const REMIND_BEFORE_MS = 2 * DAY;
const REMIND_EVERY_MS = 3 * DAY;

type List = typeof changeLists.$inferSelect;
type Item = typeof changeListItems.$inferSelect;

/** What a notice of a list is about: whoever reads it is led to the page of the person. */
const ABOUT = "changes ";
const aboutList = ({ personId, id }: Pick<List, "personId" | "id">) => `${ABOUT}${personId} ${id}`;
export const pageOfNotice = (about: string | null): string | null =>
  about?.startsWith(ABOUT) ? `/people/${about.slice(ABOUT.length).split(" ")[0]}/known` : null;

/** Also one that is over. */
async function newestListOf(tx: Reader, personId: string): Promise<List | undefined> {
  const [list] = await tx
    .select()
    .from(changeLists)
    .where(eq(changeLists.personId, personId))
    .orderBy(desc(changeLists.openedAt), desc(changeLists.id))
    .limit(1);
  return list;
}

const itemsOf = (tx: Reader, listId: string): Promise<Item[]> =>
  tx.select().from(changeListItems).where(eq(changeListItems.listId, listId));

interface State {
  item: Item;
  /** The current version of what still works; null once nothing does. */
  works: StillWorks | null;
  /** Somebody has to do something about it. */
  open: boolean;
  left: boolean;
}

/** Each item as it is now. */
async function statesOf(tx: Reader, list: List): Promise<State[]> {
  const items = await itemsOf(tx, list.id);
  const still = new Map((await stillWorks(tx, list.personId, list.openedAt)).map((one) => [one.entryId, one]));
  return items.map((item) => {
    const works = still.get(item.entryId) ?? null;
    const left = works !== null && item.leftVersionId === works.versionId;
    return { item, works, left, open: works !== null && !left };
  });
}

/** Stewards by the entries that are theirs to change; the person themselves is not asked. */
async function sharesOf(tx: Reader, entryIds: readonly string[], personId: string, at: number) {
  const shares = new Map<string, { name: string; entryIds: string[] }>();
  for (const [entryId, stewards] of await stewardsOfEach(tx, entryIds, at))
    for (const { id, name } of stewards) {
      if (id === personId) continue;
      const share = shares.get(id) ?? { name, entryIds: [] };
      share.entryIds.push(entryId);
      shares.set(id, share);
    }
  return shares;
}

interface Opening {
  person: Pick<Person, "id" | "name">;
  sort: ChangeListSort;
  why: string;
  dueAt: number | null;
  by: string | null;
  at: number;
}

/**
 * Opens a list in place of one that may be open, and tells the stewards of their share.
 * @returns whom it told; null where they have seen nothing that has to be changed
 */
export async function openChangeList(tx: Transaction, opening: Opening): Promise<string[] | null> {
  const { person, sort, why, by, at } = opening;
  const before = await newestListOf(tx, person.id);
  if (before && before.endedAt === null) await endList(tx, before, at);
  let seen = await stillWorks(tx, person.id, at);
  if (sort === "lowered") seen = await noLongerRevealed(tx, person.id, seen, at);
  if (seen.length === 0) return null;
  const list: List = {
    ...{ id: uuidv7(), personId: person.id, sort, why, openedAt: at, openedBy: by, remindedAt: null, endedAt: null },
    dueAt: opening.dueAt ?? at + USUAL_DAYS * DAY,
  };
  await tx.insert(changeLists).values(list);
  await bulkInsert(
    tx,
    changeListItems,
    seen.map(({ entryId }) => ({ listId: list.id, entryId, leftWhy: "" })),
  );
  const open = seen.map(({ entryId }) => entryId);
  return tellShares(tx, list, open, at, (count, until) => t.toChange[sort](person.name, count, until), by);
}

/** What they could Reveal once and no longer can. */
async function noLongerRevealed(tx: Reader, personId: string, seen: readonly StillWorks[], at: number) {
  const regions = await regionsOf(
    tx,
    seen.map(({ entryId }) => entryId),
  );
  const revealed = new Set<string>();
  for (const region of new Set(regions.values())) {
    const now = await resolveAt(tx, personId, region, at);
    if (now && atLeast(now.resolution.level, "reveal")) revealed.add(region);
  }
  return seen.filter(({ entryId }) => !revealed.has(regions.get(entryId) ?? ""));
}

async function tellShares(
  tx: Transaction,
  list: List,
  open: readonly string[],
  at: number,
  says: (count: number, until: string) => string,
  except: string | null,
): Promise<string[]> {
  const until = sayDay(list.dueAt, at, await timeZone(tx));
  const shares = await sharesOf(tx, open, list.personId, at);
  for (const [to, { entryIds }] of shares)
    if (to !== except)
      await addNotice(tx, { to, at, sort: "upkeep", text: says(entryIds.length, until), about: aboutList(list) });
  return [...shares.keys()].filter((id) => id !== except);
}

async function endList(tx: Transaction, list: List, at: number): Promise<void> {
  await tx.update(changeLists).set({ endedAt: at }).where(eq(changeLists.id, list.id));
  await settleNotices(tx, aboutList(list), at);
}

/** Somebody is back: what they know is theirs to know again. */
export async function endListOf(tx: Transaction, personId: string, at: number): Promise<void> {
  const list = await newestListOf(tx, personId);
  if (list && list.endedAt === null) await endList(tx, list, at);
}

const dueSchema = instantSchema.default(null);

function requireDue(dueAt: number | null, at: number): void {
  if (dueAt !== null && dueAt <= at) throw new Refused("bad-input", t.dateIsPast, "dueAt");
  if (dueAt !== null && dueAt > at + LONGEST_DAYS * DAY) throw new Refused("bad-input", t.atMostAYear, "dueAt");
}

/** An administrator has what somebody knows changed by its stewards. */
export const askForChanges = command({
  name: "people.askForChanges",
  input: z.strictObject({
    personId: idSchema,
    sort: z.enum(["lowered", "lost"]),
    why: z.string().trim().max(300),
    dueAt: dueSchema,
  }),
  by: ["person"],
  allow: async (context) => {
    const { tx, input, at } = context;
    requireAdministrator(context);
    const person = await loadPerson(tx, input.personId, at);
    if (!person) throw notFound();
    if (input.why === "") throw new Refused("bad-input", t.giveAReason, "why");
    requireDue(input.dueAt, at);
    return { person };
  },
  run: async ({ tx, input, me, at, allowed: { person } }) => {
    // Whoever has left knows it for good, whatever the reason to ask again.
    const sort = person.standing === "leaver" ? ("left" as const) : input.sort;
    const told = await openChangeList(tx, { person, sort, why: input.why, dueAt: input.dueAt, by: me.id, at });
    if (told === null) throw new Refused("conflict", t.nothingToChange(person.name));
    return { sort, told };
  },
  journal: ({ input, allowed, result }) => ({
    subject: input.personId,
    details: { sort: result.sort, why: input.why },
    names: { [input.personId]: allowed.person.name },
  }),
  says: ({ subject, details, why }) =>
    details.sort === "lost"
      ? `asked that everything ${subject} has seen is changed${why}`
      : `asked that what ${subject} has seen and may no longer see is changed${why}`,
  tell: ({ input, result }): Topic[] => [
    `person:${input.personId}`,
    "administrators",
    ...result.told.map((id): Topic => `person:${id}`),
  ],
});

async function requireList(tx: Reader, id: string): Promise<List> {
  const [list] = await tx.select().from(changeLists).where(eq(changeLists.id, id));
  if (!list) throw notFound();
  if (list.endedAt !== null) throw new Refused("conflict", t.isOver);
  return list;
}

export const setChangeListDate = command({
  name: "people.setChangeListDate",
  input: z.strictObject({ listId: idSchema, dueAt: instantSchema.unwrap() }),
  by: ["person"],
  allow: async (context) => {
    requireAdministrator(context);
    requireDue(context.input.dueAt, context.at);
    const list = await requireList(context.tx, context.input.listId);
    return { list, name: (await loadPerson(context.tx, list.personId, context.at))?.name ?? "" };
  },
  run: async ({ tx, input }) => {
    // Whoever was reminded of the old date is reminded of the new one.
    await tx.update(changeLists).set({ dueAt: input.dueAt, remindedAt: null }).where(eq(changeLists.id, input.listId));
  },
  journal: ({ input, allowed }) => ({
    subject: allowed.list.personId,
    details: { until: input.dueAt },
    names: { [allowed.list.personId]: allowed.name },
  }),
  says: ({ subject, until }) => `asked that what ${subject} has seen is changed${until}`,
  tell: ({ allowed }) => [`person:${allowed.list.personId}`, "administrators"],
});

const ofItem = z.strictObject({ listId: idSchema, entryId: idSchema });

/** Stewards decide about what is theirs, and nobody about what others look after. */
async function requireItem(context: Pick<Context<z.output<typeof ofItem>>, "tx" | "me" | "at" | "input">) {
  const { tx, input } = context;
  const { vaultId } = await requireLevel(context, input.entryId, "steward");
  const list = await requireList(tx, input.listId);
  const found = (await statesOf(tx, list)).find(({ item }) => item.entryId === input.entryId);
  if (!found) throw notFound();
  const person = await loadPerson(tx, list.personId, context.at);
  return { list, ...found, vaultId, name: await nodeName(tx, input.entryId), person: person?.name ?? "" };
}

/** What is not worth changing stays as it is, with a reason that the other stewards and the owners read. */
export const leaveUnchanged = command({
  name: "people.leaveUnchanged",
  input: ofItem.extend({ why: z.string().trim().max(300) }),
  by: ["person"],
  allow: async (context) => {
    const found = await requireItem(context);
    if (context.input.why === "") throw new Refused("bad-input", t.giveAReason, "why");
    if (!found.works) throw new Refused("conflict", t.worksNoMore);
    return { ...found, works: found.works };
  },
  run: async ({ tx, input, me, at, allowed }) => {
    await tx
      .update(changeListItems)
      .set({ leftVersionId: allowed.works.versionId, leftWhy: input.why, leftBy: me.id, leftAt: at })
      .where(and(eq(changeListItems.listId, input.listId), eq(changeListItems.entryId, input.entryId)));
  },
  journal: ({ input, allowed }) => ({
    ...{ node: input.entryId, vault: allowed.vaultId, subject: allowed.list.personId },
    details: { why: input.why },
    names: { [input.entryId]: allowed.name, [allowed.list.personId]: allowed.person },
  }),
  says: ({ it, subject, why }) => `left the password of ${it} unchanged, which ${subject} has seen${why}`,
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`, "administrators"],
});

export const undoLeaveUnchanged = command({
  name: "people.undoLeaveUnchanged",
  input: ofItem,
  by: ["person"],
  allow: async (context) => {
    const found = await requireItem(context);
    if (!found.left) throw new Refused("conflict", t.isToBeChanged);
    return found;
  },
  run: async ({ tx, input }) => {
    await tx
      .update(changeListItems)
      .set({ leftVersionId: null, leftWhy: "", leftBy: null, leftAt: null })
      .where(and(eq(changeListItems.listId, input.listId), eq(changeListItems.entryId, input.entryId)));
  },
  journal: ({ input, allowed }) => ({
    ...{ node: input.entryId, vault: allowed.vaultId, subject: allowed.list.personId },
    names: { [input.entryId]: allowed.name, [allowed.list.personId]: allowed.person },
  }),
  says: ({ it, subject }) =>
    `decided that the password of ${it}, which ${subject} has seen, is to be changed after all`,
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`, "administrators"],
});

/** The moment of the last reminder that is due, where one is and nobody was told since. */
function reminderDue({ openedAt, dueAt, remindedAt }: List, at: number): boolean {
  const since = Math.max(openedAt, remindedAt ?? 0);
  const moments = [dueAt - REMIND_BEFORE_MS, dueAt];
  if (at > dueAt) moments.push(dueAt + Math.floor((at - dueAt) / REMIND_EVERY_MS) * REMIND_EVERY_MS);
  return moments.some((moment) => moment > since && moment <= at);
}

/** Follows what is open: what is done, who is to be reminded, and what is over. */
export const followChangeLists = command({
  name: "people.followChangeLists",
  input: none,
  by: ["server"],
  lowPriority: true,
  allow: () => undefined,
  run: async ({ tx, at }): Promise<string[]> => {
    const lists = await tx.select().from(changeLists).where(isNull(changeLists.endedAt));
    const told = new Set<string>();
    for (const list of lists) for (const id of await follow(tx, list, at)) told.add(id);
    return [...told];
  },
  journal: null,
  tell: ({ result }) => (result.length === 0 ? [] : ["administrators", ...result.map((id): Topic => `person:${id}`)]),
});

async function follow(tx: Transaction, list: List, at: number): Promise<string[]> {
  const states = await statesOf(tx, list);
  const open = states.filter((state) => state.open).map(({ item }) => item.entryId);
  const name = (await loadPerson(tx, list.personId, at))?.name ?? "";
  const owners = async (text: string, about?: string) => {
    // And whoever asked, as long as they may.
    const to = (await loadByRole(tx, ["owner", "administrator"], at))
      .filter(({ id, role, standing }) => standing === "active" && (role === "owner" || id === list.openedBy))
      .map(({ id }) => id)
      .filter((id) => id !== list.personId);
    for (const id of to) await addNotice(tx, { to: id, at, sort: "upkeep", text, about });
    return to;
  };
  if (open.length === 0) {
    await endList(tx, list, at);
    return owners(t.allChanged(name, states.filter(({ left }) => left).length));
  }
  if (!reminderDue(list, at)) return [];
  await settleNotices(tx, aboutList(list), at);
  await tx.update(changeLists).set({ remindedAt: at }).where(eq(changeLists.id, list.id));
  const told = await tellShares(tx, list, open, at, (count, until) => t.reminder(name, count, until), null);
  const late =
    list.dueAt <= at ? await owners(t.notChangedInTime(name, open.length, states.length), aboutList(list)) : [];
  return [...told, ...late];
}

export interface KnownRow {
  entryId: string;
  name: string;
  vault: string;
  at: number;
  hasCode: boolean;
  changedBy: ChangedBy;
  /** How many people have access to it. */
  usedBy: number;
  stewards: string[];
  left: { why: string; by: string; at: number } | null;
}

export interface Known {
  list: {
    id: string;
    sort: ChangeListSort;
    why: string;
    dueAt: number;
    openedAt: number;
    openedBy: string;
    endedAt: number | null;
    /** Of all that was on it. */
    of: number;
    open: number;
    left: number;
    /** How far each steward is. */
    progress: { name: string; open: number; of: number }[];
  } | null;
  /** Of which the reader is steward, the worst first. */
  seen: KnownRow[];
  /** For administrators: how many in vaults of which they are no steward. */
  elsewhere: { vault: string; count: number; stewards: string[] }[];
}

type Reading = Pick<Context<unknown, Reader>, "tx" | "me" | "at">;

/** What somebody has seen that still works, as far as its reader may know it. */
export async function knownBy({ tx, me, at }: Reading, personId: string): Promise<Known> {
  const list = await newestListOf(tx, personId);
  const running = list && list.endedAt === null ? list : undefined;
  const states = list ? await statesOf(tx, list) : [];
  const byEntry = new Map(states.map((state) => [state.item.entryId, state]));
  // While a list is open it says what counts: what they see from then on is what they may see.
  const works = running
    ? states.flatMap((state) => (state.works ? [state.works] : []))
    : await stillWorks(tx, personId, at);
  const named = await peopleNames(tx, me, [...states.map(({ item }) => item.leftBy), list?.openedBy ?? null]);
  const seen: KnownRow[] = [];
  const elsewhere = new Map<string, { vault: string; count: number; stewards: Set<string> }>();
  const { levels, node } = reachOf(tx, me, at);
  const ids = works.map(({ entryId }) => entryId);
  const vaultOf = (entryId: string): string => node(entryId)?.vaultId ?? "";
  const [stewards, called] = await Promise.all([
    stewardsOfEach(tx, ids, at),
    nodeNames(tx, [...ids.filter((id) => levels.get(id) === "steward"), ...ids.map(vaultOf)]),
  ]);
  for (const row of works) {
    const vaultId = vaultOf(row.entryId);
    const vault = called.get(vaultId) ?? "";
    const names = (stewards.get(row.entryId) ?? []).filter(({ id }) => id !== personId).map(({ name }) => name);
    // Named only to the stewards of it; everybody else reads how many.
    if (levels.get(row.entryId) === "steward") {
      const state = byEntry.get(row.entryId);
      const { versionId: _, ...rest } = row;
      seen.push({
        ...{ ...rest, name: called.get(row.entryId) ?? "", vault, stewards: names },
        usedBy: tx.access?.countWhoUse(row.entryId, at) ?? 0,
        left:
          running && state?.left
            ? { why: state.item.leftWhy, by: named(state.item.leftBy), at: state.item.leftAt! }
            : null,
      });
    } else if (!running || byEntry.get(row.entryId)?.open) {
      const found = elsewhere.get(vaultId) ?? { vault, count: 0, stewards: new Set<string>() };
      found.count += 1;
      for (const name of names) found.stewards.add(name);
      elsewhere.set(vaultId, found);
    }
  }
  seen.sort(
    (a, b) =>
      Number(a.left !== null) - Number(b.left !== null) ||
      Number(a.hasCode) - Number(b.hasCode) ||
      b.usedBy - a.usedBy ||
      b.at - a.at,
  );
  return {
    list: list
      ? {
          ...{ id: list.id, sort: list.sort, why: list.why, dueAt: list.dueAt, openedAt: list.openedAt },
          ...{ openedBy: named(list.openedBy), endedAt: list.endedAt, of: states.length },
          open: states.filter(({ open }) => open).length,
          left: states.filter(({ left }) => left).length,
          progress: running ? await progressOf(tx, states, personId, at) : [],
        }
      : null,
    seen,
    elsewhere: isAdministrator(me.role)
      ? [...elsewhere.values()].map((one) => ({ ...one, stewards: [...one.stewards].sort() }))
      : [],
  };
}

async function progressOf(tx: Reader, states: readonly State[], personId: string, at: number) {
  const shares = await sharesOf(
    tx,
    states.map(({ item }) => item.entryId),
    personId,
    at,
  );
  const open = new Set(states.filter((state) => state.open).map(({ item }) => item.entryId));
  return [...shares.values()]
    .map(({ name, entryIds }) => ({ name, of: entryIds.length, open: entryIds.filter((id) => open.has(id)).length }))
    .sort(byName);
}

/** Its stewards while there is a list, and administrators at any time. */
async function requireKnowing({ tx, me, at }: Reading, personId: string): Promise<Person> {
  const person = await loadPerson(tx, personId, at);
  if (!person) throw notFound();
  if (isAdministrator(me.role)) return person;
  const list = await newestListOf(tx, personId);
  if (!list || me.id === personId) throw notFound();
  const { levels } = reachOf(tx, me, at);
  if ((await itemsOf(tx, list.id)).some(({ entryId }) => levels.get(entryId) === "steward")) return person;
  throw notFound();
}

/** What somebody knows, what of it has to be changed, and how far that is. */
export const knownPage = query({
  name: "people.knownPage",
  input: z.strictObject({ personId: idSchema }),
  by: ["person"],
  offMainThread: true,
  allow: (context) => requireKnowing(context, context.input.personId),
  run: async ({ tx, me, at, allowed: person }) => ({
    ...{ id: person.id, name: person.name, standing: person.standing },
    /** Opens lists, and sets their dates. */
    asks: isAdministrator(me.role),
    ...(await knownBy({ tx, me, at }, person.id)),
  }),
});

/** Lists in which something is the reader's to change. */
export const ownChangeLists = query({
  name: "people.ownChangeLists",
  input: none,
  by: ["person"],
  allow: () => undefined,
  run: async ({ tx, me, at }) => {
    const lists = await tx.select().from(changeLists).where(isNull(changeLists.endedAt)).orderBy(changeLists.dueAt);
    const found: { personId: string; name: string; sort: ChangeListSort; open: number; dueAt: number }[] = [];
    const { levels } = reachOf(tx, me, at);
    for (const list of lists) {
      if (list.personId === me.id) continue;
      const open = (await statesOf(tx, list)).filter(
        (state) => state.open && levels.get(state.item.entryId) === "steward",
      ).length;
      if (open === 0) continue;
      const person = await loadPerson(tx, list.personId, at);
      found.push({ personId: list.personId, name: person?.name ?? "", sort: list.sort, open, dueAt: list.dueAt });
    }
    return found;
  },
});
