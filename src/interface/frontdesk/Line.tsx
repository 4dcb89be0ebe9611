"use client";

import Link from "next/link";
import { memo } from "react";
import styled from "styled-components";
import type { DeskLine } from "@/server/frontdesk/frontDesk";
import { Chip } from "../shared/controls";
import { Stamp } from "../shared/Stamp";
import { line as t } from "./strings";

const Item = styled.li`
  display: grid;
  grid-template-columns: 36px minmax(0, 1.5fr) minmax(0, 1fr) minmax(0, 0.92fr) 84px;
  gap: 16px;
  align-items: center;
  min-height: 42px;
  border-bottom: 1px solid var(--rule);
  scroll-margin: 80px;
  .name, .site { min-width: 0; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; color: var(--soft); }
  .name a { color: var(--ink); font-weight: 650; text-decoration: none; }
  .name a:hover { text-decoration: underline 1px; }
  .how { min-width: 0; overflow: hidden; text-overflow: ellipsis; color: var(--soft); font-size: 13.5px; white-space: nowrap; }
  .how > * { max-width: 100%; overflow: hidden; text-overflow: ellipsis; vertical-align: bottom; }
  button { width: 84px; min-height: 30px; border: 1px solid transparent; border-radius: var(--corner); background: none; color: var(--soft); font: 600 14px/20px var(--text); cursor: pointer; }
  &:hover, &:focus-within { background: var(--lit); --ground: var(--lit); box-shadow: -12px 0 var(--lit), 12px 0 var(--lit); }
  &:hover button, &:focus-within button { border-color: var(--edge); background: var(--sheet); color: var(--ink); }
  &[data-active="true"] { background: var(--sheet); --ground: var(--sheet); box-shadow: -12px 0 var(--sheet), 12px 0 var(--sheet), -15px 0 var(--copper); }
  &[data-active="true"] button { border-color: var(--copper); background: var(--copper); color: var(--on-copper); }
  @media (max-width: 719px) {
    grid-template-columns: 36px minmax(0, 1fr) 84px;
    grid-template-areas: "stamp name act" "stamp how act";
    gap: 0 12px;
    padding-block: 8px;
    min-height: 60px;
    > :first-child { grid-area: stamp; }
    .name { grid-area: name; }
    .how { grid-area: how; }
    button { grid-area: act; min-height: 40px; }
    .site, .name .note { display: none; }
  }
`;

export const signsIn = (line: Pick<DeskLine, "how">): boolean => line.how !== "opened";

export interface LineAct {
  run: (line: DeskLine) => void;
}

interface LineProps {
  id: string;
  line: DeskLine;
  active: boolean;
  act: LineAct;
  note: { text: string; tone?: "good" | "look" | "bad" };
}

export const Line = memo(
  function Line({ id, line, active, act, note }: LineProps) {
    return (
      <Item id={id} data-active={active}>
        <Stamp name={line.name} picture={line.picture} />
        <span className="name" title={line.description ? `${line.name}, ${line.description}` : line.name}>
          <Link href={`/entry/${line.id}`} prefetch={false}>
            {line.name}
          </Link>{" "}
          <span className="note">{line.description}</span>
        </span>
        {signsIn(line) ? (
          <span className="site mono" title={line.site}>
            {line.site}
          </span>
        ) : (
          <span className="site soft">{line.kind}</span>
        )}
        <span className="how" title={note.tone && note.text}>
          {note.tone ? <Chip data-tone={note.tone}>{note.text}</Chip> : note.text}
        </span>
        <button
          type="button"
          onClick={() => act.run(line)}
          aria-label={signsIn(line) ? t.signInTo(line.name) : t.open(line.name)}
        >
          {signsIn(line) ? t.signIn : t.open2}
        </button>
      </Item>
    );
  },
  (before, after) =>
    before.id === after.id &&
    before.line === after.line &&
    before.active === after.active &&
    before.note.text === after.note.text &&
    before.act.run === after.act.run,
);
