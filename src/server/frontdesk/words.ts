/** What else an entry can be found by: its folders, its open fields, and its user name where one may see it. */
import { eq, isNull } from "drizzle-orm";
import { atLeast } from "../../core/access";
import { USER_NAME } from "../../core/kinds/kind";
import { loadReach } from "../access/load";
import { loadEverybody } from "../access/person";
import { isAdministrator } from "../caller";
import { none, query } from "../command";
import { entries, entryVersions, folders, persons } from "../database/schema";
import { openValues } from "../vaults/vaultKeys";

/** So many are opened together; in between, other work of the process has its turn. */
const AT_ONCE = 200;
const LONGEST = 400;

export const finderWords = query({
  name: "frontdesk.words",
  input: none,
  by: ["person"],
  allow: () => undefined,
  run: async ({ tx, me, at, house }): Promise<[string, string][]> => {
    const { levels, tree } = await loadReach(tx, me!, at);
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
        .where(isNull(entries.binnedAt)),
      tx.select().from(folders),
    ]);
    const names = new Map(folderRows.map((row) => [row.nodeId, row.name]));
    const wayTo = (id: string): string[] => {
      if (me!.guest) return [];
      const way: string[] = [];
      for (let up = tree.get(id)?.parent ?? null; up !== null && names.has(up); up = tree.get(up)?.parent ?? null)
        way.push(names.get(up)!);
      return way;
    };
    const reached = rows.filter((row) => atLeast(levels.get(row.id) ?? "none", "use"));
    const found: [string, string][] = [];
    for (let from = 0; from < reached.length; from += AT_ONCE)
      found.push(
        ...(await Promise.all(
          reached.slice(from, from + AT_ONCE).map(async (row): Promise<[string, string]> => {
            const mayKnow = row.visible || atLeast(levels.get(row.id)!, "reveal");
            const userName = mayKnow ? (await openValues(tx, house.keys, row.version)).fields[USER_NAME] : "";
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
    const everybody = (await loadEverybody(tx, at)).filter((one) => one.standing === "active");
    if (me!.guest) {
      const [own] = await tx.select({ by: persons.invitedBy }).from(persons).where(eq(persons.id, me!.id));
      return everybody.filter((one) => one.id === own?.by).map((one) => one.name);
    }
    return everybody
      .filter((one) => isAdministrator(one.role) && one.id !== me!.id)
      .map((one) => one.name)
      .sort()
      .slice(0, 3);
  },
});
