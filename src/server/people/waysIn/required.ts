/** Ways in that the house rules require, by group and from a day on: who lacks one, and what becomes of their sign-in. */
import { and, eq, inArray, sql } from "drizzle-orm";
import { z } from "zod";
import { type HouseRules, NEED_WORD, sayDayOf, WAY_NEEDS, type WayNeed } from "../../../core/access/houseRules";
import { wallDay } from "../../../core/zone";
import { loadPerson } from "../../access/person";
import { sortByName } from "../../byName";
import { command, none, query } from "../../command";
import type { Reader, Transaction } from "../../database/client";
import { groups, sessions } from "../../database/schema";
import { findHome, loadHome, loadRules } from "../../organisation";
import { Refused } from "../../refused";
import { requireAdministrator, requireReader } from "../administrators";
import { attemptKey, attemptsOf, countAttempt } from "../attempts";
import { required as t } from "../strings";
import { addNotice } from "../telling";

const DAY_MS = 86_400_000;
type Rule = HouseRules["waysIn"][number];

/** A passkey and single sign-on satisfy both; codes only what any second step does. */
const holds = (need: WayNeed) =>
  need === "passkey"
    ? sql`(exists (select 1 from passkeys k where k.person_id = p.id)
        or exists (select 1 from provider_accounts a where a.person_id = p.id))`
    : sql`(exists (select 1 from passkeys k where k.person_id = p.id)
        or exists (select 1 from provider_accounts a where a.person_id = p.id)
        or exists (select 1 from code_apps c where c.person_id = p.id and c.confirmed_at is not null))`;

const counts = (rule: Rule, zone: string, at: number): boolean =>
  Math.floor(Date.parse(`${rule.from}T00:00:00Z`) / DAY_MS) <= wallDay(zone, at);

/** What somebody must add before anything else; null where nothing is missing. */
export async function missingNeed(tx: Reader, personId: string, at: number): Promise<WayNeed | null> {
  const home = await findHome(tx);
  const rules = (home?.rules.waysIn ?? []).filter((rule) => counts(rule, home!.zone, at));
  if (rules.length === 0) return null;
  const person = await loadPerson(tx, personId, at);
  const mine = rules.filter(({ groupId }) => groupId === null || person?.groups.has(groupId));
  // A passkey satisfies every other need.
  const need = mine.some(({ needs }) => needs === "passkey") ? "passkey" : mine[0]?.needs;
  if (!need) return null;
  const [row] = await tx.all<{ has: number }>(
    sql`select ${holds(need)} as has from persons p where p.id = ${personId}`,
  );
  return row?.has === 1 ? null : need;
}

/** Once nothing is missing any more, the session is good for everything. */
export async function liftLimit(
  tx: Transaction,
  sessionId: string | null,
  personId: string,
  at: number,
): Promise<void> {
  if (sessionId === null || (await missingNeed(tx, personId, at)) !== null) return;
  await tx
    .update(sessions)
    .set({ limited: false })
    .where(and(eq(sessions.id, sessionId), eq(sessions.limited, true)));
}

/** What the reader's own session waits for. */
export const ownNeed = query({
  name: "people.ownNeed",
  evenFor: ["limited"],
  input: none,
  by: ["person"],
  allow: () => undefined,
  run: async ({ tx, me, caller, at }) =>
    caller.limited ? { needs: await missingNeed(tx, me.id, at) } : { needs: null },
});

const MOST_NAMED = 100;

/** For administrators: who does not have yet what each rule requires. */
export const waysMissing = query({
  name: "people.waysMissing",
  input: none,
  by: ["person"],
  allow: ({ role }) => requireReader({ role }),
  run: ({ tx, at }) => waysLacking(tx, at),
});

/** Each rule about ways in, with those who lack what it requires. */
export async function waysLacking(tx: Reader, at: number) {
  const { rules, zone } = await loadHome(tx);
  const ids = rules.waysIn.flatMap(({ groupId }) => groupId ?? []);
  const named = new Map(
    (await tx.select({ id: groups.id, name: groups.name }).from(groups).where(inArray(groups.id, ids))).map((one) => [
      one.id,
      one.name,
    ]),
  );
  return Promise.all(
    rules.waysIn.map(async (rule) => {
      const people = sortByName(await lacking(tx, rule, at));
      return {
        ...rule,
        group: rule.groupId === null ? null : (named.get(rule.groupId) ?? ""),
        now: counts(rule, zone, at),
        count: people.length,
        people: people.slice(0, MOST_NAMED),
      };
    }),
  );
}

/** Active people whom a rule is about and who lack what it requires. */
async function lacking(tx: Reader, rule: Rule, at: number): Promise<{ id: string; name: string }[]> {
  const without = sql`s.valid_until is null and s.standing = 'active' and (s.until_at is null or s.until_at > ${at})
    and not ${holds(rule.needs)}`;
  if (rule.groupId === null)
    return tx.all<{ id: string; name: string }>(
      sql`select p.id as id, p.name as name from standings s join persons p on p.id = s.person_id where ${without}`,
    );
  return tx.all<{ id: string; name: string }>(sql`
    select distinct p.id as id, p.name as name
    from memberships m cross join standings s on s.person_id = m.person_id cross join persons p on p.id = s.person_id
    where m.group_id = ${rule.groupId} and m.valid_until is null and (m.from_at is null or m.from_at <= ${at})
      and (m.until_at is null or m.until_at > ${at}) and ${without}`);
}

const ruleSchema = z.strictObject({
  groupId: z.string().max(64).nullable(),
  needs: z.enum(WAY_NEEDS),
  from: z.iso.date(),
});

/** Tells all who lack it, by mail too; at most once a day for each rule. */
export const remindWays = command({
  name: "people.remindWays",
  input: ruleSchema,
  by: ["person"],
  allow: async ({ tx, role, input, at, app }) => {
    requireAdministrator({ role });
    const { waysIn } = await loadRules(tx);
    const rule = waysIn.find((one) => keyOf(one) === keyOf(input));
    if (!rule) throw new Refused("conflict", t.noSuchRule);
    const key = attemptKey(app.keys, "reminded of ways", keyOf(rule));
    if ((await attemptsOf(tx, key, at)) > 0) throw new Refused("too-many", t.justReminded);
    return { rule, key };
  },
  run: async ({ tx, at, allowed: { rule, key } }) => {
    await countAttempt(tx, key, at);
    const people = await lacking(tx, rule, at);
    const text = t.youNeed(sayDayOf(rule.from), NEED_WORD[rule.needs]);
    for (const { id } of people) await addNotice(tx, { to: id, at, sort: "security", text });
    return { count: people.length, ids: people.map(({ id }) => id) };
  },
  journal: ({ input, result }) => ({ details: { needs: NEED_WORD[input.needs], count: result.count } }),
  says: ({ details }) => `reminded ${details.count} people that they will need ${details.needs} to sign in`,
  tell: ({ result }) => result.ids.map((id) => `person:${id}` as const),
});

const keyOf = ({ groupId, needs, from }: Rule): string => JSON.stringify([groupId, needs, from]);
