/**
 * The sample organisation with as much beside it as is asked for: people, groups, vaults, entries, grants and a Journal of
 * any length, written straight away (a click each would take days) as the commands would write it. Every secret opens, and
 * the Journal's chain is whole. Nothing in it is random: the same size is the same organisation.
 */
import { sql } from "drizzle-orm";
import { FIRST_PREVIOUS, lineHash, lineMac } from "../src/core/journal/chain";
import { nameHash } from "../src/core/journal/names";
import { READY_KINDS } from "../src/core/kinds/ready";
import { readValues } from "../src/core/kinds/values";
import { NO_STEPS } from "../src/core/signin/steps";
import { bulkInsert } from "../src/server/database/bulk";
import {
  conditions,
  entries,
  entryVersions,
  fingerprints,
  folders,
  grants,
  groups,
  journal,
  journalNames,
  memberships,
  nodes,
  personStates,
  persons,
  places,
  sightings,
  vaults,
} from "../src/server/database/schema";
import type { Galtry } from "../src/server/galtry";
import { uuidv7At } from "../src/server/ids";
import { hashPassword } from "../src/server/people/password";
import { composeVersion } from "../src/server/vaults/composing";
import { makeVaultKey, vaultKey } from "../src/server/vaults/vaultKeys";
import { DEMO_PASSWORD } from "./organisation";

/** How many come to what is there already. */
export interface Size {
  people: number;
  groups: number;
  vaults: number;
  entries: number;
  /** Those on vaults are among them; the others stand on single entries and folders. */
  grants: number;
  journalLines: number;
}

/** The Trust with all its volunteers. */
export const WITH_VOLUNTEERS: Size = {
  people: 280,
  groups: 24,
  vaults: 30,
  entries: 2_400,
  grants: 1_400,
  journalLines: 20_000,
};

export interface Large {
  vaultIds: string[];
  entryIds: string[];
  personIds: string[];
  /** Reaches a folder of 27 entries at Use, and nothing else. */
  colleague: { personId: string; mail: string; entryId: string };
  /** Steward of the first vault, and of nothing else. */
  steward: { personId: string; mail: string; vaultId: string };
}

/** Entries that the probe's colleague reaches. */
const PROBED = 27;
const AT_ONCE = 1_000;
/** In one transaction: the pages of the indexes that a line falls into are all over them, and are written once for many. */
const LINES_AT_ONCE = 50_000;
const DAY = 86_400_000;

const FIRST =
  "Ada Bea Cato Dina Edda Finn Gwen Hale Ines Jory Kezia Lorn Mabs Nerys Orla Piran Quinn Rhoda Senna Tamsin".split(
    " ",
  );
const LAST =
  "Arkle Bramwith Coldstow Dunmere Eskdale Farrowby Garside Holmroyd Inskip Jessop Kettley Lidgett Marrick Northam Otley Penrose Quarmby Rushford Skelton Thornby".split(
    " ",
  );
const PLACES =
  "Ticket office, Shop floor, Workshop, Archive, Café, Galleries, Education room, Boiler house, Car park, Stores".split(
    ", ",
  );
const SUPPLIERS =
  "Ashgrove Bellmoor Carding Dovestone Elmsall Fenwick Gritstone Hartwell Ivybank Jarrow Kilnsey Longroyd Millgate Netherby Oakworth Priory Quarry Rokeby Silkstone Tannery".split(
    " ",
  );
const TRADES = "Printing Cleaning Lighting Catering Transport Insurance Textiles Hardware Paper Software".split(" ");

const pick = <T>(from: readonly T[], i: number): T => from[i % from.length]!;
/** Spread over what there is, the same for the same number. */
const spread = (i: number, of: number): number => ((i * 2_654_435_761) >>> 0) % of;

