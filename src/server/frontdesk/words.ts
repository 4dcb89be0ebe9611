/** What else an entry can be found by: its folders, its open fields, and its user name where one may see it. */
import { and, eq, inArray, isNull } from "drizzle-orm";
import { atLeast } from "../../core/access";
import { USER_NAME } from "../../core/kinds/kind";
import { reachOf } from "../access/load";
import { none, query } from "../command";
import { inJson } from "../database/bulk";
import { entries, entryVersions, folders, personStates, persons } from "../database/schema";
import { openValues } from "../vaults/vaultKeys";

/** So many are opened together; in between, other work of the process has its turn. */
const AT_ONCE = 200;
const LONGEST = 400;

export const finderWords = query({
  name: "frontdesk.finderWords",
  input: none,
  by: ["person"],
  allow: () => undefined,
  run: async ({ tx, me, at, app }): Promise<[string, string][]> => {
    const { levels, node } = reachOf(tx, me, at);
    const wayUp = function* (id: string): Generator<string> {
      for (let up = node(id)?.parent ?? null; up !== null; up = node(up)?.parent ?? null) yield up;
    };
    const entryIds = [...levels.keys()].filter((id) => node(id)!.type === "entry");
    const above = new Set(entryIds.flatMap((id) => [...wayUp(id)]));
    const [rows, folderRows] = await Promise.all([
      tx
        .select({
          id: entries.nodeId,
          fields: entries.fields,
          extras: entries.extras,
          visible: entries.useSeesUserName,
          version: entryVersions,
        })
        .from(entries)
        .innerJoin(entryVersions, eq(entryVersions.id, entries.versionId))
        .where(and(inJson(entries.nodeId, entryIds), isNull(entries.binnedAt))),
      me.guest
        ? []
        : tx
            .select()
            .from(folders)
            .where(inJson(folders.nodeId, [...above])),
    ]);
    const names = new Map(folderRows.map((row) => [row.nodeId, row.name]));
    const wayTo = (id: string): string[] => [...wayUp(id)].flatMap((up) => names.get(up) ?? []);
    const found: [string, string][] = [];
    for (let from = 0; from < rows.length; from += AT_ONCE)
      found.push(
        ...(await Promise.all(
          rows.slice(from, from + AT_ONCE).map(async (row): Promise<[string, string]> => {
            const mayKnow = row.visible || atLeast(levels.get(row.id)!, "reveal");
            const userName = mayKnow ? (await openValues(tx, app.keys, row.version)).fields[USER_NAME] : "";
            const open = row.extras.filter((extra) => extra.class === "open").map((extra) => extra.value ?? "");
            const words = [userName ?? "", ...wayTo(row.id), ...Object.values(row.fields), ...open];
            return [row.id, words.filter(Boolean).join(" ").slice(0, LONGEST)];
          }),
        )),
      );
    return found.filter(([, words]) => words !== "");
  },
});

/** Whom to ask for what one does not reach: whoever looks after the organisation's vaults; of a guest, who asked them in. */
export const whomToAsk = query({
  name: "frontdesk.whomToAsk",
  input: none,
  by: ["person"],
  allow: () => undefined,
  run: async ({ tx, me, at }) => {
    const active = (id: string | null) => id !== null && tx.access?.who(id, at)?.standing === "active";
    if (me.guest) {
      const [own] = await tx.select({ by: persons.invitedBy }).from(persons).where(eq(persons.id, me.id));
      return own && active(own.by) ? [tx.access!.person(own.by!)!.name] : [];
    }
    const rows = await tx
      .select({ id: personStates.personId, name: persons.name })
      .from(personStates)
      .innerJoin(persons, eq(persons.id, personStates.personId))
      .where(and(inArray(personStates.role, ["owner", "administrator"]), isNull(personStates.validUntil)));
    return rows
      .filter(({ id }) => id !== me.id && active(id))
      .map(({ name }) => name)
      .sort()
      .slice(0, 3);
  },
});
