/** Whether rows of a file are kept already, asked before they are brought in. */
import { and, eq, isNull } from "drizzle-orm";
import { z } from "zod";
import { atLeast, type Reach } from "../../core/access";
import { counted } from "../../core/counted";
import { hostOf } from "../../core/signin/address";
import { siteOf } from "../../core/signin/site";
import { resolveAt } from "../access/load";
import { command } from "../command";
import { inJson } from "../database/bulk";
import type { Reader } from "../database/client";
import { entries, fingerprints } from "../database/schema";
import { groupBy } from "../groupBy";
import { attemptKey, attemptsOf, countAttempt, requireFewAttempts } from "../people/attempts";
import { Refused } from "../refused";
import { fingerprint } from "./sealing";
import { comparing as t } from "./strings";

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
  allow: async ({ tx, me, at, app }) => {
    const key = attemptKey(app.keys, "compare rows", me.id);
    await requireFewAttempts(tx, key, MOST_ROWS, at);
    return { key };
  },
  run: async ({ tx, me, input, at, app, allowed }): Promise<Compared[]> => {
    await countAttempt(tx, allowed.key, at, input.rows.length);
    // Bringing them in comes next.
    void app.composer?.warm();
    const sites = [...new Set(input.rows.map((row) => siteOf(hostOf(row.page) ?? "")).filter(Boolean))];
    if (sites.length === 0) return input.rows.map(() => NOTHING_LIKE_IT);
    const found = await tx
      .select({ id: entries.nodeId, host: entries.host, versionId: entries.versionId })
      .from(entries)
      .where(
        and(
          inJson(entries.site, sites),
          isNull(entries.binnedAt),
          eq(entries.asksFirst, 0),
          eq(entries.askAgain, false),
        ),
      );
    const marks = await marksOf(
      tx,
      found.map((one) => one.versionId),
    );
    const loginOf = (host: string | null, userMark: string | undefined) => `${host} ${userMark}`;
    const byLogin = groupBy(found, (one) => loginOf(one.host, marks.get(`${one.versionId} userName`)));
    // Only what is like a row is looked at, and of that only what the asker may Reveal.
    const levels = new Map<string, Reach>();
    const levelOf = async (id: string): Promise<Reach> => {
      const level = levels.get(id) ?? (await resolveAt(tx, me, id, at))?.resolution.level ?? "none";
      levels.set(id, level);
      return level;
    };
    const wrong = new Map<string, Set<string>>();
    const compared: Compared[] = [];
    for (const row of input.rows) {
      const userMark = row.userName === "" ? undefined : fingerprint(app.keys, "userName", row.userName);
      const login = loginOf(hostOf(row.page), userMark);
      const alike: { versionId: string; id: string; level: Reach }[] = [];
      for (const { id, versionId } of byLogin.get(login) ?? []) {
        const level = await levelOf(id);
        if (atLeast(level, "reveal")) alike.push({ id, versionId, level });
      }
      const mark = row.password === "" ? undefined : fingerprint(app.keys, "password", row.password);
      if (alike.length === 0) compared.push(NOTHING_LIKE_IT);
      else if (alike.some((one) => marks.get(`${one.versionId} password`) === mark))
        compared.push({ likeness: "same", entryId: null });
      else {
        if (mark) wrong.set(login, (wrong.get(login) ?? new Set()).add(mark));
        // Of several with that user name nobody can say which one the file means.
        const [only, another] = alike.filter(({ level }) => atLeast(level, "edit"));
        compared.push({ likeness: "other password", entryId: only && !another ? only.id : null });
      }
    }
    for (const [login, marks] of wrong)
      for (const mark of marks) {
        // The same file looked at again tells nothing new.
        const known = attemptKey(app.keys, "compared", `${me.id} ${login} ${mark}`);
        if ((await attemptsOf(tx, known, at)) > 0) continue;
        const key = attemptKey(app.keys, "compare login", `${me.id} ${login}`);
        if ((await attemptsOf(tx, key, at)) >= MOST_GUESSES) throw tooMany();
        await countAttempt(tx, key, at);
        await countAttempt(tx, known, at);
      }
    return compared;
  },
  journal: ({ input }) => ({ details: { rows: input.rows.length } }),
  says: ({ details }) => `compared ${counted(Number(details.rows), "row")} of a file with the entries in Galtry`,
  tell: () => [],
});

const tooMany = () => new Refused("too-many", t.moreThan5PasswordsWereCompared);

const NOTHING_LIKE_IT: Compared = { likeness: "new", entryId: null };

/** Fingerprints of versions, by version and field. */
const marksOf = async (tx: Reader, versionIds: string[]): Promise<ReadonlyMap<string, string>> =>
  new Map(
    (await tx.select().from(fingerprints).where(inJson(fingerprints.versionId, versionIds))).map((row) => [
      `${row.versionId} ${row.field}`,
      row.fingerprint,
    ]),
  );
