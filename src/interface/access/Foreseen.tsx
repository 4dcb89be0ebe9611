"use client";

import { TriangleAlert } from "lucide-react";
import { useEffect, useState } from "react";
import styled from "styled-components";
import type { Change } from "@/core/access";
import type { SlipSaid } from "@/server/access/slip/slipTelling";
import { runQuery } from "../shared/ask";
import { Beyond, SaidLines } from "./SaidLine";
import { foreseen as t } from "./strings";
import { toSend } from "./useSlip";

const Lines = styled.ul`
  border-top: 1px solid var(--ink);
  li { display: grid; grid-template-columns: 16px minmax(0, 1fr) auto; gap: 10px; padding: 5px 0; border-bottom: 1px solid var(--rule); font-size: 14.5px; line-height: 20px; overflow-wrap: anywhere; }
  li > svg { margin-top: 2px; }
  .warning { color: var(--amber); font-weight: 650; }
  .harm { color: var(--crimson); font-weight: 650; }
`;

/** What changes would do, worked out while they are still being thought of. */
function useForeseen(changes: readonly Change[]) {
  const [said, setSaid] = useState<SlipSaid | null>(null);
  const [wrong, setWrong] = useState<string | null>(null);
  const asked = JSON.stringify(changes.map(toSend));
  useEffect(() => {
    let current = true;
    setSaid(null);
    setWrong(null);
    if (asked !== "[]")
      void runQuery("access.previewChanges", { changes: JSON.parse(asked) }).then((answer) => {
        if (!current) return;
        if (answer.ok) setSaid(answer.result);
        else setWrong(answer.refused.message);
      });
    return () => {
      current = false;
    };
  }, [asked]);
  return { said, wrong };
}

interface ForeseenProps {
  title: string;
  changes: readonly Change[];
  zone: string;
  now: number;
  me: string;
}

/** "What changes": the sentences of a slip, beside the button that does it at once. */
export function Foreseen({ title, changes, zone, now, me }: ForeseenProps) {
  const { said, wrong } = useForeseen(changes);
  if (changes.length === 0) return null;
  return (
    <section aria-label={title} aria-live="polite" aria-busy={said === null && wrong === null}>
      <h3 style={{ fontSize: 15, marginBottom: 4 }}>{title}</h3>
      {wrong && <p className="soft">{wrong}</p>}
      {!wrong && !said && <p className="soft">{t.checkingTheEffects}</p>}
      {said && (
        <Lines>
          {said.withoutSteward.length > 0 && (
            <li className="harm">
              <TriangleAlert size={16} />
              <span>{t.wouldBeLeftWithoutAStewardMake(said.withoutSteward[0])}</span>
            </li>
          )}
          <SaidLines lines={said.lines} {...{ zone, now, me }} />
          {said.lines.length === 0 && !said.beyond && (
            <li>
              <TriangleAlert size={16} />
              <span>{t.nobodysAccessChanges}</span>
            </li>
          )}
          <Beyond said={said} />
        </Lines>
      )}
    </section>
  );
}
