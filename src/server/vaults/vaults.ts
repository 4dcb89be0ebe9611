/** Shared vaults: made by administrators, who are their first stewards. */
import { and, eq, gt, isNotNull, isNull, sql } from "drizzle-orm";
import { z } from "zod";
import { atLeast, type Reach } from "../../core/access";
import { counted } from "../../core/counted";
import { PASSWORD } from "../../core/kinds/kind";
import { ledgerViewSchema, PLAIN_VIEW } from "../../core/ledgerView";
import { pack } from "../../core/packed";
import type { FindingKind } from "../../core/upkeep/findings";
import { loadReachIn, reachOf, requireLevel } from "../access/load";
import type { OpenIndex } from "../access/openIndex";
import { byName, sortByName } from "../byName";
import { personIdOf } from "../caller";
import { command, idSchema, nameSchema, none, query } from "../command";
import { bulk, inJson } from "../database/bulk";
import type { Reader } from "../database/client";
import { entries, grants, imports, ledgerViews, nodes, places, vaults } from "../database/schema";
import { uuidv7 } from "../ids";
import { tellStewards } from "../people/telling";
import { notFound, Refused } from "../refused";
import { requireMaker } from "../rules/rules";
import { findingsIn } from "../upkeep/findingsPage";
import { lookAgainAt } from "../upkeep/lookingAgain";
import { yieldToEventLoop } from "../yieldToEventLoop";
import { eraseVault } from "./erasing";
import { kindsById } from "./kinds";
import { pictureAddress } from "./pictureAddress";
import { knowsVault, vaultNames } from "./places";
import { vaults as t } from "./strings";
import { isTakerOf } from "./takingOut";
import { makeVaultKey } from "./vaultKeys";

export const createVault = command({
  name: "vaults.createVault",
  input: z.strictObject({ name: nameSchema, description: z.string().trim().max(300).default("") }),
  by: ["person"],
  allow: ({ tx, role }) => requireMaker(tx, role, "vaults"),
  run: async ({ tx, input, caller, at, commandId, app }) => {
    const vaultId = uuidv7();
    const personId = personIdOf(caller);
    await tx.insert(nodes).values({ id: vaultId, type: "vault", createdAt: at, createdBy: personId });
    await tx
      .insert(places)
      .values({ id: uuidv7(), nodeId: vaultId, parentId: null, vaultId, validFrom: at, commandId });
    await tx.insert(vaults).values({ nodeId: vaultId, ...input });
    await makeVaultKey(tx, app.keys, vaultId, at);
    await tx.insert(grants).values({
      id: uuidv7(),
      nodeId: vaultId,
      subjectKind: "person",
      subjectId: personId,
      level: "steward",
      from: null,
      until: null,
      why: "created the vault",
      givenBy: personId,
      validFrom: at,
      commandId,
    });
    return { vaultId };
  },
  journal: ({ input, result }) => ({
    node: result.vaultId,
    vault: result.vaultId,
    names: { [result.vaultId]: input.name },
  }),
  says: ({ place }) => `created the vault${place("")}`,
  tell: ({ result }) => [`vault:${result.vaultId}`, "administrators"],
});

export const changeVault = command({
  name: "vaults.changeVault",
  input: z.strictObject({
    ...{ vaultId: idSchema, name: nameSchema },
    description: z.string().trim().max(300).default(""),
    /** More people than these are too many; null for any number. Left out, it stays as it is. */
    mostPeople: z.number().int().min(1).max(100_000).nullable().optional(),
  }),
  by: ["person"],
  allow: (context) => requireLevel(context, context.input.vaultId, "steward"),
  run: async ({ tx, input }) => {
    const changed = await tx
      .update(vaults)
      .set({
        ...{ name: input.name, description: input.description },
        ...(input.mostPeople !== undefined && { mostPeople: input.mostPeople }),
      })
      .where(eq(vaults.nodeId, input.vaultId))
      .returning();
    if (changed.length === 0) throw notFound();
    if (input.mostPeople !== undefined) await lookAgainAt(tx, sql`select ${input.vaultId}`, "access");
  },
  journal: ({ input }) => ({ node: input.vaultId, vault: input.vaultId, names: { [input.vaultId]: input.name } }),
  says: ({ place }) => `changed the vault${place("")}`,
  tell: ({ input }) => [`vault:${input.vaultId}`],
});

