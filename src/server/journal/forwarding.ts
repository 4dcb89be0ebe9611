/**
 * Lines of the Journal are sent on as they happen, where the operator says so: to a syslog over TLS or to a webhook. Each
 * goes out at least once, in their order: how far they have gone is written down after they have been taken.
 */
import { readFileSync } from "node:fs";
import { isIP } from "node:net";
import { setTimeout as sleep } from "node:timers/promises";
import { connect } from "node:tls";
import { asc, eq, gt, sql } from "drizzle-orm";
import { type ForwardedLine, framed, plainLine, syslogMessage, webhookHeaders } from "../../core/journal/forwarded";
import type { ForwardConfiguration } from "../configuration";
import type { Reader } from "../database/client";
import { journal, journalForwarding } from "../database/schema";
import type { Galtry } from "../galtry";
import { endLease, holdLease } from "../lease";
import { failed } from "../log";
import { outgoingFetch } from "../outgoingFetch";

const WORK = "journal.forward";
const AT_ONCE = 200;
const LOOK_EVERY_MS = 1_000;
const ANSWER_MS = 10_000;
/** So long whoever does not take them is left alone, longer each time. */
const AWAY_MS = [2_000, 5_000, 15_000, 60_000] as const;

/** Lines after the last that has gone, with the names that they refer to. */
async function linesAfter(db: Reader, seq: number): Promise<ForwardedLine[]> {
  const rows = await db.select().from(journal).where(gt(journal.seq, seq)).orderBy(asc(journal.seq)).limit(AT_ONCE);
  const hashes = rows.flatMap((row) => Object.values(JSON.parse(row.names) as Record<string, string>));
  const names = await db.all<{ hash: string; ref: string; name: string }>(sql`
    select n.hash, n.ref, n.name from json_each(${JSON.stringify([...new Set(hashes)])}) h
      join journal_names n on n.hash = h.value`);
  const byHash = new Map(names.map(({ hash, name }) => [hash, name]));
  return rows.map(({ mac: _, ...row }) => ({
    ...row,
    called: Object.fromEntries(
      Object.entries(JSON.parse(row.names) as Record<string, string>).flatMap(([ref, hash]) => {
        const name = byHash.get(hash);
        return name === undefined ? [] : [[ref, name]];
      }),
    ),
  }));
}

/** Resolves once all of it has been handed over and the other side has closed without an error. */
function sendSyslog(to: URL, ca: string | null, text: string): Promise<void> {
  return new Promise((done, wrong) => {
    const socket = connect({
      ...{ host: to.hostname, port: Number(to.port || 6514), timeout: ANSWER_MS },
      ...(isIP(to.hostname) ? {} : { servername: to.hostname }),
      ...(ca === null ? {} : { ca: readFileSync(ca) }),
    });
    socket.on("error", wrong);
    socket.on("timeout", () => socket.destroy(new Error("no answer in time")));
    socket.on("secureConnect", () => socket.end(text));
    // Whatever the other side may say is not read, but its end is waited for.
    socket.resume();
    socket.on("close", (broken) => (broken ? undefined : done()));
  });
}

async function sendWebhook(to: URL, secret: string, lines: readonly ForwardedLine[], at: number): Promise<void> {
  const body = JSON.stringify({ type: "journal.lines", lines: lines.map(plainLine) });
  const id = `journal-${lines[0]!.seq}-${lines.at(-1)!.seq}`;
  const answer = await outgoingFetch(
    to,
    {
      method: "POST",
      headers: { "content-type": "application/json", ...webhookHeaders(id, at, body, secret) },
      body,
    },
    ANSWER_MS,
  );
  await answer.arrayBuffer();
  if (!answer.ok) throw new Error(`answered with ${answer.status}`);
}

/**
 * Sends what has not gone yet, at most so many.
 * @returns how many went
 * @throws where they were not taken: they go again
 */
export async function forwardSome(app: Galtry, to: ForwardConfiguration, at = Date.now()): Promise<number> {
  const target = to.address.href;
  const [known] = await app.db.select().from(journalForwarding).where(eq(journalForwarding.target, target));
  if (!known) {
    // From now on: what was before is in the Journal.
    await app.writer.write(
      (tx) =>
        tx.run(sql`insert into journal_forwarding (target, seq)
          values (${target}, coalesce((select max(seq) from journal), 0)) on conflict do nothing`),
      true,
    );
    return 0;
  }
  const lines = await linesAfter(app.db, known.seq);
  const last = lines.at(-1);
  if (!last) return 0;
  try {
    if (to.address.protocol === "https:" || to.address.protocol === "http:")
      await sendWebhook(to.address, to.secret, lines, at);
    else {
      const host = app.configuration.publicUrl.hostname;
      await sendSyslog(to.address, to.ca, framed(lines.map((line) => syslogMessage(line, host))));
    }
  } catch (error) {
    await note(app, target, known.seq, known.failedSince ?? at);
    throw error;
  }
  await note(app, target, last.seq, null);
  return lines.length;
}

const note = (app: Galtry, target: string, seq: number, failedSince: number | null) =>
  app.writer.write(
    (tx) => tx.update(journalForwarding).set({ seq, failedSince }).where(eq(journalForwarding.target, target)),
    true,
  );

/** Since when lines have not been taken; null where they are. */
export async function forwardingFails(tx: Reader, to: ForwardConfiguration | null): Promise<number | null> {
  if (!to) return null;
  const [row] = await tx.select().from(journalForwarding).where(eq(journalForwarding.target, to.address.href));
  return row?.failedSince ?? null;
}

/** As long as this process lives, where the operator has named a place. */
export async function keepForwarding(app: Galtry): Promise<void> {
  const { forward } = app.configuration;
  if (!forward) return;
  for (let tries = 0; ; ) {
    const sent = await look(forward).catch((error: unknown) => {
      failed(WORK, error);
      return null;
    });
    tries = sent === null ? tries + 1 : 0;
    const pause = sent === null ? AWAY_MS[Math.min(tries, AWAY_MS.length) - 1]! : sent === AT_ONCE ? 0 : LOOK_EVERY_MS;
    await sleep(pause, undefined, { ref: false });
  }
  async function look(to: ForwardConfiguration): Promise<number> {
    // Asked every second, and so without writing anything.
    const waiting = await app.db.get<{ any: number }>(sql`
      select coalesce((select max(seq) from journal), 0)
        > coalesce((select seq from journal_forwarding where target = ${to.address.href}), -1) as "any"`);
    if (waiting?.any !== 1 || !(await holdLease(app, WORK))) return 0;
    return forwardSome(app, to).finally(() => endLease(app, WORK));
  }
}
