/** "It was not me": what a person says of a sign-in that they read of in a mail. */
import { and, eq, gt, isNull } from "drizzle-orm";
import { z } from "zod";
import { loadByRole } from "../access/person";
import { command } from "../command";
import { deviceSignIns, links, persons } from "../database/schema";
import { requiredProvider } from "../provider/required";
import { standingOf } from "./entering";
import { endAll } from "./sessions";
import { makeLink, requireLink } from "./setUp";
import { newBrowser as t } from "./strings";
import { addNotice } from "./telling";

/**
 * Ends all that is open of the person, whoever opened it, and takes the sign-in password back: a new one is set by the
 * link that comes of it, by whoever reads their mail. Administrators are told.
 */
export const wasNotMe = command({
  name: "people.wasNotMe",
  input: z.strictObject({ token: z.string().max(100) }),
  by: ["nobody", "person"],
  allow: ({ tx, input, at }) => requireLink(tx, input.token, "not-me", at),
  run: async ({ tx, at, allowed: link }) => {
    const personId = link.personId ?? "";
    await tx
      .update(links)
      .set({ usedAt: at })
      .where(
        and(eq(links.personId, personId), eq(links.purpose, "not-me"), isNull(links.usedAt), isNull(links.withdrawnAt)),
      );
    await endAll(tx, personId, at, personId, "the person said that a sign-in was not theirs");
    await tx
      .update(deviceSignIns)
      .set({ declinedAt: at })
      .where(and(eq(deviceSignIns.approvedBy, personId), gt(deviceSignIns.expiresAt, at)));
    const [person] = await tx.select().from(persons).where(eq(persons.id, personId));
    const name = person?.name ?? "";
    for (const one of await loadByRole(tx, ["owner", "administrator"], at))
      if (one.standing === "active" && one.id !== personId)
        await addNotice(tx, { to: one.id, at, sort: "watch", text: t.saysItWasNotThem(name) });
    const required = await requiredProvider(tx, personId);
    if (!person?.passwordHash || required || (await standingOf(tx, personId, at)) !== "active")
      return { personId, name, link: null, provider: required?.name ?? null };
    await tx.update(persons).set({ passwordHash: null }).where(eq(persons.id, personId));
    return { personId, name, link: await makeLink(tx, "sign-in", personId, at), provider: null };
  },
  journal: ({ result }) => ({ person: result.personId, names: { [result.personId]: result.name } }),
  says: () => "said that a sign-in was not theirs: all their sessions ended and their sign-in password was withdrawn",
  tell: ({ result }) => [`person:${result.personId}`, "administrators"],
});
