/** Messages for a person: read, dismissed, and whether they go by mail as well. */
import { and, desc, eq, inArray, isNull } from "drizzle-orm";
import { z } from "zod";
import { CHOSEN_SORTS, MAIL_TIMES, mailTime } from "../../core/people/notices";
import { reachOf } from "../access/load";
import { nodeLinks } from "../access/nodeName";
import { personIdOf } from "../caller";
import { command, idSchema, none, query } from "../command";
import { notices, persons } from "../database/schema";
import { pageOfNotice } from "./changeLists";

export const ownNotices = query({
  name: "people.ownNotices",
  input: none,
  by: ["person"],
  allow: () => undefined,
  run: async ({ tx, me, at }) => {
    const rows = await tx
      .select({
        ...{ id: notices.id, at: notices.at, text: notices.text, nodeId: notices.nodeId },
        ...{ sort: notices.sort, about: notices.about },
      })
      .from(notices)
      .where(and(eq(notices.personId, me.id), isNull(notices.putAwayAt)))
      .orderBy(desc(notices.at));
    const { levels } = reachOf(tx, me, at);
    const links = await nodeLinks(
      tx,
      rows.flatMap(({ nodeId }) => (nodeId !== null && levels.has(nodeId) ? [nodeId] : [])),
    );
    return rows.map(({ sort, about, ...row }) => {
      const there = links.get(row.nodeId ?? "") ?? null;
      if (sort === "rounds" && there !== null) return { ...row, link: `/access/${row.nodeId}/rounds` };
      const changes = pageOfNotice(about);
      if (changes !== null) return { ...row, link: changes };
      // What waits for an answer is answered at the Front desk.
      return { ...row, link: about !== null && sort === "requests" ? "/" : there };
    });
  },
});

export const dismissNotices = command({
  name: "people.dismissNotices",
  evenFor: ["auditor"],
  input: z.strictObject({ ids: z.array(idSchema).max(500) }),
  by: ["person"],
  allow: () => undefined,
  run: async ({ tx, input, caller, at }) => {
    if (input.ids.length > 0)
      await tx
        .update(notices)
        .set({ putAwayAt: at })
        .where(and(inArray(notices.id, input.ids), eq(notices.personId, personIdOf(caller))));
  },
  journal: null,
  tell: () => [],
});

/** Which notices go by mail as well, and when. */
export const ownMailChoices = query({
  name: "people.ownMailChoices",
  input: none,
  by: ["person"],
  allow: () => undefined,
  run: async ({ tx, me, app }) => {
    const [person] = await tx.select({ choices: persons.mailChoices }).from(persons).where(eq(persons.id, me.id));
    const choices = person?.choices ?? null;
    return {
      mails: app.configuration.mail !== null,
      choices: CHOSEN_SORTS.map((sort) => ({ sort, time: mailTime(choices, sort) })),
    };
  },
});

export const chooseMail = command({
  name: "people.chooseMail",
  evenFor: ["auditor"],
  input: z.strictObject({ sort: z.enum(CHOSEN_SORTS), time: z.enum(MAIL_TIMES) }),
  by: ["person"],
  allow: () => undefined,
  run: async ({ tx, input, me }) => {
    const [person] = await tx.select({ choices: persons.mailChoices }).from(persons).where(eq(persons.id, me.id));
    await tx
      .update(persons)
      .set({ mailChoices: { ...person?.choices, [input.sort]: input.time } })
      .where(eq(persons.id, me.id));
  },
  journal: null,
  tell: () => [],
});
