"use client";

import styled from "styled-components";
import type { Given, Reach } from "@/core/access";
import { levelWord } from "@/core/access/level";
import { cutKey as t } from "./strings";

const CUTS: Record<Exclude<Given | Reach, "none">, number> = { use: 1, reveal: 2, edit: 3, steward: 4, blocked: 0 };

const Svg = styled.svg`
  flex: none;
  overflow: visible;
  vertical-align: -4px;
  color: var(--ink);
  &[data-inherited="true"] { color: var(--soft); }
  &[data-ends="true"] { margin-right: 17px; }
  .gap { stroke: var(--ground); stroke-width: 6; }
`;

interface CutKeyProps {
  level: Exclude<Given | Reach, "none">;
  inherited?: boolean;
  /** "Sunday, 18:00"; draws the clock. */
  until?: string | null;
  /** The word stands beside it: the drawing says nothing to a screen reader. */
  silent?: boolean;
}

/** The sign of a level: bow and blade filled when set here, hollow when inherited; a cut for each step. */
export function CutKey({ level, inherited = false, until = null, silent = false }: CutKeyProps) {
  const label = `${levelWord(level)}, ${inherited ? "inherited" : t.setDirectly}${until ? t.until(until) : ""}`;
  return (
    <Svg
      width={48}
      height={18}
      viewBox="0 0 48 18"
      role="img"
      aria-label={silent ? undefined : label}
      aria-hidden={silent || undefined}
      data-inherited={inherited}
      data-ends={Boolean(until)}
    >
      {inherited ? (
        <>
          <circle cx={6.5} cy={7.5} r={5.25} fill="none" stroke="currentColor" strokeWidth={1.5} />
          <path d="M12 5.5H44.5v4H12" fill="none" stroke="currentColor" />
        </>
      ) : (
        <>
          <path
            fill="currentColor"
            fillRule="evenodd"
            d="M.5 7.5a6 6 0 1 1 12 0a6 6 0 1 1-12 0M4.5 7.5a2 2 0 1 1 4 0a2 2 0 1 1-4 0"
          />
          <rect x={12} y={5} width={33} height={5} fill="currentColor" />
        </>
      )}
      {Array.from({ length: CUTS[level] }, (_, i) => (
        <rect key={17 + 7 * i} x={17 + 7 * i} y={10} width={4} height={6} fill="currentColor" />
      ))}
      {level === "blocked" && (
        <>
          <path className="gap" d="M20.5 15.5l14-16" />
          <path d="M20.5 15.5l14-16" stroke="currentColor" strokeWidth={2} />
        </>
      )}
      {until && (
        <>
          <circle cx={57} cy={8} r={5.25} fill="none" stroke="currentColor" strokeWidth={1.5} />
          <path d="M57 5v3.3l2.2 1.4" fill="none" stroke="currentColor" strokeWidth={1.5} />
        </>
      )}
    </Svg>
  );
}