export async function buildLarge(app: Galtry, size: Size, now = Date.now()): Promise<Large> {
  const began = now - 300 * DAY;
  let made = 0;
  const id = () => uuidv7At(began + made++ * 20);
  const commandId = id();
  const valid = { validFrom: began, commandId };
  const write = <T>(work: Parameters<typeof app.writer.write<T>>[0]) => app.writer.write(work);
  const owner = (await app.db.query.personStates.findFirst({ where: (row, { eq }) => eq(row.role, "owner") }))!
    .personId;

  // The indexes of a long Journal are many times what is held in memory otherwise.
  await write((tx) => tx.run(sql`pragma cache_size = -400000`));
  const passwordHash = await hashPassword(DEMO_PASSWORD);
  const people = Array.from({ length: size.people + 2 }, (_, i) => {
    const name = `${pick(FIRST, i)} ${pick(LAST, Math.floor(i / FIRST.length))}${i >= 400 ? ` ${Math.floor(i / 400) + 1}` : ""}`;
    return { id: id(), name, mail: `${name.toLowerCase().replaceAll(" ", ".")}@volunteers.tarrowick.example` };
  });
  const [colleague, steward, ...others] = people;
  const groupRows = Array.from({ length: size.groups }, (_, i) => ({
    id: id(),
    name: `${pick(PLACES, i)} team ${Math.floor(i / PLACES.length) + 1}`,
    description: "",
    createdAt: began,
  }));
  await write(async (tx) => {
    await bulkInsert(
      tx,
      persons,
      people.map((person) => ({ ...person, passwordHash, createdAt: began, invitedBy: owner })),
    );
    await bulkInsert(
      tx,
      personStates,
      people.map((one) => ({
        id: id(),
        personId: one.id,
        role: "member" as const,
        standing: "active" as const,
        ...valid,
      })),
    );
    await bulkInsert(tx, groups, groupRows);
    await bulkInsert(
      tx,
      memberships,
      others.flatMap((one, i) =>
        [...new Set([spread(i, size.groups), spread(i + 77, size.groups)])].map((at) => ({
          ...{ id: id(), groupId: groupRows[at]!.id, personId: one.id, from: null, until: null, keeper: i % 40 === 0 },
          ...valid,
        })),
      ),
    );
  });

  const vaultIds: string[] = [];
  const entryIds: string[] = [];
  const folderIds: string[] = [];
  const given: (typeof grants.$inferInsert)[] = [];
  const give = (
    nodeId: string,
    kind: "person" | "group",
    subjectId: string,
    level: "use" | "reveal" | "edit" | "steward",
  ) =>
    given.push({ id: id(), nodeId, subjectKind: kind, subjectId, level, why: "daily work", givenBy: owner, ...valid });
  const kind = READY_KINDS.find((one) => one.id === "website-login")!;
  const perVault = Math.floor(size.entries / size.vaults);
  let probe = "";
  for (let v = 0; v < size.vaults; v++) {
    const vaultId = id();
    vaultIds.push(vaultId);
    give(vaultId, "person", v === 0 ? steward!.id : pick(others, v * 7).id, "steward");
    if (v > 0) give(vaultId, "group", groupRows[v % size.groups]!.id, pick(["use", "reveal", "edit"], v));
    const folderRows = Array.from({ length: 6 }, (_, i) => ({ nodeId: id(), name: `${pick(PLACES, v + i)}` }));
    folderIds.push(...folderRows.map((row) => row.nodeId));
    if (v === 0) give(folderRows[0]!.nodeId, "person", colleague!.id, "use");
    const count = v === 0 ? 250 : perVault;
    await write(async (tx) => {
      await tx.insert(nodes).values({ id: vaultId, type: "vault", createdAt: began, createdBy: owner });
      await tx
        .insert(vaults)
        .values({ nodeId: vaultId, name: `${pick(PLACES, v)} ${Math.floor(v / PLACES.length) + 1}` });
      await makeVaultKey(tx, app.keys, vaultId, began);
      await bulkInsert(
        tx,
        nodes,
        folderRows.map(({ nodeId }) => ({ id: nodeId, type: "folder" as const, createdAt: began, createdBy: owner })),
      );
      await bulkInsert(tx, folders, folderRows);
      const key = await vaultKey(tx, app.keys, vaultId);
      const rows = await Promise.all(
        Array.from({ length: count }, async (_, i) => {
          const entryId = id();
          const name = `${pick(SUPPLIERS, v + i)} ${pick(TRADES, Math.floor((v + i) / SUPPLIERS.length))} ${v * 1000 + i}`;
          const host = `${pick(SUPPLIERS, v + i).toLowerCase()}-${v * 1000 + i}.example`;
          const values = readValues(kind, {
            name,
            signInPage: `https://${host}/sign-in`,
            userName: `desk-${v}-${i}`,
            password: `Quayside/${v}-${i}-lamp`,
            tags: [pick(TRADES, i).toLowerCase()],
          });
          const composed = await composeVersion(key, app.keys, {
            ...{ kind, entryId, vaultId, number: 1, personId: owner, at: began, values },
            ...{ before: { fields: {}, code: null }, how: "written" },
          });
          return { entryId, composed, folder: v === 0 && i < PROBED ? 0 : 1 + (i % 6) };
        }),
      );
      entryIds.push(...rows.map((row) => row.entryId));
      if (v === 0) probe = rows[0]!.entryId;
      await bulkInsert(
        tx,
        nodes,
        rows.map(({ entryId }) => ({ id: entryId, type: "entry" as const, createdAt: began, createdBy: owner })),
      );
      await bulkInsert(
        tx,
        entryVersions,
        rows.map(({ composed }) => composed.version),
      );
      await bulkInsert(
        tx,
        fingerprints,
        rows.flatMap(({ composed }) => composed.fingerprints),
      );
      // They were rated long ago.
      await bulkInsert(
        tx,
        conditions,
        rows.flatMap(({ composed }) =>
          composed.fingerprints.map(({ versionId, field }) => ({ versionId, field, guesses: 14 })),
        ),
      );
      await bulkInsert(
        tx,
        sightings,
        rows.flatMap(({ composed }) => composed.sightings),
      );
      await bulkInsert(
        tx,
        entries,
        rows.map(({ entryId, composed }) => ({
          nodeId: entryId,
          steps: NO_STEPS,
          ...composed.row,
          unrated: false,
          createdAt: began,
          createdBy: owner,
        })),
      );
      const placed = (nodeId: string, parentId: string | null) => ({ id: id(), nodeId, parentId, vaultId, ...valid });
      await bulkInsert(tx, places, [
        placed(vaultId, null),
        ...folderRows.map((row) => placed(row.nodeId, vaultId)),
        // The sixth part lies at the top; of the first vault's first folder nothing but what is probed.
        ...rows.map((row) => placed(row.entryId, folderRows[row.folder]?.nodeId ?? vaultId)),
      ]);
    });
  }
  // The rest stand on single entries of other vaults, as they do where access is given entry by entry.
  const elsewhere = entryIds.slice(250);
  const taken = new Set<string>();
  for (let i = 0; given.length < size.grants && i < size.grants * 3; i++) {
    const nodeId = elsewhere[spread(i * 13, elsewhere.length)]!;
    const who = pick(others, spread(i * 31, others.length)).id;
    if (taken.has(`${nodeId} ${who}`)) continue;
    taken.add(`${nodeId} ${who}`);
    give(nodeId, "person", who, pick(["use", "use", "reveal", "use"], i));
  }
  for (let from = 0; from < given.length; from += AT_ONCE)
    await write((tx) => bulkInsert(tx, grants, given.slice(from, from + AT_ONCE)));
  await writeJournal(
    app,
    size.journalLines,
    began,
    others.map((one) => one.id),
    { entryIds, perVault, vaultIds },
  );
  return {
    vaultIds,
    entryIds,
    personIds: others.map((one) => one.id),
    colleague: { personId: colleague!.id, mail: colleague!.mail, entryId: probe },
    steward: { personId: steward!.id, mail: steward!.mail, vaultId: vaultIds[0]! },
  };
}