/** For good, with all that is in it: whoever deletes it is steward of everything there, and writes its name. */
export const deleteVault = command({
  name: "vaults.deleteVault",
  input: z.strictObject({ vaultId: idSchema, name: z.string().max(200) }),
  by: ["person"],
  allow: async (context) => {
    const { tx, input, me, at } = context;
    await requireLevel(context, input.vaultId, "steward");
    const [vault] = await tx.select().from(vaults).where(eq(vaults.nodeId, input.vaultId));
    if (!vault) throw notFound();
    if (input.name.trim() !== vault.name)
      throw new Refused("bad-input", t.typeTheVaultsNameToDeleteIt(vault.name), "name");
    const { levels, inVault } = await loadReachIn(tx, me, [input.vaultId], at);
    const inside = [...inVault(input.vaultId)];
    if (inside.some((node) => levels.get(node.id) !== "steward"))
      throw new Refused("not-allowed", t.somethingInThisVaultHasOther);
    return { vault, entries: inside.filter((node) => node.type === "entry").length };
  },
  run: async ({ tx, input, me, at }) => {
    await tellStewards(tx, [input.vaultId], (name) => t.deletedTheVaultForGood(me.name, name), at, me.id);
    await eraseVault(tx, input.vaultId, at);
  },
  journal: ({ input, allowed }) => ({
    node: input.vaultId,
    vault: input.vaultId,
    details: { entries: allowed.entries },
    names: { [input.vaultId]: allowed.vault.name },
  }),
  says: ({ details, place }) =>
    `deleted the vault${place("")} for good, with ${counted(Number(details.entries), "entry")}`,
  tell: () => ["everyone", "administrators"],
});

export interface VaultLine {
  id: string;
  name: string;
  description: string;
  level: Reach;
  entries: number;
  /** Address of its picture. */
  picture: string | null;
}

/** Vaults in which the caller reaches something. */
export const vaultList = query({
  name: "vaults.vaultList",
  input: none,
  by: ["person", "lanyard"],
  allow: () => undefined,
  run: async ({ tx, me, at }): Promise<VaultLine[]> => {
    const { levels, node } = reachOf(tx, me, at);
    const binned = new Set(
      (
        await tx
          .select({ id: entries.nodeId })
          .from(entries)
          .where(and(isNotNull(entries.binnedAt), inJson(entries.nodeId, [...levels.keys()])))
      ).map((row) => row.id),
    );
    const counts = new Map<string, number>();
    for (const id of levels.keys()) {
      const { vaultId, type } = node(id)!;
      if (!binned.has(id)) counts.set(vaultId, (counts.get(vaultId) ?? 0) + (type === "entry" ? 1 : 0));
    }
    const [rows, nameOf] = await Promise.all([
      tx
        .select()
        .from(vaults)
        .where(inJson(vaults.nodeId, [...counts.keys()])),
      vaultNames(tx, me, counts.keys(), at),
    ]);
    return rows
      .map(
        (row): VaultLine => ({
          id: row.nodeId,
          name: nameOf(row.nodeId),
          description: knowsVault(me, levels.get(row.nodeId)) ? row.description : "",
          level: levels.get(row.nodeId) ?? "none",
          entries: counts.get(row.nodeId) ?? 0,
          picture: knowsVault(me, levels.get(row.nodeId)) ? pictureAddress(row.nodeId, row.pictureId) : null,
        }),
      )
      .sort(byName);
  },
});

export interface LedgerRow {
  id: string;
  type: "folder" | "entry";
  /** The folder it is shown in; null at the top. */
  parentId: string | null;
  name: string;
  description: string;
  /** Its name. */
  kind: string;
  kindId: string;
  signInPage: string;
  tags: string[];
  createdAt: number;
  /** Last signed in with: by anybody for its stewards, by oneself for others. */
  usedAt: number | null;
  /** log10 of the guesses that find its weakest password; from Reveal up. */
  guesses: number | null;
  /** Entries of this vault that one may Reveal and that have the same password, itself included. */
  same: number | null;
  asideAt: number | null;
  /** Address of its picture. */
  picture: string | null;
  level: Reach;
  setHere: boolean;
  changedAt: number;
  binnedAt: number | null;
  /** The folder with which it went into the bin. */
  binnedWith: string | null;
  /** The finding of Upkeep that does most harm, and how many there are; only for its stewards. */
  finding: FindingKind | null;
  findings: number;
  /** Number of people who reach it; only for its stewards. */
  people: number | null;
}

type Kept = Omit<
  LedgerRow,
  "type" | "parentId" | "level" | "setHere" | "people" | "usedAt" | "guesses" | "same" | "kind" | "finding" | "findings"
>;

