/** A draft shown to another person before it is applied: they read it as far as they are steward, and say something. */
import { and, eq, sql } from "drizzle-orm";
import { z } from "zod";
import { command, idSchema, none, query } from "../../command";
import { slips } from "../../database/schema";
import { addNotice, settleNotices } from "../../people/telling";
import { notFound, Refused } from "../../refused";
import { loadPerson } from "../person";
import { secondOpinions as t } from "../strings";
import { draftOf } from "./slip";
import { vaultsOf } from "./slipChanges";
import { computeEffects, type SlipSaid } from "./slipTelling";

export const askSecondOpinion = command({
  name: "access.askSecondOpinion",
  input: z.strictObject({ personId: idSchema }),
  by: ["person"],
  allow: async ({ tx, input, me, at }) => {
    const draft = await draftOf(tx, me.id);
    if (!draft) throw notFound();
    const reader = await loadPerson(tx, input.personId, at);
    if (reader?.standing !== "active" || reader.guest || reader.id === me.id)
      throw new Refused("bad-input", t.askAnotherMemberOfStaffForA, "personId");
    if (draft.shownTo.includes(reader.id)) throw new Refused("conflict", t.hasAlreadyBeenAsked(reader.name));
    return { draft, reader };
  },
  run: async ({ tx, me, at, allowed }) => {
    const { draft, reader } = allowed;
    await tx
      .update(slips)
      .set({ shownTo: [...draft.shownTo, reader.id] })
      .where(eq(slips.id, draft.id));
    await addNotice(tx, {
      to: reader.id,
      at,
      sort: "requests",
      text: t.asksYouForASecondOpinionOn(me.name),
      about: draft.id,
    });
  },
  journal: null,
  tell: ({ input }) => [`person:${input.personId}`],
});

export interface ShownSlip {
  id: string;
  by: string;
  said: SlipSaid;
}

/** Drafts of others that the caller is asked to look at. */
export const secondOpinions = query({
  name: "access.secondOpinions",
  input: none,
  by: ["person"],
  offMainThread: true,
  allow: () => undefined,
  run: async ({ tx, me, at }): Promise<ShownSlip[]> => {
    const shown = await tx
      .select()
      .from(slips)
      .where(
        and(eq(slips.state, "draft"), sql`exists (select 1 from json_each(${slips.shownTo}) where value = ${me.id})`),
      );
    const found: ShownSlip[] = [];
    for (const slip of shown) {
      const changes = slip.changes.map(({ change }) => change);
      const { said } = await computeEffects(tx, changes, await vaultsOf(tx, changes), me.id, at);
      found.push({ id: slip.id, by: (await loadPerson(tx, slip.personId, at))?.name ?? "", said });
    }
    return found;
  },
});

/** What somebody says who looked at it; the drafter reads it. */
export const giveSecondOpinion = command({
  name: "access.giveSecondOpinion",
  input: z.strictObject({
    slipId: idSchema,
    word: z.string().trim().min(1, t.writeAComment).max(500),
  }),
  by: ["person"],
  allow: async ({ tx, input, me }) => {
    const [slip] = await tx.select().from(slips).where(eq(slips.id, input.slipId));
    if (!slip?.shownTo.includes(me.id)) throw notFound();
    if (slip.state !== "draft") throw new Refused("conflict", t.itHasBeenAppliedOrDiscarded);
    return slip;
  },
  run: async ({ tx, input, me, at, allowed }) => {
    const left = allowed.shownTo.filter((id) => id !== me.id);
    await tx.update(slips).set({ shownTo: left }).where(eq(slips.id, allowed.id));
    await settleNotices(tx, allowed.id, at, me.id);
    await addNotice(tx, {
      to: allowed.personId,
      at,
      sort: "answers",
      text: t.commentedOnYourChangeSlip(me.name, input.word),
    });
  },
  journal: null,
  tell: ({ allowed }) => [`person:${allowed.personId}`],
});
