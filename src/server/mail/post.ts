/** Sends what waits to go out, over SMTP (RFC 5321), as long as this process lives. */

import { setTimeout as sleep } from "node:timers/promises";
import { and, isNotNull, lte } from "drizzle-orm";
import { createTransport } from "nodemailer";
import { isLoopbackHost, type MailConfiguration } from "../configuration";
import { mails } from "../database/schema";
import type { Galtry } from "../galtry";
import { goesOn } from "../log";
import { anyNoticeDue, mailNotices } from "./noticeMail";
import { mailTried, takeMail } from "./queue";

const LOOK_EVERY_MS = 500;
const LONGEST_MS = 15_000;

const SERVER = { kind: "server" } as const;

/** A connection to the mail server that is set; what leaves this machine goes over TLS or not at all. */
function transport({ server, from }: MailConfiguration) {
  const address = new URL(server);
  const secure = address.protocol === "smtps:";
  const user = decodeURIComponent(address.username);
  return createTransport(
    {
      host: address.hostname,
      port: Number(address.port) || (secure ? 465 : 587),
      secure,
      requireTLS: !secure && !isLoopbackHost(address.hostname),
      ignoreTLS: !secure && isLoopbackHost(address.hostname),
      auth: user ? { user, pass: decodeURIComponent(address.password) } : undefined,
      connectionTimeout: LONGEST_MS,
      greetingTimeout: LONGEST_MS,
      socketTimeout: LONGEST_MS,
      // What a mail says is text: no file and no address is ever read for one.
      disableFileAccess: true,
      disableUrlAccess: true,
    },
    { from, headers: { "Auto-Submitted": "auto-generated" } },
  );
}

/** Sends those that are due, one after the other. */
export async function sendMails(app: Galtry): Promise<void> {
  const { mail } = app.configuration;
  if (!mail) return;
  while (await anyDue(app)) {
    const taken = await takeMail.execute(app, {}, SERVER);
    if (!taken) return;
    const way = transport(mail);
    const { id: mailId, to, subject, text, html } = taken;
    const tried = await way.sendMail({ to: { name: "", address: to }, subject, text, html }).then(
      () => ({ wrong: null }),
      ({ message, responseCode }: Error & { responseCode?: number }) => ({
        wrong: message.replace(/\s+/g, " ").slice(0, 300),
        // Of 5xx RFC 5321 says that the same is not to be sent again; 530 to 538 are about signing in, which is mended here.
        forGood: responseCode !== undefined && responseCode >= 550,
      }),
    );
    way.close();
    await mailTried.execute(app, { mailId, ...tried }, SERVER);
  }
}

/** Asked without a transaction, because it is asked twice a second. */
async function anyDue(app: Galtry): Promise<boolean> {
  const due = await app.db
    .select({ id: mails.id })
    .from(mails)
    .where(and(isNotNull(mails.sealed), lte(mails.nextAt, Date.now())))
    .limit(1);
  return due.length > 0;
}

export async function keepSending(app: Galtry): Promise<void> {
  if (!app.configuration.mail) return;
  for (;;) {
    if (await anyNoticeDue(app).catch(() => false))
      await mailNotices.execute(app, {}, SERVER).catch(goesOn(mailNotices.name));
    await sendMails(app).catch(goesOn("mail.send"));
    await sleep(LOOK_EVERY_MS, undefined, { ref: false });
  }
}
