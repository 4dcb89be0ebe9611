"use client";

import { useState } from "react";
import styled from "styled-components";
import { CheckField } from "./controls";
import { TimeField } from "./DateFields";
import { weeklyFields as t } from "./strings";

const Days = styled.fieldset`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  legend { margin-bottom: 6px; }
`;

const Pair = styled.div`
  display: grid;
  grid-template-columns: repeat(auto-fit, minmax(140px, 1fr));
  gap: 12px;
  margin-top: 10px;
`;

/** As fields show it: "09:00", and "24:00" as midnight at the end. */
export interface WeeklyText {
  days: number[];
  start: string;
  end: string;
}

const NAMES = ["Mon", "Tue", "Wed", "Thu", "Fri", "Sat", "Sun"];
const FULL = ["Monday", "Tuesday", "Wednesday", "Thursday", "Friday", "Saturday", "Sunday"];

const clock = (minutes: number): string =>
  `${String(Math.floor(minutes / 60) % 24).padStart(2, "0")}:${String(minutes % 60).padStart(2, "0")}`;

const minutes = (text: string): number => {
  const [hour, minute] = text.split(":").map(Number);
  return (hour ?? 0) * 60 + (minute ?? 0);
};

export interface WeeklyTerms {
  days: readonly number[];
  start: number;
  end: number;
}

/** Null: at any time. */
export function toWeeklyText(weekly: WeeklyTerms | null | undefined): WeeklyText | null {
  return weekly ? { days: [...weekly.days], start: clock(weekly.start), end: clock(weekly.end) } : null;
}

/** No day is no pattern. Midnight as an end is the end of the day. */
export function fromWeeklyText(text: WeeklyText | null): WeeklyTerms | null {
  if (!text || text.days.length === 0) return null;
  return { days: [...text.days].sort(), start: minutes(text.start), end: minutes(text.end) || 1440 };
}

interface WeeklyProps {
  value: WeeklyText | null;
  onChange: (value: WeeklyText | null) => void;
  wrong: string | null;
}

/** Only on some days, between two times; folded away until it is wanted. */
export function WeeklyFields({ value, onChange, wrong }: WeeklyProps) {
  const [last, setLast] = useState<WeeklyText>(value ?? { days: [], start: "09:00", end: "18:00" });
  const set = (next: WeeklyText) => {
    setLast(next);
    onChange(next);
  };
  return (
    <div>
      <CheckField
        type="checkbox"
        label={t.onlyOnSomeDaysOfTheWeek}
        checked={value !== null}
        onChange={(event) => onChange(event.target.checked ? last : null)}
      />
      {value && (
        <div style={{ margin: "8px 0 0 28px" }}>
          <Days>
            <legend className="unseen">{t.days}</legend>
            {NAMES.map((name, i) => (
              <CheckField
                key={name}
                type="checkbox"
                label={<span title={FULL[i]}>{name}</span>}
                checked={value.days.includes(i + 1)}
                onChange={(event) =>
                  set({
                    ...value,
                    days: event.target.checked ? [...value.days, i + 1] : value.days.filter((day) => day !== i + 1),
                  })
                }
              />
            ))}
          </Days>
          <Pair>
            <TimeField label={t.opens} value={value.start} onText={(start) => set({ ...value, start })} />
            <TimeField
              label={t.closes}
              value={value.end}
              onText={(end) => set({ ...value, end })}
              hint={t.earlierThanTheStartMeansThe}
            />
          </Pair>
          {wrong && (
            <p role="alert" style={{ color: "var(--crimson)", fontWeight: 600 }}>
              {wrong}
            </p>
          )}
        </div>
      )}
    </div>
  );
}
