/** One entry as its reader may see it: what a level does not give is not in the answer. */
import { and, desc, eq, isNotNull, isNull, ne } from "drizzle-orm";
import { z } from "zod";
import { atLeast, type Level } from "../../core/access";
import { codeLines } from "../../core/kinds/codes";
import { type Field, type Kind, SIGN_IN_PAGE, USER_NAME } from "../../core/kinds/kind";
import { siteName } from "../../core/signin/address";
import { matches } from "../../core/signin/site";
import { reachOf, requireLevel } from "../access/load";
import { peopleNames } from "../access/peopleNames";
import type { Person } from "../access/person";
import { toAccept } from "../access/requests/accepting";
import { ownYes } from "../access/requests/approvals";
import { ownLevel } from "../access/who";
import { idSchema, query } from "../command";
import type { Reader } from "../database/client";
import { entries, fingerprints, OUTSIDE, pins, sightings, signIns } from "../database/schema";
import { storyOf } from "../journal/story";
import { loadRules, timeZone } from "../organisation";
import { notFound } from "../refused";
import { conditionsOf } from "../upkeep/conditions";
import { findingsAt } from "../upkeep/findingsPage";
import { attachmentLines } from "./attachments";
import { fieldsOf, isSecret } from "./composing";
import { versionLines } from "./earlier";
import { kindOf } from "./kinds";
import { pictureAddress } from "./pictureAddress";
import { foldersOnTheWay, vaultNames } from "./places";
import type { SealedValues } from "./sealing";
import { openValues } from "./vaultKeys";
import { currentVersion, type EntryRow } from "./writing";

export const entryPage = query({
  name: "vaults.entryPage",
  input: z.strictObject({ entryId: idSchema }),
  by: ["person"],
  allow: (context) => requireLevel(context, context.input.entryId, "use"),
  run: async ({ tx, input, me, at, allowed, app }) => {
    const personId = me.id;
    const [entry] = await tx.select().from(entries).where(eq(entries.nodeId, input.entryId));
    if (!entry || (entry.binnedAt !== null && !atLeast(allowed.level, "steward"))) throw notFound();
    const [version, own, [pin], alike, lastOwn] = await Promise.all([
      currentVersion(tx, entry),
      ownLevel(tx, personId, input.entryId, at),
      tx
        .select()
        .from(pins)
        .where(and(eq(pins.personId, personId), eq(pins.entryId, input.entryId))),
      sameSite(tx, entry, me, at),
      lastSignIn(tx, entry, personId, allowed.level),
    ]);
    const files = await attachmentLines(tx, entry.nodeId);
    const versions = atLeast(allowed.level, "edit") ? await versionLines(tx, entry.nodeId) : [];
    const named = await peopleNames(tx, me, [
      ...[...files, ...versions].map((one) => one.by),
      ...[entry.createdBy, entry.changedBy],
    ]);
    const zone = await timeZone(tx);
    const kind = await kindOf(tx, entry.kind);
    const values =
      atLeast(allowed.level, "reveal") || entry.useSeesUserName ? await openValues(tx, app.keys, version) : null;
    return {
      id: entry.nodeId,
      kind,
      name: entry.name,
      description: entry.description,
      signInPage: entry.signInPage,
      site: siteName(entry.signInPage),
      reach: entry.reach,
      notes: entry.notes,
      tags: entry.tags,
      hasCode: entry.hasCode,
      guardedFill: entry.guardedFill,
      plainHttp: entry.plainHttp,
      useSeesUserName: entry.useSeesUserName,
      fields: fieldViews(kind, entry, values, allowed.level),
      vault: { id: allowed.vaultId, name: (await vaultNames(tx, me, [allowed.vaultId], at))(allowed.vaultId) },
      folders: await foldersOnTheWay(tx, allowed.path.slice(1), me),
      level: allowed.level,
      own: own!,
      pinned: pin !== undefined,
      binnedAt: entry.binnedAt,
      asideAt: entry.asideAt,
      picture: pictureAddress(entry.nodeId, entry.pictureId) ?? kind.picture ?? null,
      ownPicture: entry.pictureId !== null,
      askAgain: entry.askAgain,
      listed: entry.listed,
      /** How the reader stands at an entry that asks a steward first. */
      yes: await ownYes(tx, entry, personId, at),
      /** The house note that the reader has to confirm before it works. */
      toAccept: await toAccept(tx, personId, allowed.vaultId, allowed.level),
      mayHandOver: await mayHandOver(tx, allowed.level),
      /** The reader is one. */
      guest: me.guest,
      filling: entry.filling,
      attachments: files.map((file) => ({ ...file, by: named(file.by), own: file.by === personId })),
      refused: version.refusedAt !== null,
      alike,
      lastSignIn: lastOwn,
      zone,
      changedAt: entry.changedAt,
      conditions: atLeast(allowed.level, "reveal")
        ? await conditionsOf(
            tx,
            me,
            entry,
            kind.fields.filter((field) => field.class === "secret" && field.form === "password").map(({ id }) => id),
            at,
          )
        : {},
      ...(atLeast(allowed.level, "reveal") ? { reveal: revealPart(entry, version.id, named) } : {}),
      ...(atLeast(allowed.level, "edit") ? { versions: versions.map((row) => ({ ...row, by: named(row.by) })) } : {}),
      ...(atLeast(allowed.level, "steward")
        ? { seenBy: await seenBy(tx, kind, entry, me), findings: await findingsAt(tx, me, entry.nodeId, at) }
        : {}),
      story: await storyOf({ tx, me: me, app }, entry.nodeId, atLeast(allowed.level, "steward") ? null : personId),
    };
  },
});