/** One vault's ledger: what the caller reaches in it, and the folders on the way. */
export const vaultLedger = query({
  name: "vaults.vaultLedger",
  offMainThread: true,
  input: z.strictObject({ vaultId: idSchema }),
  by: ["person"],
  allow: () => undefined,
  run: async ({ tx, me, input, at }) => {
    const person = me;
    const kinds = await kindsById(tx);
    const { levels, node: nodeAt, inVault, grants: own } = reachOf(tx, person, at);
    const levelAt = (id: string): Reach => levels.get(id) ?? "none";
    const inside = [...inVault(input.vaultId)].filter((node) => levels.has(node.id));
    const [vault] = await tx.select().from(vaults).where(eq(vaults.nodeId, input.vaultId));
    if (!vault || inside.length === 0) throw notFound();
    const level = levelAt(input.vaultId);
    const setHere = new Set(own.map((row) => row.nodeId));
    // Folders on the way to something reached are known by name, but to guests only from where they were asked in.
    const shown = new Set(inside.map((node) => node.id));
    if (!person.guest)
      for (const { id } of inside)
        for (let up = nodeAt(id)!.parent; up !== null && !shown.has(up); up = nodeAt(up)!.parent) shown.add(up);
    const placeOf = (id: string): string | null => {
      const up = nodeAt(id)!.parent;
      return up === null || up === input.vaultId || !shown.has(up) ? null : up;
    };
    const counts = peopleCounts(tx.access!, at);
    const used = await lastUses(tx, input.vaultId, person.id);
    const findingsOf = await findingsIn(tx, input.vaultId, at);
    const conditionOf = await passwordConditions(tx, input.vaultId, (id) => atLeast(levelAt(id), "reveal"));
    const [kept] = await tx
      .select({ view: ledgerViews.view })
      .from(ledgerViews)
      .where(and(eq(ledgerViews.personId, person.id), eq(ledgerViews.vaultId, input.vaultId)));
    // What came or went between two reads is not shown.
    const isShown = (row: Kept) => shown.has(row.id);
    const entryRows = (await keptEntries(tx, input.vaultId)).filter(isShown);
    const folderRows = (await keptFolders(tx, input.vaultId)).filter(isShown);
    await yieldToEventLoop();
    // Every field by name: ten thousand objects put together by spreading take several times as long.
    const line = (type: LedgerRow["type"], row: Kept, kind: string): LedgerRow => {
      const rowLevel = levelAt(row.id);
      const use = used.get(row.id);
      const { guesses, same } = conditionOf(row.id);
      const found = (rowLevel === "steward" && findingsOf.get(row.id)) || [];
      return {
        id: row.id,
        type,
        parentId: placeOf(row.id),
        name: row.name,
        description: row.description,
        kind,
        kindId: row.kindId,
        signInPage: row.signInPage,
        tags: row.tags,
        createdAt: row.createdAt,
        usedAt: (rowLevel === "steward" ? use?.any : use?.own) ?? null,
        guesses,
        same,
        asideAt: row.asideAt,
        picture: pictureAddress(row.id, row.picture) ?? kinds.get(row.kindId)?.picture ?? null,
        level: rowLevel,
        setHere: setHere.has(row.id),
        changedAt: row.changedAt,
        binnedAt: row.binnedAt,
        binnedWith: row.binnedWith,
        finding: found[0] ?? null,
        findings: found.length,
        people: rowLevel === "steward" ? counts(row.id) : null,
      };
    };
    const ledger = sortByName(
      [
        ...entryRows.map((row) => line("entry", row, kinds.get(row.kindId)!.name)),
        ...folderRows.map((row) => line("folder", row, "Folder")),
      ].filter((row) => row.binnedAt === null || row.level === "steward"),
    );
    await yieldToEventLoop();
    return {
      id: vault.nodeId,
      /** May take out what they may reveal: its stewards, and whom a rule of the vault names. */
      taker: level === "steward" || (await isTakerOf(tx, person, vault.nodeId)),
      name: (await vaultNames(tx, person, [vault.nodeId], at))(vault.nodeId),
      description: knowsVault(person, level) ? vault.description : "",
      houseNote: level === "steward" ? vault.houseNote : "",
      mostPeople: level === "steward" ? vault.mostPeople : null,
      picture: knowsVault(person, level) ? pictureAddress(vault.nodeId, vault.pictureId) : null,
      level,
      asideAt: vault.asideAt,
      view: ledgerViewSchema.safeParse(kept?.view).data ?? PLAIN_VIEW,
      people: level === "steward" ? counts(vault.nodeId) : null,
      imports: await undoableImports(tx, vault.nodeId, person.id, at),
      rows: pack(ledger.filter((row) => row.binnedAt === null)),
      bin: ledger.filter((row) => row.binnedAt !== null),
    };
  },
});

/** An import can be undone for so long. */
export const UNDOABLE_MS = 86_400_000;

/** What the reader imported into the vault and can still undo. */
async function undoableImports(tx: Reader, vaultId: string, personId: string, at: number) {
  const found = await tx
    .select({ id: imports.id, at: imports.publishedAt, rows: imports.rows })
    .from(imports)
    .where(
      and(
        eq(imports.vaultId, vaultId),
        eq(imports.personId, personId),
        gt(imports.publishedAt, at - UNDOABLE_MS),
        isNull(imports.undoneAt),
      ),
    );
  return found.map((row) => ({ ...row, at: row.at! }));
}

