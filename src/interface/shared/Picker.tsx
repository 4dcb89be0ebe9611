"use client";

import { useCallback, useEffect, useId, useMemo, useRef, useState } from "react";
import styled from "styled-components";
import { TextField } from "./controls";

const Around = styled.div`
  position: relative;
  ul { position: absolute; inset: calc(100% + 4px) 0 auto; z-index: 6; max-height: 300px; overflow: auto; background: var(--sheet); border: 1px solid var(--edge); box-shadow: var(--shade); }
  li { display: flex; justify-content: space-between; gap: 12px; padding: 7px 12px; cursor: pointer; }
  li[aria-selected="true"] { background: var(--pick); box-shadow: inset 4px 0 var(--ink); }
  li span:last-child { color: var(--soft); font-size: 13.5px; }
`;

const MOST = 12;
const SEARCH_PAUSE_MS = 120;

export interface Choice {
  id: string;
  name: string;
  note: string;
}

interface PickerProps<C extends Choice> {
  label: string;
  /** The label stands over the field; otherwise only the placeholder is seen. */
  seen?: boolean;
  placeholder: string;
  /** What the list holds, for those who hear it. */
  list: string;
  nothing: string;
  /** The first of them stand there before anything is typed. */
  all?: boolean;
  /** Asked for when the field is first come to, and anew for what is typed where that is looked for on the server; null when Galtry does not answer. */
  load: (typed: string) => Promise<C[] | null>;
  /** What is typed is looked for on the server: there are too many to send. */
  searches?: boolean;
  onPick: (choice: C) => void;
}

/** Finds one of many by a few letters of its name or note. */
export function Picker<C extends Choice>({
  label,
  seen = false,
  placeholder,
  list,
  nothing,
  all: shownAtOnce = false,
  load,
  searches = false,
  onPick,
}: PickerProps<C>) {
  const id = useId();
  const [all, setAll] = useState<C[] | null>(null);
  const [answered, setAnswered] = useState("");
  const [typed, setTyped] = useState("");
  const [at, setAt] = useState(0);
  /** What stands there is the answer to what is typed, and not to what was typed before. */
  const settled = !searches || answered === typed.trim();
  const found = useMemo(() => {
    const wanted = typed.trim().toLowerCase();
    if (wanted === "") return shownAtOnce ? (all ?? []).slice(0, MOST) : [];
    if (searches && settled) return (all ?? []).slice(0, MOST);
    // Until the answer is here, only what fits: Enter must never choose somebody who was looked for before.
    return (all ?? [])
      .filter((one) => one.name.toLowerCase().includes(wanted) || one.note.toLowerCase().includes(wanted))
      .slice(0, MOST);
  }, [all, typed, shownAtOnce, searches, settled]);
  const latest = useRef(load);
  latest.current = load;
  const asked = useRef(0);
  /** Answers come in any order: only that to the latest question counts. */
  const ask = useCallback(async (text: string) => {
    const mine = ++asked.current;
    const answer = await latest.current(text);
    if (mine !== asked.current) return;
    setAll(answer);
    setAnswered(text);
  }, []);
  useEffect(() => {
    if (!searches || typed.trim() === "") return;
    const pause = setTimeout(() => void ask(typed.trim()), SEARCH_PAUSE_MS);
    return () => clearTimeout(pause);
  }, [typed, searches, ask]);
  const pick = (choice: C | undefined) => {
    if (!choice) return;
    setTyped("");
    onPick(choice);
  };
  return (
    <Around>
      <TextField
        label={seen ? label : <span className="unseen">{label}</span>}
        placeholder={placeholder}
        value={typed}
        role="combobox"
        aria-expanded={found.length > 0}
        aria-controls={id}
        aria-activedescendant={found[at] ? `${id}-${at}` : undefined}
        autoComplete="off"
        onFocus={() => all ?? void ask("")}
        onChange={(event) => {
          setTyped(event.target.value);
          setAt(0);
        }}
        onKeyDown={(event) => {
          if (event.key === "ArrowDown") setAt(Math.min(found.length - 1, at + 1));
          else if (event.key === "ArrowUp") setAt(Math.max(0, at - 1));
          else if (event.key === "Enter") pick(found[at]);
          else if (event.key === "Escape") setTyped("");
          else return;
          event.preventDefault();
        }}
      />
      {(typed.trim() !== "" || found.length > 0) && (
        <ul id={id} role="listbox" aria-label={list}>
          {found.map((one, i) => (
            // biome-ignore lint/a11y/useKeyWithClickEvents: the field above has the focus and the keys
            <li
              key={one.id || one.name}
              id={`${id}-${i}`}
              role="option"
              aria-selected={i === at}
              tabIndex={-1}
              onMouseDown={(event) => event.preventDefault()}
              onClick={() => pick(one)}
            >
              <span>{one.name}</span>
              <span>{one.note}</span>
            </li>
          ))}
          {all && settled && found.length === 0 && (
            <li role="option" aria-selected={false} tabIndex={-1}>
              {nothing}
            </li>
          )}
        </ul>
      )}
    </Around>
  );
}
