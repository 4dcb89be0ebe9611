/** What needs attention of the house itself, for administrators: ways in, email, certificates, backups. Worked out as it is asked. */
import { eq, sql } from "drizzle-orm";
import type { WayNeed } from "../../core/access/houseRules";
import { isAdministrator } from "../caller";
import { none, query } from "../command";
import { organisation, providers } from "../database/schema";
import { brokenCheckpoint } from "../journal/checkpoints";
import { forwardingFails } from "../journal/forwarding";
import { timeZone } from "../organisation";
import { waysLacking } from "../people/waysIn/required";
import { readCertificate } from "../provider/saml";
import { Refused } from "../refused";
import { addressesFound } from "./leakedAddresses";
import { house as t } from "./strings";

const DAY = 86_400_000;
const BACKUP_MS = 2 * DAY;
const CERTIFICATE_MS = 30 * DAY;
/** What is away for a moment comes back. */
const FORWARDING_MS = 10 * 60_000;
const MAIL_MS = 7 * DAY;
/** So long a checkpoint lies nowhere but in the database. */
const NOTED_MS = 30 * DAY;
const UNUSED_LANYARD_MS = 60 * DAY;

export type HouseFinding =
  | { kind: "ways"; needs: WayNeed; group: string | null; count: number }
  | { kind: "no-mail" }
  | { kind: "addresses"; names: string[] }
  | { kind: "mail"; count: number; since: number; wrong: string }
  | { kind: "certificate"; name: string; until: number }
  | { kind: "backup"; at: number | null }
  | { kind: "forwarding"; since: number }
  | { kind: "lanyards"; count: number }
  | { kind: "checkpoint"; at: number | null }
  | { kind: "journal"; at: number };

export const houseFindings = query({
  name: "upkeep.houseFindings",
  input: none,
  by: ["person"],
  allow: ({ role }) => {
    if (!isAdministrator(role)) throw new Refused("not-allowed", t.onlyAdministrators);
  },
  run: async ({ tx, at, app }): Promise<{ zone: string; rows: HouseFinding[] }> => {
    const rows: HouseFinding[] = [];
    for (const { needs, group, count, now } of await waysLacking(tx, at))
      if (now && count > 0) rows.push({ kind: "ways", needs, group, count });
    const names = await addressesFound(tx, at);
    if (names.length > 0) rows.push({ kind: "addresses", names });
    if (!app.configuration.mail) rows.push({ kind: "no-mail" });
    const failed = await tx.get<{ count: number; since: number; wrong: string }>(sql`
      select count(*) as count, min(failed_at) as since, max(wrong) as wrong from mails
      where made_at > ${at - MAIL_MS} and failed_at is not null`);
    if (failed && failed.count > 0) rows.push({ kind: "mail", ...failed });
    for (const row of await tx.select().from(providers).where(eq(providers.protocol, "saml"))) {
      if (row.settings.protocol !== "saml") continue;
      const ends = row.settings.certificates.flatMap((body) => readCertificate(body)?.until ?? []);
      // One that follows is here already.
      const until = Math.max(...ends);
      if (ends.length > 0 && until <= at + CERTIFICATE_MS) rows.push({ kind: "certificate", name: row.name, until });
    }
    const [home] = await tx
      .select({
        ...{ createdAt: organisation.createdAt, backedUpAt: organisation.backedUpAt },
        notedAt: organisation.checkpointNotedAt,
      })
      .from(organisation);
    const backedUpAt = home?.backedUpAt ?? null;
    if (backedUpAt === null || backedUpAt < at - BACKUP_MS) rows.push({ kind: "backup", at: backedUpAt });
    const notedAt = home?.notedAt ?? null;
    if ((notedAt ?? home?.createdAt ?? at) < at - NOTED_MS) rows.push({ kind: "checkpoint", at: notedAt });
    const unused = await tx.get<{ count: number }>(sql`
      select count(*) as count from lanyards where ended_at is null and last_used_at < ${at - UNUSED_LANYARD_MS} and expires_at > ${at}`);
    if (unused && unused.count > 0) rows.push({ kind: "lanyards", count: unused.count });
    const broken = await brokenCheckpoint(tx, app);
    if (broken) rows.unshift({ kind: "journal", at: broken.at });
    const since = await forwardingFails(tx, app.configuration.forward);
    if (since !== null && since < at - FORWARDING_MS) rows.push({ kind: "forwarding", since });
    return { zone: await timeZone(tx), rows };
  },
});