/** When entries were last signed in with: by anybody, and by one person. */
async function lastUses(tx: Reader, vaultId: string, personId: string) {
  const rows = await tx.all<{ id: string; any: number; own: number | null }>(sql`
    select s.entry_id as id, max(s.begun_at) as any,
      max(case when s.person_id = ${personId} then s.begun_at end) as own
    from sign_ins s join places p on p.node_id = s.entry_id and p.valid_until is null
    where p.vault_id = ${vaultId} and s.outcome = 'signed-in' and s.how <> 'tested' group by s.entry_id`);
  return new Map(rows.map((row) => [row.id, row]));
}

/** Strength of passwords, of entries that one may Reveal; and reuse, of those that need nothing more than that. */
async function passwordConditions(tx: Reader, vaultId: string, mayReveal: (id: string) => boolean) {
  const rows = (
    await bulk<{ id: string; mark: string; guesses: number | null; gated: number }>(
      tx,
      {
        id: sql`e.node_id`,
        mark: sql`f.fingerprint`,
        guesses: sql`c.guesses`,
        gated: sql`e.asks_first > 0 or e.ask_again`,
      },
      sql`from entries e join places p on p.node_id = e.node_id and p.valid_until is null
        join fingerprints f on f.version_id = e.version_id and f.field = ${PASSWORD}
        left join conditions c on c.version_id = e.version_id and c.field = ${PASSWORD}
        where p.vault_id = ${vaultId} and e.binned_at is null`,
    )
  ).filter((row) => mayReveal(row.id));
  const uses = new Map<string, number>();
  for (const { mark, gated } of rows) if (!gated) uses.set(mark, (uses.get(mark) ?? 0) + 1);
  const byId = new Map(
    rows.map(({ id, mark, guesses, gated }) => [id, { guesses, same: gated ? null : uses.get(mark)! }]),
  );
  return (id: string) => byId.get(id) ?? { guesses: null, same: null };
}

/** How one likes the ledger of a vault: kept per person, on every device. */
export const saveLedgerView = command({
  name: "vaults.saveLedgerView",
  input: z.strictObject({ vaultId: idSchema, view: ledgerViewSchema }),
  by: ["person"],
  allow: async ({ tx, me, input, at }) => {
    const { levels } = await loadReachIn(tx, me, [input.vaultId], at);
    if (levels.size === 0) throw notFound();
  },
  run: async ({ tx, input: { vaultId, view }, caller }) => {
    const personId = personIdOf(caller);
    await tx
      .insert(ledgerViews)
      .values({ personId, vaultId, view })
      .onConflictDoUpdate({ target: [ledgerViews.personId, ledgerViews.vaultId], set: { view } });
  },
  journal: null,
  tell: () => [],
});

const here = (vaultId: string) => sql`and p.valid_until is null where p.vault_id = ${vaultId}`;

const keptEntries = (tx: Reader, vaultId: string) =>
  bulk<Kept>(
    tx,
    {
      id: sql`e.node_id`,
      name: sql`e.name`,
      description: sql`e.description`,
      kindId: sql`e.kind`,
      signInPage: sql`e.sign_in_page`,
      tags: sql`json(e.tags)`,
      createdAt: sql`e.created_at`,
      asideAt: sql`e.aside_at`,
      picture: sql`e.picture_id`,
      changedAt: sql`e.changed_at`,
      binnedAt: sql`e.binned_at`,
      binnedWith: sql`e.binned_with`,
    },
    sql`from entries e join places p on p.node_id = e.node_id ${here(vaultId)}`,
  );

const keptFolders = (tx: Reader, vaultId: string) =>
  bulk<Kept>(
    tx,
    {
      id: sql`f.node_id`,
      name: sql`f.name`,
      description: sql`''`,
      kindId: sql`''`,
      signInPage: sql`''`,
      tags: sql`json('[]')`,
      createdAt: sql`n.created_at`,
      asideAt: sql`null`,
      picture: sql`null`,
      changedAt: sql`n.created_at`,
      binnedAt: sql`f.binned_at`,
      binnedWith: sql`f.binned_with`,
    },
    sql`from folders f join nodes n on n.id = f.node_id join places p on p.node_id = f.node_id ${here(vaultId)}`,
  );

/** How many people reach a node; nodes without grants of their own answer as what is above them. */
function peopleCounts(index: OpenIndex, at: number): (nodeId: string) => number {
  const known = new Map<string, number>();
  return (nodeId) => {
    const region = index.region(nodeId);
    const count = known.get(region) ?? index.countWhoUse(region, at);
    known.set(region, count);
    return count;
  };
}
