"use client";

import { useState } from "react";
import styled from "styled-components";
import { Act, Button, TextField } from "../shared/controls";
import { ruleLists as t } from "./strings";

const List = styled.ul`
  line-height: 28px;
  li { display: flex; gap: 14px; padding: 0; border: 0; line-height: inherit; }
`;

interface RemovableProps {
  items: readonly { id: string; name: string }[];
  /** What the button of one is called for those who do not see the list. */
  removing: (name: string) => string;
  onRemove: (id: string) => void;
}

/** What a rule names, each with the way to take it out. */
export function Removable({ items, removing, onRemove }: RemovableProps) {
  if (items.length === 0) return null;
  return (
    <List>
      {items.map(({ id, name }) => (
        <li key={id}>
          <b>{name}</b>
          <Act aria-label={removing(name)} onPress={() => onRemove(id)}>
            {t.remove}
          </Act>
        </li>
      ))}
    </List>
  );
}

const Adding = styled.form`
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
  align-items: end;
  max-width: 420px;
  line-height: 22px;
  > :first-child { flex: 1; }
`;

interface AddNameProps {
  label: string;
  placeholder: string;
  /** What the button is called: there are several of these on one page. */
  adding: string;
  /** @returns why it cannot be added; null once it is */
  onAdd: (typed: string) => string | null;
}

/** One more domain or site, typed. */
export function AddName({ label, placeholder, adding, onAdd }: AddNameProps) {
  const [typed, setTyped] = useState("");
  const [wrong, setWrong] = useState<string | null>(null);
  return (
    <Adding
      onSubmit={(event) => {
        event.preventDefault();
        const why = onAdd(typed);
        setWrong(why);
        if (why === null) setTyped("");
      }}
    >
      <TextField label={label} placeholder={placeholder} value={typed} onText={setTyped} wrong={wrong} />
      <Button type="submit" isDisabled={typed.trim() === ""}>
        {adding}
      </Button>
    </Adding>
  );
}