/** The house rules say who makes handover links. */
async function mayHandOver(tx: Reader, level: Level): Promise<boolean> {
  const { handovers } = (await loadRules(tx)).makes;
  return handovers !== "nobody" && atLeast(level, handovers === "reveal" ? "reveal" : "steward");
}

export interface FieldView extends Field {
  /** Null where it is hidden: secrets are shown one at a time, by a command of their own. */
  value: string | null;
  filled: boolean;
  /** How many codes are in it, used ones included; null for other forms. */
  codes?: number | null;
}

/** The fields whose values the reader may know of; the sign-in page stands apart. */
function fieldViews(kind: Kind, entry: EntryRow, values: SealedValues | null, level: Level): FieldView[] {
  const sealed = values ? fieldsOf(values) : {};
  const extras = entry.extras.map(
    (extra): Field => ({ id: `extra:${extra.id}`, label: extra.label, class: extra.class, form: "line" }),
  );
  const open: Record<string, string> = {
    ...entry.fields,
    ...Object.fromEntries(entry.extras.map((extra) => [`extra:${extra.id}`, extra.value ?? ""])),
  };
  return [...kind.fields, ...extras].flatMap((field): FieldView[] => {
    if (field.id === SIGN_IN_PAGE) return [];
    if (field.class === "open") return [{ ...field, value: open[field.id] ?? "", filled: Boolean(open[field.id]) }];
    const known = atLeast(level, "reveal") || (field.id === USER_NAME && entry.useSeesUserName);
    if (!known) return [];
    const filled = Object.hasOwn(sealed, field.id);
    const codes = field.form === "codes" && filled ? codeLines(sealed[field.id]!).length : null;
    return [{ ...field, value: field.class === "identifier" ? (sealed[field.id] ?? "") : null, filled, codes }];
  });
}

function revealPart(entry: EntryRow, versionId: string, named: (id: string) => string) {
  return {
    versionId,
    createdAt: entry.createdAt,
    createdBy: named(entry.createdBy),
    changedBy: named(entry.changedBy),
  };
}

/** More than these nobody looks through. */
const MOST_ALIKE = 12;

/** Other entries for the same page: so that nobody picks the wrong one of two. */
async function sameSite(tx: Reader, entry: EntryRow, person: Person, at: number) {
  if (entry.signInPage === "") return [];
  const rows = await tx
    .select()
    .from(entries)
    .where(and(eq(entries.site, entry.site), isNull(entries.binnedAt), ne(entries.nodeId, entry.nodeId)));
  if (rows.length === 0) return [];
  const { levels } = reachOf(tx, person, at);
  return rows
    .filter((row) => atLeast(levels.get(row.nodeId) ?? "none", "use") && matches(row, entry.signInPage))
    .slice(0, MOST_ALIKE)
    .map((row) => ({ id: row.nodeId, name: row.name, description: row.description }));
}

/** The last sign-in, by anybody for a steward, by the reader for the others; why it failed from Edit up. */
export async function lastSignIn(tx: Reader, entry: EntryRow, personId: string, level: Level) {
  const whose = atLeast(level, "steward") ? undefined : eq(signIns.personId, personId);
  const [row] = await tx
    .select()
    .from(signIns)
    .where(and(eq(signIns.entryId, entry.nodeId), whose, isNotNull(signIns.outcome)))
    .orderBy(desc(signIns.begunAt))
    .limit(1);
  if (!row?.outcome) return null;
  return { at: row.begunAt, outcome: row.outcome, how: row.how, detail: atLeast(level, "edit") ? row.detail : null };
}

/** Who has seen the current value of the password or an extra secret, latest first; each person once. */
async function seenBy(tx: Reader, kind: Kind, entry: EntryRow, me: Person) {
  const marks = new Set(
    (await tx.select().from(fingerprints).where(eq(fingerprints.versionId, entry.versionId))).map(
      (row) => `${row.field} ${row.fingerprint}`,
    ),
  );
  const rows = await tx.select().from(sightings).where(eq(sightings.entryId, entry.nodeId)).orderBy(desc(sightings.at));
  const named = await peopleNames(
    tx,
    me,
    rows.map((row) => row.personId),
  );
  const seen = new Map<string, { personId: string; name: string; at: number; how: string }>();
  for (const row of rows)
    if (isSecret(kind, row.field) && marks.has(`${row.field} ${row.fingerprint}`) && !seen.has(row.personId))
      seen.set(row.personId, {
        personId: row.personId,
        name: row.personId === OUTSIDE ? "Someone outside" : named(row.personId),
        at: row.at,
        how: row.how,
      });
  return [...seen.values()];
}
