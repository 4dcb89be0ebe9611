/**
 * The condition of what is kept: how long a secret would stand, worked out after it is written, and where else the
 * same one is used. Shown from Reveal up; reuse only among entries that the viewer may Reveal.
 */
import { and, desc, eq, exists, inArray, isNull, sql } from "drizzle-orm";
import { z } from "zod";
import { atLeast } from "../../core/access";
import { type Strength, strengthOf } from "../../core/generator/strengthWords";
import { USER_NAME } from "../../core/kinds/kind";
import { reachOf } from "../access/load";
import type { Person } from "../access/person";
import { command, idSchema } from "../command";
import { inJson } from "../database/bulk";
import type { Reader } from "../database/client";
import { conditions, entries, entryVersions, fingerprints, places } from "../database/schema";
import type { Galtry } from "../galtry";
import { kindsById } from "../vaults/kinds";
import { orSealError } from "../vaults/sealing";
import { openValues } from "../vaults/vaultKeys";
import type { Rater } from "./rater";

/** In one go; between two of them the other work of the process has its turn. */
const AT_ONCE = 20;

const rated = z.strictObject({
  versionId: idSchema,
  field: z.string().max(80),
  guesses: z.number().min(0).max(1000),
});

export const computeStrengths = command({
  name: "upkeep.computeStrengths",
  input: z.strictObject({ rows: z.array(rated).max(1000) }),
  by: ["server"],
  allow: () => undefined,
  run: async ({ tx, input }) => {
    if (input.rows.length === 0) return;
    await tx.insert(conditions).values(input.rows).onConflictDoNothing();
    await tx
      .update(entries)
      .set({ unrated: false })
      .where(
        inJson(
          entries.versionId,
          input.rows.map(({ versionId }) => versionId),
        ),
      );
  },
  journal: null,
  tell: () => [],
});

/** Current versions that nobody has rated yet. */
const unrated = (app: Galtry) =>
  app.db
    .select({ version: entryVersions, kind: entries.kind, name: entries.name, site: entries.site })
    .from(entries)
    .innerJoin(entryVersions, eq(entryVersions.id, entries.versionId))
    .where(
      and(
        // What is being brought in is nobody's yet, and its sealing has the processor.
        exists(
          app.db
            .select({ one: sql`1` })
            .from(places)
            .where(and(eq(places.nodeId, entries.nodeId), isNull(places.validUntil))),
        ),
        sql`${entries.unrated} = 1`,
      ),
    )
    // The newest first: what somebody has just written is not rated behind thousands that were brought in before.
    .orderBy(desc(entries.versionId))
    .limit(AT_ONCE);

/** Rates some of what is not rated yet. @returns whether there may be more */
export async function rateSome(app: Galtry, rater: Pick<Rater, "rate">): Promise<boolean> {
  const found = await unrated(app);
  if (found.length === 0) return false;
  const kinds = await kindsById(app.db);
  const rows: z.output<typeof rated>[] = [];
  for (const { version, kind, name, site } of found) {
    // One that does not open is rated no more than one without a password; whoever opens it is told.
    const values = await openValues(app.db, app.keys, version).catch(orSealError);
    if (!values) {
      rows.push({ versionId: version.id, field: "", guesses: 0 });
      continue;
    }
    const fields = (kinds.get(kind)?.fields ?? []).filter(
      (field) => field.class === "secret" && field.form === "password" && values.fields[field.id],
    );
    const hints = [name, site, values.fields[USER_NAME] ?? ""];
    for (const { id } of fields)
      rows.push({ versionId: version.id, field: id, guesses: await rater.rate(values.fields[id]!, hints) });
    if (fields.length === 0) rows.push({ versionId: version.id, field: "", guesses: 0 });
  }
  await computeStrengths.execute(app, { rows }, { kind: "server" });
  return true;
}

export interface Condition {
  /** Null until it has been worked out. */
  strength: Strength | null;
  /** Other entries with the same value, as far as the viewer may Reveal them and nothing more is required there. */
  alike: { id: string; name: string }[];
}

/** By field, for the fields of an entry that have a fingerprint. */
export async function conditionsOf(
  tx: Reader,
  person: Person,
  entry: { nodeId: string; versionId: string; asksFirst: number; askAgain: boolean },
  fields: readonly string[],
  at: number,
): Promise<Record<string, Condition>> {
  if (fields.length === 0) return {};
  const [known, marks] = await Promise.all([
    tx.select().from(conditions).where(eq(conditions.versionId, entry.versionId)),
    tx.select().from(fingerprints).where(eq(fingerprints.versionId, entry.versionId)),
  ]);
  const wanted = marks.filter((mark) => fields.includes(mark.field));
  // What takes more than Reveal is not told by another door: neither that it is the same, nor as what.
  const gated = entry.asksFirst > 0 || entry.askAgain;
  const same =
    wanted.length === 0 || gated
      ? []
      : await tx
          .select({ id: entries.nodeId, name: entries.name, mark: fingerprints.fingerprint })
          .from(fingerprints)
          .innerJoin(entries, eq(entries.versionId, fingerprints.versionId))
          .where(
            and(
              inArray(
                fingerprints.fingerprint,
                wanted.map((mark) => mark.fingerprint),
              ),
              isNull(entries.binnedAt),
              eq(entries.asksFirst, 0),
              eq(entries.askAgain, false),
            ),
          );
  const others = same.filter((row) => row.id !== entry.nodeId);
  const { levels } = reachOf(tx, person, at);
  return Object.fromEntries(
    wanted.map(({ field, fingerprint }) => {
      const rating = known.find((row) => row.field === field);
      const alike = others.filter((row) => row.mark === fingerprint && atLeast(levels.get(row.id) ?? "none", "reveal"));
      return [
        field,
        {
          strength: rating ? strengthOf(rating.guesses) : null,
          alike: alike.map(({ id, name }) => ({ id, name })),
        },
      ];
    }),
  );
}
