/** One folder as its reader may see it. */

import { eq } from "drizzle-orm";
import { z } from "zod";
import { requireLevel } from "../access/load";
import { ownLevel } from "../access/who";
import { idSchema, query } from "../command";
import { folders } from "../database/schema";
import { storyOf } from "../journal/story";
import { timeZone } from "../organisation";
import { notFound } from "../refused";
import { foldersOnTheWay, vaultNames } from "./places";

export const folderPage = query({
  name: "vaults.folderPage",
  input: z.strictObject({ folderId: idSchema }),
  by: ["person"],
  allow: (context) => requireLevel(context, context.input.folderId, "use"),
  run: async ({ tx, me, input, at, allowed, app }) => {
    const [folder] = await tx.select().from(folders).where(eq(folders.nodeId, input.folderId));
    const steward = allowed.level === "steward";
    if (!folder || (folder.binnedAt !== null && !steward)) throw notFound();
    const [zone, own] = await Promise.all([timeZone(tx), ownLevel(tx, me.id, input.folderId, at)]);
    return {
      id: folder.nodeId,
      name: folder.name,
      binnedAt: folder.binnedAt,
      separate: allowed.path[0].separate,
      binnedWith: folder.binnedWith,
      vault: { id: allowed.vaultId, name: (await vaultNames(tx, me, [allowed.vaultId], at))(allowed.vaultId) },
      folders: await foldersOnTheWay(tx, allowed.path.slice(1), me),
      level: allowed.level,
      own: own!,
      /** The reader is one. */
      guest: me.guest,
      zone,
      story: await storyOf({ tx, me: me, app }, folder.nodeId, steward ? null : me.id),
    };
  },
});