const OCCASIONS = ["the spring order", "stocktaking", "cover in the holidays", "the summer exhibition", "invoices"];
const AROUND = ["the shop", "the mill", "the harbour museum", "the press", "the workshop"];

/** Most are given for much the same; one in ten thousand is like no other. */
const reasonOf = (i: number): string =>
  i % 10_000 === 7
    ? `borrowed scaffolding, part ${i}`
    : `${pick(OCCASIONS, spread(i * 5, 89))}, ${pick(AROUND, spread(i * 17, 97))}`;

/** Lines after those that are there: people sign in with and reveal what lies in the vaults, day by day. */
async function writeJournal(
  app: Galtry,
  count: number,
  began: number,
  people: readonly string[],
  { entryIds, perVault, vaultIds }: { entryIds: readonly string[]; perVault: number; vaultIds: readonly string[] },
): Promise<void> {
  const [end] = await app.db.all<{ seq: number; hash: string }>(
    "select seq, hash from journal order by seq desc limit 1",
  );
  let previous = end?.hash ?? FIRST_PREVIOUS;
  let seq = end?.seq ?? 0;
  const named = new Map<string, string>();
  for (let from = 0; from < count; from += LINES_AT_ONCE) {
    const lines: (typeof journal.$inferInsert)[] = [];
    const names: (typeof journalNames.$inferInsert)[] = [];
    for (let i = from; i < Math.min(from + LINES_AT_ONCE, count); i++) {
      const at = spread(i * 7, entryIds.length);
      const node = entryIds[at]!;
      if (!named.has(node)) {
        const kept = { ref: node, name: `Login ${at}`, salt: String(at).padStart(32, "0") };
        named.set(node, nameHash(kept));
        names.push({ ...kept, hash: named.get(node)! });
      }
      const reveals = i % 4 === 0;
      const gives = i % 20 === 7;
      const line = {
        seq: ++seq,
        at: began + Math.round((i / count) * 299 * DAY),
        act: gives ? "access.giveAccess" : reveals ? "vaults.revealField" : "signIn.handOver",
        outcome: "done" as const,
        person: people[spread(i * 3, people.length)]!,
        node,
        vault: vaultIds[at < 250 ? 0 : Math.min(1 + Math.floor((at - 250) / perVault), vaultIds.length - 1)]!,
        subject: gives ? people[spread(i * 11, people.length)]! : null,
        details: JSON.stringify(
          gives
            ? { level: "use", why: reasonOf(i) }
            : reveals
              ? { field: "password", how: "revealed" }
              : { signIn: node, outcome: "signed-in" },
        ),
        names: JSON.stringify({ [node]: named.get(node) }),
      };
      const hash = lineHash(line, previous);
      lines.push({ ...line, previous, hash, mac: lineMac(app.keys.journal, hash) });
      previous = hash;
    }
    await app.writer.write(async (tx) => {
      await bulkInsert(tx, journalNames, names);
      await bulkInsert(tx, journal, lines);
    });
  }
}
