"use client";

import styled from "styled-components";
import { LEVELS, levelWord, type Terms } from "@/core/access";
import { accessPage as t } from "./strings";

const Levels = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 12px;
  margin: 2px 0 6px;
  button { min-height: 26px; padding: 0; border: 0; background: none; color: inherit; font: 600 14px/20px var(--text); text-decoration: underline 1px var(--baize-edge); text-underline-offset: 3px; cursor: pointer; }
`;

/** The same as the keys, for the pointer. */
export function LevelActs({
  onLevel,
  onTime,
}: {
  onLevel: (level: Terms["level"] | "none") => void;
  onTime: () => void;
}) {
  return (
    <Levels role="group" aria-label={t.setTheSelectedCells}>
      {(["none", ...LEVELS, "blocked"] as const).map((level) => (
        <button key={level} type="button" onClick={() => onLevel(level)}>
          {level === "none" ? t.end : levelWord(level)}
        </button>
      ))}
      <button type="button" onClick={onTime}>
        {t.withDates}
      </button>
    </Levels>
  );
}
