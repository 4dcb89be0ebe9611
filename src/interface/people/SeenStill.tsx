"use client";

import Link from "next/link";
import { sayTime } from "@/core/time";
import type { LeavingView } from "./leavingView";
import { leaving as t } from "./strings";

/** Passwords that they have seen and that still work: named to their stewards, counted for everybody else. */
export function SeenStill({ view, zone, now }: { view: LeavingView; zone: string; now: number }) {
  return (
    <section>
      <h2>{t.seen}</h2>
      {view.seen.length === 0 && view.elsewhere.length === 0 ? (
        <p style={{ marginTop: 8 }}>{t.nothingSeen(view.name)}</p>
      ) : (
        <>
          <p className="soft small" style={{ marginTop: 8 }}>
            {t.seenSays}
          </p>
          <ul>
            {view.seen.map((one) => (
              <li key={one.entryId} style={{ padding: "8px 0", borderBottom: "1px solid var(--rule)" }}>
                <Link href={`/entry/${one.entryId}`} prefetch={false}>
                  {one.name}
                </Link>{" "}
                <span className="soft small">
                  {t.seenIn(one.vault, sayTime(one.at, now, zone), one.stewards.join(", "))}
                </span>
              </li>
            ))}
            {view.elsewhere.map((one) => (
              <li key={one.vault} style={{ padding: "8px 0", borderBottom: "1px solid var(--rule)" }}>
                {t.seenElsewhere(one.count, one.vault, one.stewards.join(", "))}
              </li>
            ))}
          </ul>
        </>
      )}
    </section>
  );
}
