"use client";

import Link from "next/link";
import { exactTime, sayTime } from "@/core/time";
import type { FindingRow } from "@/server/upkeep/findingsPage";
import { Chip, Notice } from "../shared/controls";
import { upkeep as t } from "./strings";
import { sayFinding } from "./words";

/** What Upkeep has found at one entry, on its own page. */
export function FindingsHere({ rows, now, zone }: { rows: readonly FindingRow[]; now: number; zone: string }) {
  return (
    <Notice data-tone={rows.some(({ today }) => today) ? "bad" : "plain"} style={{ marginBottom: 16 }}>
      <ul aria-label={t.upkeep}>
        {rows.map((row) => (
          <li key={row.id}>
            {row.today && <Chip data-tone="plain">{t.today}</Chip>} {sayFinding(row, now, zone)}{" "}
            <span className="small soft" title={exactTime(row.since, zone)}>
              {row.putOff
                ? t.putOffHere(sayTime(row.putOff.until, now, zone))
                : t.sinceWhen(sayTime(row.since, now, zone))}
            </span>
          </li>
        ))}
      </ul>
      <p className="small">
        <Link href={`/upkeep?find=${encodeURIComponent(rows[0]!.name)}`} prefetch={false}>
          {t.showInUpkeep}
        </Link>
      </p>
    </Notice>
  );
}
