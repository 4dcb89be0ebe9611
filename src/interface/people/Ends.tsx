"use client";

import styled from "styled-components";
import { exactTime } from "@/core/time";
import type { LeavingView } from "./leavingView";
import { leaving as t } from "./strings";

const Lines = styled.dl`
  display: grid;
  grid-template-columns: 140px minmax(0, 1fr);
  gap: 6px 16px;
  margin-top: 10px;
  dt { color: var(--soft); font-size: 14px; line-height: 22px; }
  dd { margin: 0; line-height: 22px; overflow-wrap: anywhere; }
  @media (max-width: 719px) { grid-template-columns: minmax(0, 1fr); dd { margin-bottom: 6px; } }
`;

/** What is over with it, counted; and what stays. */
export function Ends({ view, zone }: { view: LeavingView; zone: string; now: number }) {
  const { ends } = view;
  const lines: [string, string | null][] = [
    [t.sessions, t.sessionCount(ends.sessions)],
    [t.lanyards, t.lanyardCount(ends.lanyards, ends.sites)],
    [t.access, t.accessCount(ends.grants)],
    [t.groups, ends.groups.length === 0 ? null : ends.groups.join(", ")],
    [t.links, t.linkCount(ends.handovers, ends.letterboxes)],
    [t.signOn, ends.accounts.length === 0 ? null : ends.accounts.join(", ")],
    [t.stays, t.givenStays(ends.given)],
    [t.told, view.toldVaults.length === 0 ? null : t.stewardsOf(view.toldVaults.join(", "))],
  ];
  return (
    <section>
      <h2>{t.ends}</h2>
      {view.until !== null && <p style={{ marginTop: 8 }}>{t.endsAlready(exactTime(view.until, zone))}</p>}
      <Lines>
        {lines.map(
          ([word, what]) =>
            what !== null && (
              <div key={word} style={{ display: "contents" }}>
                <dt>{word}</dt>
                <dd>{what}</dd>
              </div>
            ),
        )}
      </Lines>
    </section>
  );
}
