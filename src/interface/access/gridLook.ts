/** How the grid looks; sizes in pixels. */
import styled from "styled-components";

export const ROW = 46;
export const HEAD = 66;
export const COLUMN = 104;
export const FIRST = 288;

export const Room = styled.div`
  flex: 1;
  min-height: 180px;
  overflow: auto;
  background: var(--sheet);
  --ground: var(--sheet);
  outline: none;
  user-select: none;
  .line { position: absolute; left: 0; display: flex; height: ${ROW}px; width: 100%; border-bottom: 1px solid var(--rule); background: var(--sheet); --ground: var(--sheet); }
  .line.place { background: var(--paper); --ground: var(--paper); }
  .line.place > :first-child { font-weight: 650; }
  .line.here, .line > .at { background: var(--lit); --ground: var(--lit); }
  .line > :first-child, .head [role="columnheader"]:first-child { position: sticky; left: 0; z-index: 2; flex: none; width: var(--first); background: inherit; }
  .line > :first-child { display: flex; align-items: center; gap: 4px; padding: 0 12px 0 calc(var(--gutter) + 20px * var(--depth)); white-space: nowrap; overflow: hidden; }
  .line > :first-child span { overflow: hidden; text-overflow: ellipsis; }
  .line > :first-child svg { flex: none; }
  .cell { flex: none; position: relative; display: grid; place-content: center; justify-items: center; width: ${COLUMN}px; border-left: 1px solid var(--rule); font-size: 12px; line-height: 13px; color: var(--soft); }
  .cell b { display: none; font-weight: 400; white-space: nowrap; }
  .line.here .cell b, .cell.at b { display: block; }
  .cell i { font-style: normal; white-space: nowrap; color: var(--ink); }
  .cell.first, .head .first { border-left: 3px double var(--edge); }
  .cell.under, .head .under { border-left-style: dotted; }
  .cell.chosen { background: var(--pick); --ground: var(--pick); }
  .cell.drafted::before { content: ""; position: absolute; inset: 1px; border: 1.5px dashed var(--ink); border-radius: 3px; pointer-events: none; }
  .cell.follows::before { content: ""; position: absolute; top: 0; right: 0; border: 5px solid; border-color: var(--ink) var(--ink) transparent transparent; }
  .pair { white-space: nowrap; }
  .was { display: inline-block; position: relative; font-size: 11px; line-height: 11px; }
  .was::after { content: ""; position: absolute; inset: 5px -3px auto; border-top: 1.5px solid var(--crimson); rotate: -7deg; }
  .head { position: sticky; top: 0; z-index: 3; display: flex; height: ${HEAD}px; background: var(--paper); border-bottom: 1px solid var(--edge); }
  .head [role="columnheader"] { flex: none; display: flex; flex-direction: column; justify-content: end; padding: 4px 6px 6px; font-size: 13.5px; line-height: 17px; border-left: 1px solid var(--rule); }
  .head [role="columnheader"]:first-child { z-index: 4; justify-content: end; padding-left: var(--gutter); border-left: 0; color: var(--soft); font-size: 12.5px; background: var(--paper); }
  .head .at { box-shadow: inset 0 -3px var(--ink); }
  .head [role="columnheader"] > span, .head button > span { display: block; max-height: 34px; overflow: hidden; overflow-wrap: anywhere; font-weight: 650; }
  .head small { overflow: hidden; text-overflow: ellipsis; white-space: nowrap; color: var(--soft); font-size: 12px; }
  .head button { display: flex; align-items: end; gap: 2px; padding: 0; border: 0; background: none; color: inherit; font: inherit; text-align: left; cursor: pointer; }
  .head button svg { flex: none; margin-bottom: 2px; }
  @media (max-width: 719px) { flex: none; height: 56vh; .cell b { display: block; } }
  &:focus-visible .focus { outline: 2px solid var(--copper); outline-offset: -2px; }
`;
