/** A sign-in from a browser that was not known: its person reads of it at once, and can say that it was somebody else. */
import { sayDate } from "../../core/time";
import type { Transaction } from "../database/client";
import { links } from "../database/schema";
import type { Galtry } from "../galtry";
import { uuidv7 } from "../ids";
import { letterOf } from "../mail/letter";
import { queueMail } from "../mail/queue";
import { loadHome } from "../organisation";
import { newBrowser as t } from "./strings";
import { addNotice } from "./telling";
import { newToken, tokenHash } from "./tokens";

/** So long the link in the mail works. */
const NOT_ME_MS = 7 * 86_400_000;

/** Tells the person; by mail with a link where there is mail. */
export async function tellOfNewBrowser(
  tx: Transaction,
  app: Galtry,
  person: { id: string; name: string; mail: string },
  from: { browser: string; address: string },
  at: number,
): Promise<void> {
  const home = await loadHome(tx);
  const said = t.youSignedIn(from.browser, from.address, sayDate(at, at, home.zone));
  const mails = app.configuration.mail !== null;
  await addNotice(tx, { to: person.id, at, sort: "security", text: `${said} ${t.ifItWasNotYou}`, mailed: mails });
  if (!mails) return;
  const token = newToken();
  await tx.insert(links).values({
    ...{ id: uuidv7(), tokenHash: tokenHash(token), purpose: "not-me", personId: person.id },
    ...{ createdAt: at, expiresAt: at + NOT_ME_MS },
  });
  await queueMail(
    tx,
    app.keys,
    {
      to: person.mail,
      subject: t.subject(home.name),
      body: letterOf({
        organisation: home.name,
        paragraphs: [t.hello(person.name), said, t.ifItWasYou],
        act: { word: t.itWasNotMe, address: new URL(`/not-me#${token}`, app.configuration.publicUrl).href },
        after: [t.whatItDoes, t.worksOnceUntil(sayDate(at + NOT_ME_MS, at, home.zone))],
      }),
      ...{ until: at + NOT_ME_MS, makerId: "", nodeId: null },
    },
    at,
  );
}
