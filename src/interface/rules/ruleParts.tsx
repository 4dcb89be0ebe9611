"use client";

import type { ReactNode } from "react";
import styled from "styled-components";
import type { HouseRules as Rules } from "@/core/access/houseRules";
import { Select } from "../shared/controls";

/** Rules as sentences on one sheet. */
export const Sentences = styled.ul`
  max-width: 860px;
  margin: 8px 0 28px;
  border-top: 3px solid var(--ink);
  background: var(--sheet);
  --ground: var(--sheet);
  li { padding: 11px 12px; border-bottom: 1px solid var(--rule); line-height: 32px; }
  li.read { line-height: 22px; }
  select { display: inline-block; width: auto; max-width: calc(100% - 18px); min-height: 30px; padding: 2px 6px; margin: 0 2px; vertical-align: baseline; }
`;

export type SetRules = (part: Partial<Rules>) => void;

export const Rule = ({ children }: { children: ReactNode }) => <li>{children}</li>;

interface PickProps<V extends string> {
  label: string;
  value: V;
  choices: readonly (readonly [V, string])[];
  onPick: (value: V) => void;
}

export function Pick<V extends string>({ label, value, choices, onPick }: PickProps<V>) {
  return (
    <Select aria-label={label} value={value} onChange={(event) => onPick(event.target.value as V)}>
      {choices.map(([id, says]) => (
        <option key={id} value={id}>
          {says}
        </option>
      ))}
    </Select>
  );
}
