"use client";

import styled from "styled-components";
import { MomentField } from "./DateFields";
import { windowFields as t } from "./strings";

const Pair = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(190px, 1fr));
  gap: 12px;
`;

interface WindowProps {
  from: string;
  until: string;
  onFrom: (from: string) => void;
  onUntil: (until: string) => void;
  wrong: (field: string) => string | null;
}

/** From and until, as the organisation's clocks show them; empty is at once, and no end. */
export function WindowFields({ from, until, onFrom, onUntil, wrong }: WindowProps) {
  return (
    <Pair>
      <MomentField
        label={t.from}
        value={from}
        onText={onFrom}
        wrong={wrong("from")}
        hint={t.leaveEmptyToStartAtOnce}
        time="09:00"
      />
      <MomentField
        label={t.until}
        value={until}
        onText={onUntil}
        wrong={wrong("until")}
        hint={t.leaveEmptyForNoEndDate}
      />
    </Pair>
  );
}
