/**
 * "Is there a login for this site?", asked from Lanyard. It goes to the stewards of what is kept for that address, as a
 * request like any other, and to the administrators. Whoever asks is told the same whether anything is kept or not.
 */
import { and, eq, isNull } from "drizzle-orm";
import { z } from "zod";
import { atLeast, resolve } from "../../../core/access/index";
import { hostOf } from "../../../core/signin/address";
import { matches, siteOf } from "../../../core/signin/site";
import { command, type Topic } from "../../command";
import { asks, entries } from "../../database/schema";
import { uuidv7 } from "../../ids";
import { attemptKey, countAttempt, requireFewAttempts } from "../../people/attempts";
import { addNotice } from "../../people/telling";
import { notFound, Refused } from "../../refused";
import { loadSteps } from "../load";
import { loadByRole } from "../person";
import { stewardsAt } from "../stewards";
import { loginRequests as t } from "../strings";

/** In a quarter of an hour. */
const MOST_ASKED = 10;
/** Of more than these for one address nobody is asked. */
const MOST_ENTRIES = 12;

export const requestLogin = command({
  name: "access.requestLogin",
  input: z.strictObject({
    page: z.url().max(2000),
    why: z.string().trim().min(1, t.giveAReasonItsStewardDecidesBy).max(500),
  }),
  by: ["person", "lanyard"],
  allow: async ({ tx, input, me, at, app }) => {
    if (me.guest) throw notFound();
    const host = hostOf(input.page);
    if (!host) throw new Refused("bad-input", t.thisIsNotTheAddressOfA, "page");
    const site = siteOf(host);
    const [open] = await tx
      .select({ id: asks.id })
      .from(asks)
      .where(and(eq(asks.personId, me.id), eq(asks.site, site), eq(asks.state, "open")));
    if (open) throw new Refused("conflict", t.youHaveAlreadyRequestedALogin);
    await requireFewAttempts(tx, attemptKey(app.keys, "ask for a site", me.id), MOST_ASKED, at);
    return { site, told: new Set<string>() };
  },
  // Who was told, and how many, is not for whoever asks: it is not in what is given back.
  run: async ({ tx, input, me, at, app, allowed }) => {
    const { site } = allowed;
    await countAttempt(tx, attemptKey(app.keys, "ask for a site", me.id), at);
    const { told } = allowed;
    const ask = async (nodeId: string) => {
      const id = uuidv7();
      await tx.insert(asks).values({
        ...{ id, personId: me.id, nodeId, level: "use", why: input.why, state: "open" },
        ...{ askedAt: at, site },
      });
      return id;
    };
    const kept = await tx
      .select()
      .from(entries)
      .where(and(eq(entries.site, site), isNull(entries.binnedAt), isNull(entries.asideAt)));
    for (const entry of kept.filter((row) => matches(row, input.page)).slice(0, MOST_ENTRIES)) {
      const { steps } = await loadSteps(tx, entry.nodeId);
      const own = resolve(me, steps, at);
      if (atLeast(own.level, "use") || own.because.some((say) => say.grant.level === "blocked")) continue;
      const askId = await ask(entry.nodeId);
      const text = t.requestsALoginForAndYouAre(me.name, site, entry.name, input.why);
      for (const person of await stewardsAt(tx, entry.nodeId, at))
        if (person.id !== me.id) {
          await addNotice(tx, { to: person.id, at, sort: "requests", text, nodeId: entry.nodeId, about: askId });
          told.add(person.id);
        }
    }
    // Kept or not, one row stands for the question itself: what follows looks the same from outside.
    const askId = await ask("");
    const text = t.requestsALoginForIfThereIs(me.name, site, input.why);
    for (const person of await loadByRole(tx, ["owner", "administrator"], at))
      if (person.id !== me.id && !told.has(person.id)) {
        await addNotice(tx, { to: person.id, at, sort: "requests", text, about: askId });
        told.add(person.id);
      }
    return null;
  },
  journal: ({ input, allowed }) => ({ details: { site: allowed.site, why: input.why } }),
  says: ({ details, why }) => `requested a login for ${details.site}${why}`,
  tell: ({ allowed }) => [...allowed.told].map((id): Topic => `person:${id}`),
});
