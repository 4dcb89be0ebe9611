/** Names of people, as far as their reader may know them. */
import { sql } from "drizzle-orm";
import type { Reader } from "../database/client";
import { ITSELF, OUTSIDE } from "../database/schema";
import type { Person } from "./person";

/** Who stands in place of a person. */
const OTHERS = new Map([
  [OUTSIDE, "someone outside"],
  [ITSELF, "Galtry"],
]);

/**
 * The names of those that are asked for, and no more are read. Staff know one another by name; a guest knows nobody but
 * themselves and the person who invited them.
 * @returns gives "" for those whom the reader does not know, and for people who are not there
 */
export async function peopleNames(
  tx: Reader,
  me: Pick<Person, "id" | "guest">,
  ids: Iterable<string | null>,
): Promise<(id: string | null) => string> {
  const wanted = [...new Set(ids)].filter((id) => id !== null && !OTHERS.has(id));
  const { access } = tx;
  if (access && !me.guest) return (id) => (id === null ? "" : (OTHERS.get(id) ?? access.person(id)?.name ?? ""));
  const rows =
    wanted.length === 0
      ? []
      : await tx.all<{ id: string; name: string }>(sql`
          select p.id as id, p.name as name from persons p
          where p.id in (select value from json_each(${JSON.stringify(wanted)}))
            and (${me.guest ? 0 : 1} or p.id = ${me.id} or p.id = (select invited_by from persons where id = ${me.id}))`);
  const names = new Map(rows.map((row) => [row.id, row.name]));
  return (id) => (id === null ? "" : (OTHERS.get(id) ?? names.get(id) ?? ""));
}
