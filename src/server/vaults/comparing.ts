/** Whether rows of a file are kept already, asked before they are brought in. */
import { and, eq, inArray, isNull } from "drizzle-orm";
import { z } from "zod";
import { atLeast } from "../../core/access";
import { hostOf } from "../../core/signin/address";
import { siteOf } from "../../core/signin/site";
import { loadReach } from "../access/load";
import { command } from "../command";
import type { Reader } from "../database/client";
import { entries, fingerprints } from "../database/schema";
import { attemptKey, attemptsOf, countAttempt, requireFewAttempts } from "../people/attempts";
import { Refused } from "../refused";
import { fingerprint } from "./sealing";

const comparable = z.strictObject({
  page: z.string().max(2000),
  userName: z.string().max(500),
  password: z.string().max(1000),
});

export type Likeness = "new" | "same" | "other password";

export interface Compared {
  likeness: Likeness;
  /** The one that is like it, where its password may be changed by the asker. */
  entryId: string | null;
}

/** Of one person a quarter of an hour: the largest file, looked at three times. */
const MOST_ROWS = 60_000;
/** Wrong passwords of one person for one login that is kept, a quarter of an hour: more are guesses. */
const MOST_GUESSES = 5;

/**
 * Whether logins are kept already: looked for only among entries that the caller may Reveal and that require nothing
 * more, counted by the row, and written down.
 */
export const compareRows = command({
  name: "vaults.compareRows",
  input: z.strictObject({ rows: z.array(comparable).max(500) }),
  by: ["person"],
  allow: async ({ tx, me, at, house }) => {
    const key = attemptKey(house.keys, "compare rows", me!.id);
    await requireFewAttempts(tx, key, MOST_ROWS, at);
    return { key };
  },
  run: async ({ tx, me, input, at, house, allowed }): Promise<Compared[]> => {
    await countAttempt(tx, allowed.key, at, input.rows.length);
    // Bringing them in comes next.
    void house.composer?.warm();
    const sites = [...new Set(input.rows.map((row) => siteOf(hostOf(row.page) ?? "")).filter(Boolean))];
    if (sites.length === 0) return input.rows.map(() => NOTHING_LIKE_IT);
    const { levels } = await loadReach(tx, me!, at);
    const kept = (
      await tx
        .select({ id: entries.nodeId, host: entries.host, versionId: entries.versionId })
        .from(entries)
        .where(
          and(
            inArray(entries.site, sites),
            isNull(entries.binnedAt),
            eq(entries.asksFirst, 0),
            eq(entries.askAgain, false),
          ),
        )
    ).filter((row) => atLeast(levels.get(row.id) ?? "none", "reveal"));
    const marks = new Map(
      (
        await marksOf(
          tx,
          kept.map((row) => row.versionId),
        )
      ).map((row) => [`${row.versionId} ${row.field}`, row.fingerprint]),
    );
    const wrong = new Map<string, Set<string>>();
    const compared = input.rows.map((row): Compared => {
      const host = hostOf(row.page);
      const userMark = row.userName === "" ? undefined : fingerprint(house.keys, "userName", row.userName);
      const alike = kept.filter((one) => one.host === host && marks.get(`${one.versionId} userName`) === userMark);
      if (alike.length === 0) return NOTHING_LIKE_IT;
      const mark = row.password === "" ? undefined : fingerprint(house.keys, "password", row.password);
      if (alike.some((one) => marks.get(`${one.versionId} password`) === mark))
        return { likeness: "same", entryId: null };
      const login = `${host} ${userMark}`;
      if (mark) wrong.set(login, (wrong.get(login) ?? new Set()).add(mark));
      // Of several with that user name nobody can say which one the file means.
      const [only, another] = alike.filter((one) => atLeast(levels.get(one.id) ?? "none", "edit"));
      return { likeness: "other password", entryId: only && !another ? only.id : null };
    });
    for (const [login, marks] of wrong)
      for (const mark of marks) {
        // The same file looked at again tells nothing new.
        const known = attemptKey(house.keys, "compared", `${me!.id} ${login} ${mark}`);
        if ((await attemptsOf(tx, known, at)) > 0) continue;
        const key = attemptKey(house.keys, "compare login", `${me!.id} ${login}`);
        if ((await attemptsOf(tx, key, at)) >= MOST_GUESSES) throw tooMany();
        await countAttempt(tx, key, at);
        await countAttempt(tx, known, at);
      }
    return compared;
  },
  journal: ({ input }) => ({ details: { rows: input.rows.length } }),
  tell: () => [],
});

const tooMany = () =>
  new Refused(
    "too-many",
    "More than five passwords were compared with one login in a quarter of an hour. Wait, or leave these rows out.",
  );

const NOTHING_LIKE_IT: Compared = { likeness: "new", entryId: null };

async function marksOf(tx: Reader, versionIds: string[]) {
  const found: (typeof fingerprints.$inferSelect)[] = [];
  for (let i = 0; i < versionIds.length; i += 500)
    found.push(
      ...(await tx
        .select()
        .from(fingerprints)
        .where(inArray(fingerprints.versionId, versionIds.slice(i, i + 500)))),
    );
  return found;
}
