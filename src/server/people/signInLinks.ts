/** Sign-in links of people who have not joined yet, or start anew: made, mailed, opened, extended, withdrawn. */
import { and, eq, isNull } from "drizzle-orm";
import { z } from "zod";
import { sayDate } from "../../core/time";
import { command, idSchema } from "../command";
import type { Transaction } from "../database/client";
import { links, persons } from "../database/schema";
import type { Galtry } from "../galtry";
import { letterOf } from "../mail/letter";
import { queueMail } from "../mail/queue";
import { loadHome } from "../organisation";
import { Refused } from "../refused";
import { requireOther } from "./administrators";
import { LINK_MS, makeLink } from "./setUp";
import { signInLinks as t } from "./strings";
import { tokenHash } from "./tokens";

export interface MadeLink {
  /** To be passed on by hand; null where it went by mail, and nobody else reads it. */
  link: string | null;
  /** Where it was mailed. */
  sentTo: string | null;
}

/** A new one-time link: mailed to whom it is for, or shown once to whoever made it. */
export async function makeSignInLink(
  tx: Transaction,
  app: Galtry,
  {
    personId,
    by,
    send,
    joined,
    at,
  }: { personId: string; by: { id: string; name: string }; send: boolean; joined: boolean; at: number },
): Promise<MadeLink> {
  if (send && !app.configuration.mail) throw new Refused("conflict", t.noMailIsSetUp);
  const token = await makeLink(tx, "sign-in", personId, at);
  const address = new URL(`/join#${token}`, app.configuration.publicUrl).href;
  if (!send) return { link: address, sentTo: null };
  const [person] = await tx.select().from(persons).where(eq(persons.id, personId));
  if (!person) throw new Error(`no person ${personId}`);
  const home = await loadHome(tx);
  const mailId = await queueMail(
    tx,
    app.keys,
    {
      to: person.mail,
      subject: t.subject(home.name),
      body: letterOf({
        organisation: home.name,
        paragraphs: [
          t.hello(person.name),
          joined ? t.hasMadeANewLink(by.name, home.name) : t.hasAddedYou(by.name, home.name),
        ],
        act: { word: t.setUpYourSignIn, address },
        after: [t.worksOnceUntil(sayDate(at + LINK_MS, at, home.zone)), t.ifYouDoNotKnow(by.name)],
      }),
      ...{ until: at + LINK_MS, makerId: by.id, nodeId: null },
    },
    at,
  );
  await tx
    .update(links)
    .set({ mailId })
    .where(eq(links.tokenHash, tokenHash(token)));
  return { link: null, sentTo: person.mail };
}

const openLink = (personId: string) =>
  and(eq(links.personId, personId), eq(links.purpose, "sign-in"), isNull(links.usedAt), isNull(links.withdrawnAt));

/** The page behind a link was looked at: whoever made it sees that it has arrived. */
export const noteOpened = command({
  name: "people.noteOpened",
  input: z.strictObject({ token: z.string().max(100) }),
  by: ["nobody", "person"],
  allow: () => undefined,
  run: async ({ tx, input, at }) => {
    // Nothing is said of links that there are not.
    const rows = await tx
      .update(links)
      .set({ openedAt: at })
      .where(and(eq(links.tokenHash, tokenHash(input.token)), isNull(links.openedAt), isNull(links.withdrawnAt)))
      .returning({ personId: links.personId });
    return rows.length;
  },
  journal: null,
  tell: ({ result }) => (result > 0 ? ["administrators"] : []),
});

/** Seven more days for the link that somebody has; it stays the same. */
export const extendLink = command({
  name: "people.extendLink",
  input: z.strictObject({ personId: idSchema }),
  by: ["person"],
  allow: (context) => requireOther(context, context.input.personId),
  run: async ({ tx, input, at }) => {
    const rows = await tx
      .update(links)
      .set({ expiresAt: at + LINK_MS })
      .where(openLink(input.personId))
      .returning({ id: links.id });
    if (rows.length === 0) throw new Refused("conflict", t.thereIsNoLinkToExtend);
    return { until: at + LINK_MS };
  },
  journal: ({ input, allowed, result }) => ({
    subject: input.personId,
    details: { until: result.until },
    names: { [input.personId]: allowed.person.name },
  }),
  says: ({ subject, until }) => `extended the sign-in link of ${subject}${until}`,
  tell: () => ["administrators"],
});

export const withdrawLink = command({
  name: "people.withdrawLink",
  input: z.strictObject({ personId: idSchema }),
  by: ["person"],
  allow: (context) => requireOther(context, context.input.personId),
  run: async ({ tx, input, at }) => {
    const rows = await tx
      .update(links)
      .set({ withdrawnAt: at })
      .where(openLink(input.personId))
      .returning({ id: links.id });
    if (rows.length === 0) throw new Refused("conflict", t.thereIsNoLinkToWithdraw);
  },
  journal: ({ input, allowed }) => ({ subject: input.personId, names: { [input.personId]: allowed.person.name } }),
  says: ({ subject }) => `withdrew the sign-in link of ${subject}`,
  tell: () => ["administrators"],
});
