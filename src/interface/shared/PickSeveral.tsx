"use client";

import type { ComponentProps } from "react";
import styled from "styled-components";
import { Act, Chip } from "./controls";
import { type Choice, Picker } from "./Picker";

const Chosen = styled.div`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 14px;
  margin-top: 8px;
  overflow-wrap: anywhere;
`;

type SeveralProps<C extends Choice> = Omit<ComponentProps<typeof Picker<C>>, "onPick"> & {
  chosen: readonly Pick<C, "id" | "name">[];
  onChange: (chosen: Pick<C, "id" | "name">[]) => void;
  /** What the button that takes one out of them is called. */
  remove: (name: string) => string;
};

/** Finds some of many, one after the other; those found stand below and can be taken out again. */
export function PickSeveral<C extends Choice>({ chosen, onChange, remove, ...picker }: SeveralProps<C>) {
  return (
    <div>
      <Picker<C>
        {...picker}
        onPick={({ id, name }) => onChange([...chosen.filter((one) => one.id !== id), { id, name }])}
      />
      {chosen.length > 0 && (
        <Chosen>
          {chosen.map((one) => (
            <span key={one.id}>
              <Chip data-tone="plain">{one.name}</Chip>{" "}
              <Act aria-label={remove(one.name)} onPress={() => onChange(chosen.filter(({ id }) => id !== one.id))}>
                ×
              </Act>
            </span>
          ))}
        </Chosen>
      )}
    </div>
  );
}
