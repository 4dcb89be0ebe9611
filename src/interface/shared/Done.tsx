"use client";

import { useRouter } from "next/navigation";
import { createContext, type ReactNode, useCallback, useContext, useEffect, useState } from "react";
import styled from "styled-components";
import type { CommandName, InputOf } from "@/server/registry";
import { type Answer, runCommand } from "./ask";
import { Act } from "./controls";
import { done as t } from "./strings";

const SHOWN_MS = 20_000;

const Slip = styled.div`
  position: fixed;
  inset: auto auto calc(var(--bar, 0px) + 20px) 50%;
  translate: -50% 0;
  z-index: 15;
  display: flex;
  align-items: baseline;
  gap: 20px;
  width: max-content;
  max-width: calc(100vw - 32px);
  padding: 10px 18px;
  background: var(--baize);
  color: var(--baize-ink);
  border-bottom: 3px double var(--baize-edge);
  box-shadow: var(--shade);
  button { color: inherit; text-decoration-color: var(--baize-edge); }
  span { overflow-wrap: anywhere; }
`;

/** One command and its input: what takes an act back. */
export type Step = { [Name in CommandName]: { command: Name; input: InputOf<Name> } }[CommandName];

/** What takes an act back: commands, one after the other, or an act of its own that says what came of it. */
export type Undo = Step[] | (() => Promise<string>);

interface Said {
  says: string;
  undo: Undo;
}

const Context = createContext<(says: string, undo?: Undo) => void>(() => undefined);

/** Says that something was done, wherever one goes from there, and how to take it back. */
export const useDone = () => useContext(Context);

/** Around all pages: an undo is offered also after the page has changed. */
export function DoneSlip({ children }: { children: ReactNode }) {
  const router = useRouter();
  const [said, setSaid] = useState<Said | null>(null);
  /** How many steps of the undo are done, while it runs. */
  const [at, setAt] = useState<number | null>(null);
  const running = at !== null;
  /** Somebody is at it, with the pointer or the focus: it stays until they have gone. */
  const [held, setHeld] = useState(false);
  const done = useCallback((says: string, undo: Undo = []) => setSaid({ says, undo }), []);
  // What has gone from under the pointer says nothing of it any more.
  useEffect(() => {
    if (!said) setHeld(false);
  }, [said]);
  useEffect(() => {
    if (!said || running || held) return;
    const timer = setTimeout(() => setSaid(null), SHOWN_MS);
    return () => clearTimeout(timer);
  }, [said, running, held]);
  const takeBack = async () => {
    setAt(0);
    const { undo } = said!;
    const says = typeof undo === "function" ? await undo() : ((await runAll(undo, setAt)) ?? t.undone);
    setAt(null);
    setSaid({ says, undo: [] });
    router.refresh();
  };
  return (
    <Context.Provider value={done}>
      {children}
      {said && (
        <Slip
          role="status"
          onPointerEnter={() => setHeld(true)}
          onPointerLeave={() => setHeld(false)}
          onFocus={() => setHeld(true)}
          onBlur={() => setHeld(false)}
        >
          <span>
            {at !== null && typeof said.undo !== "function" && said.undo.length > 1
              ? t.undoing(at, said.undo.length)
              : said.says}
          </span>
          {(typeof said.undo === "function" || said.undo.length > 0) && (
            <Act onPress={takeBack} isDisabled={running}>
              {t.undo}
            </Act>
          )}
          <Act onPress={() => setSaid(null)} aria-label={t.closeThisMessage}>
            {t.close}
          </Act>
        </Slip>
      )}
    </Context.Provider>
  );
}

/** One after the other; the message of the first that is refused, or null. */
async function runAll(steps: readonly Step[], onStep: (at: number) => void): Promise<string | null> {
  for (const [at, step] of steps.entries()) {
    onStep(at);
    const answer: Answer<unknown> = await runCommand(step.command, step.input);
    if (!answer.ok) return answer.refused.message;
  }
  return null;
}
