/**
 * A password changed by hand at its site, with Lanyard beside: it fills in the current one and a new one, which is kept here
 * before it leaves. Until somebody says which of the two the site takes from then on, both are kept.
 */
import { eq } from "drizzle-orm";
import { z } from "zod";
import { PASSWORD } from "../../core/kinds/kind";
import { hostOf, plainPage } from "../../core/signin/address";
import { personIdOf } from "../caller";
import { command, idSchema } from "../command";
import { passwordChanges } from "../database/schema";
import { Refused } from "../refused";
import { requireEntry, requireInUse } from "../vaults/entries";
import { requireRevealGates } from "../vaults/revealGates";
import { fingerprint, loginOf } from "../vaults/sealing";
import { openValues } from "../vaults/vaultKeys";
import { currentVersion, noteSighting } from "../vaults/writing";
import { belongs, newChange } from "./changePassword";
import { isChanging, openChange, openQuestion, sealChange } from "./passwordChanges";
import { changeByHand as t } from "./strings";

/** Either or both of the two go to this browser: into the page's fields, or to be copied by its person. */
export const fillChange = command({
  name: "lanyard.fillChange",
  input: z.strictObject({
    ...{ entryId: idSchema, page: z.url().max(2000), how: z.enum(["filled in", "copied"]), current: z.boolean() },
    /** What is to be the new one, unless one waits already that was not rejected. */
    fresh: z.strictObject({ password: z.string().min(1).max(500), another: z.boolean() }).nullable(),
  }),
  by: ["lanyard"],
  allow: async (context) => {
    const { tx, input, app } = context;
    const held = await requireEntry(context, input.entryId, "edit");
    requireInUse(held.entry);
    await requireRevealGates(context, held);
    const page = new URL(input.page);
    if (held.entry.signInPage === "" || !belongs(held.entry, input.page))
      throw new Refused("not-allowed", t.notOfThisSite(hostOf(held.entry.signInPage) ?? ""));
    const listed = app.configuration.allowedTargets.has(page.host);
    if (page.protocol !== "https:" && !listed && !held.entry.plainHttp)
      throw new Refused("not-allowed", t.notEncrypted);
    const open = await openQuestion(tx, input.entryId);
    if (await isChanging(tx, input.entryId)) throw new Refused("conflict", t.isBeingChanged);
    if (open && open.outcome !== "by-hand") throw new Refused("conflict", t.firstDecide);
    return { ...held, open };
  },
  run: async ({ tx, input, caller, at, app, allowed: { entry, vaultId, open } }) => {
    const version = await currentVersion(tx, entry);
    const { password } = loginOf(await openValues(tx, app.keys, version));
    const personId = personIdOf(caller);
    const see = (value: string) =>
      noteSighting(tx, {
        ...{ entryId: entry.nodeId, field: PASSWORD, mark: fingerprint(app.keys, PASSWORD, value) },
        ...{ personId, at, how: input.how },
      });
    if (input.current) await see(password);
    const current = input.current ? password : null;
    if (!input.fresh) return { current, fresh: null };
    const { password: created, another } = input.fresh;
    const fresh = open && !another ? await openChange(tx, app, vaultId, open) : created;
    if (!open || another) {
      const where = { entryId: entry.nodeId, page: plainPage(input.page) ?? "" };
      const row = await newChange(tx, where, { versionId: version.id, personId, process: app.process }, at);
      const sealed = await sealChange(tx, app, vaultId, row.id, created);
      await tx
        .update(passwordChanges)
        .set({ ...sealed, outcome: "by-hand", sentAt: at, endedAt: at })
        .where(eq(passwordChanges.id, row.id));
    }
    await see(fresh);
    return { current, fresh };
  },
  journal: ({ input, allowed }) => ({
    node: input.entryId,
    vault: allowed.vaultId,
    details: { how: input.how, host: hostOf(input.page) ?? "", current: input.current, fresh: input.fresh !== null },
    names: { [input.entryId]: allowed.entry.name },
  }),
  says: ({ details, it }) =>
    `${details.how} the ${details.fresh ? (details.current ? "current and a new" : "new") : "current"} password of ${it} at ${details.host}, to change it by hand`,
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`],
});
