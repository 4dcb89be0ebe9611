"use client";

import { exactTime, sayTime } from "@/core/time";
import { entryFull as t } from "./strings";
import type { EntryView } from "./types";

export function SeenBy({ seenBy, zone, now }: { seenBy: NonNullable<EntryView["seenBy"]>; zone: string; now: number }) {
  return (
    <section style={{ marginTop: 28, paddingTop: 12, borderTop: "1px solid var(--edge)" }}>
      <h2 style={{ marginBottom: 4 }}>{t.seenBy}</h2>
      {seenBy.length === 0 ? (
        <p>{t.nobodyHasSeenTheCurrentValues}</p>
      ) : (
        <>
          <p>{t.seenTheCurrentValues(seenBy.length)}</p>
          <ul>
            {seenBy.map((one) => (
              <li key={one.personId} className="small">
                <b>{one.name}</b>, <span title={exactTime(one.at, zone)}>{sayTime(one.at, now, zone)}</span>{" "}
                <span className="soft">{t.seenHow[one.how as keyof typeof t.seenHow]}</span>
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}
