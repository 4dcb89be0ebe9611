"use client";

import type { ReactNode } from "react";
import styled from "styled-components";
import { exactTime, sayTime } from "@/core/time";
import type { StoryLine } from "@/server/journal/story";
import { card as t } from "./strings";

export const CardPage = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 408px;
  gap: 0 64px;
  align-items: start;
  @media (max-width: 1023px) { grid-template-columns: minmax(0, 1fr); gap: 28px; }
`;

export const CardTitle = styled.div`
  display: flex;
  align-items: center;
  gap: 16px;
  margin-bottom: 20px;
  > div { flex: 1; min-width: 0; }
  @media (max-width: 719px) { flex-wrap: wrap; > div { flex-basis: calc(100% - 92px); } }
`;

/** A catalogue card: a double rule above, the labels in a margin, a hairline under each line; no box. */
export const Card = styled.dl`
  border-top: 4px double var(--ink);
  background: linear-gradient(var(--rule), var(--rule)) 161px 0 / 1px 100% no-repeat;
  > div { display: grid; grid-template-columns: 150px minmax(0, 1fr) auto; align-items: baseline; gap: 0 24px; padding: 10px 0 9px; border-bottom: 1px solid var(--rule); }
  > div[data-joined] { border-bottom: 0; padding-bottom: 0; }
  dt { color: var(--soft); font-size: 14px; overflow-wrap: anywhere; }
  dd { min-width: 0; overflow-wrap: anywhere; }
  .do { display: flex; gap: 16px; margin-block: -3px; }
  @media (max-width: 719px) {
    background: none;
    > div { grid-template-columns: minmax(0, 1fr) auto; gap: 0 12px; }
    dt { grid-column: 1 / -1; }
  }
`;

export function Fact({
  label,
  act,
  joined,
  children,
}: {
  label: string;
  act?: ReactNode;
  joined?: boolean;
  children: ReactNode;
}) {
  return (
    <div data-joined={joined || undefined}>
      <dt>{label}</dt>
      <dd>{children}</dd>
      {act && <dd className="do">{act}</dd>}
    </div>
  );
}

const StorySection = styled.section`
  margin-top: 32px;
  h2 { padding-bottom: 6px; border-bottom: 1px solid var(--edge); }
  li { display: grid; grid-template-columns: 150px minmax(0, 1fr); gap: 0 24px; padding: 6px 0; font-size: 14px; line-height: 20px; border-bottom: 1px solid color-mix(in srgb, var(--rule) 60%, transparent); overflow-wrap: anywhere; }
  time { color: var(--soft); font-variant-numeric: tabular-nums; }
  @media (max-width: 719px) { li { grid-template-columns: minmax(0, 1fr); } }
`;

/** Acts with their times in the margin, latest first. */
export function Story({
  title,
  lines,
  own = false,
  zone,
  now,
}: {
  title: string;
  lines: StoryLine[];
  own?: boolean;
  zone: string;
  now: number;
}) {
  if (lines.length === 0) return null;
  return (
    <StorySection>
      <h2>{title}</h2>
      <ol>
        {lines.map((line) => (
          <li key={line.id}>
            <time dateTime={new Date(line.at).toISOString()} title={exactTime(line.at, zone)}>
              {capital(sayTime(line.at, now, zone))}
            </time>
            <span>
              {own ? (
                t.you
              ) : line.who ? (
                <>
                  <b>{line.who}</b>{" "}
                </>
              ) : (
                t.galtry
              )}
              {line.says}
            </span>
          </li>
        ))}
      </ol>
    </StorySection>
  );
}

export const capital = (text: string) => text.charAt(0).toUpperCase() + text.slice(1);
