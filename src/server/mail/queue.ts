/**
 * Mail on its way out. A command writes what is to go in its own transaction; it is sent afterwards, because no
 * transaction waits for the network. The text lies sealed until it has gone and is erased then.
 */
import { and, asc, eq, isNotNull, isNull, lt, lte } from "drizzle-orm";
import { z } from "zod";
import { deriveKey, fromUtf8, open, seal, utf8 } from "../../core/crypto";
import { nodeName } from "../access/nodeName";
import { command, idSchema } from "../command";
import type { Transaction } from "../database/client";
import { mails, organisation } from "../database/schema";
import { uuidv7 } from "../ids";
import type { KeyRing } from "../keys/keyFile";
import { addNotice } from "../people/telling";
import type { MailBody } from "./letter";

/** Whoever takes one has so long for it, and gives up sooner; after that another process tries again. */
const LEASE_MS = 120_000;
const AGAIN_MS = 20_000;
const KEPT_MS = 86_400_000;

export interface Outgoing {
  to: string;
  subject: string;
  body: MailBody;
  /** Not sent any more from then on. */
  until: number;
  /** Who is told when it does not go out, and of what; "" for nobody. */
  makerId: string;
  nodeId: string | null;
}

const mailKey = (keys: KeyRing) => deriveKey(keys.fingerprints, "mail on its way out");
const binding = (id: string) => ["mail", id] as const;

/** @returns the id under which it waits */
export async function queueMail(tx: Transaction, keys: KeyRing, mail: Outgoing, at: number): Promise<string> {
  const id = uuidv7();
  const { body, ...open } = mail;
  const sealed = Buffer.from(await seal(await mailKey(keys), utf8(JSON.stringify(body)), binding(id)));
  await tx.insert(mails).values({ id, ...open, sealed, madeAt: at, nextAt: at });
  return id;
}

/** The one that is due for longest, for whoever sends it; null when none is. */
export const takeMail = command({
  name: "mail.takeMail",
  internal: true,
  input: z.strictObject({}),
  by: ["server"],
  allow: () => undefined,
  run: async ({ tx, at, app }) => {
    await tx.delete(mails).where(and(lt(mails.madeAt, at - KEPT_MS), lt(mails.until, at)));
    const [due] = await tx
      .select()
      .from(mails)
      .where(and(isNotNull(mails.sealed), lte(mails.nextAt, at)))
      .orderBy(asc(mails.nextAt))
      .limit(1);
    if (!due) return null;
    const { id, to, subject, sealed } = due;
    await tx
      .update(mails)
      .set({ nextAt: at + LEASE_MS })
      .where(eq(mails.id, id));
    const opened = fromUtf8(await open(await mailKey(app.keys), new Uint8Array(sealed!), binding(id)));
    return { id, to, subject, ...(JSON.parse(opened) as MailBody) };
  },
  journal: null,
  tell: () => [],
});

/** One went out, or did not: then it is tried again while it may still be of use, and its maker is told when not. */
export const mailTried = command({
  name: "mail.mailTried",
  internal: true,
  input: z.strictObject({
    mailId: idSchema,
    wrong: z.string().max(300).nullable(),
    /** The mail server will never take it. */
    forGood: z.boolean().default(false),
  }),
  by: ["server"],
  allow: () => undefined,
  run: async ({ tx, input: { mailId, wrong, forGood }, at }) => {
    const [row] = await tx.select().from(mails).where(eq(mails.id, mailId));
    if (!row?.sealed) return null;
    // The longer it has waited, the longer until it is tried again.
    const nextAt = at + Math.max(AGAIN_MS, Math.round((at - row.madeAt) / 4));
    const over = wrong !== null && (forGood || nextAt >= row.until);
    await tx
      .update(mails)
      .set(
        wrong === null
          ? { sealed: null, sentAt: at }
          : over
            ? { sealed: null, failedAt: at, wrong }
            : { nextAt, wrong },
      )
      .where(eq(mails.id, mailId));
    if (wrong === null) await tx.update(organisation).set({ mailedAt: at }).where(isNull(organisation.mailedAt));
    if (!over || row.makerId === "") return null;
    await addNotice(tx, {
      to: row.makerId,
      at,
      sort: "watch",
      text: `A mail to ${row.to} did not go out: ${wrong}`,
      nodeId: row.nodeId,
    });
    const name = row.nodeId ? await nodeName(tx, row.nodeId) : "";
    return { makerId: row.makerId, nodeId: row.nodeId, name, to: row.to };
  },
  journal: ({ result, input }) =>
    result && {
      node: result.nodeId,
      details: { to: result.to, wrong: input.wrong },
      names: result.nodeId ? { [result.nodeId]: result.name } : {},
    },
  says: ({ details, place }) => `could not send an email to ${details.to}${place("about")}: ${details.wrong}`,
  tell: ({ result }) => (result ? [`person:${result.makerId}`] : []),
});
