import styled from "styled-components";
import type { LedgerColumn } from "@/core/ledgerView";

export const ROW = 44;

const WIDTHS: Record<LedgerColumn, string> = {
  kind: "112px",
  address: "158px",
  tags: "132px",
  who: "76px",
  strength: "92px",
  upkeep: "138px",
  used: "90px",
  changed: "90px",
  you: "108px",
};

export const Rows = styled.div<{ $columns: readonly LedgerColumn[] }>`
  border-top: 3px solid var(--ink);
  background: var(--sheet);
  --ground: var(--sheet);
  outline: none;
  [role="row"] { display: grid; grid-template-columns: 26px minmax(0, 1fr) ${({ $columns }) => $columns.map((one) => WIDTHS[one]).join(" ")}; gap: 12px; align-items: center; height: ${ROW}px; padding: 0 12px; border-bottom: 1px solid var(--rule); }
  [role="row"].head { height: 38px; border-bottom-color: var(--edge); color: var(--soft); font-size: 13.5px; font-weight: 650; }
  [role="row"].heading { align-items: end; padding-bottom: 6px; font-weight: 650; }
  [role="row"]:not(.head, .heading):hover { background: var(--lit); --ground: var(--lit); }
  [role="row"][aria-selected="true"] { background: var(--pick); --ground: var(--pick); box-shadow: inset 4px 0 var(--ink); }
  [role="row"][data-drop] { background: var(--pick); outline: 2px dashed var(--ink); outline-offset: -2px; }
  &:focus-visible [role="row"][data-active] { outline: 2px solid var(--copper); outline-offset: -2px; }
  [role="gridcell"] { min-width: 0; overflow: hidden; text-overflow: ellipsis; white-space: nowrap; font-size: 13.5px; }
  .what { display: flex; align-items: center; gap: 10px; font-size: 15px; }
  .what > span:last-child { display: flex; gap: 10px; min-width: 0; align-items: baseline; }
  .what a { overflow: hidden; text-overflow: ellipsis; font-weight: 600; text-decoration: none; }
  .what .soft { min-width: 0; flex-shrink: 4; overflow: hidden; text-overflow: ellipsis; }
  .what a:hover { text-decoration: underline 1px; }
  .folder { display: flex; align-items: center; gap: 10px; min-width: 0; height: 100%; padding: 0 8px; border: 0; background: none; color: inherit; font: inherit; cursor: pointer; }
  .folder svg { flex: none; }
  .what a.change { flex: none; font-weight: 400; text-decoration: underline 1px var(--edge); text-underline-offset: 3px; }
  .folder b { overflow: hidden; text-overflow: ellipsis; font-weight: 600; }
  .you { display: flex; align-items: center; gap: 8px; }
  .pick { display: grid; place-items: center; width: 26px; height: 100%; padding: 0; border: 0; background: none; cursor: pointer; }
  .pick i { display: grid; place-items: center; width: 16px; height: 16px; border: 1.5px solid var(--edge); border-radius: 3px; background: var(--sheet); }
  .pick[aria-checked="true"] i, .pick[aria-checked="mixed"] i { background: var(--ink); border-color: var(--ink); }
  .pick[aria-checked="true"] i::after { content: ""; width: 8px; height: 4px; margin-top: -2px; border: solid var(--sheet); border-width: 0 0 2px 2px; rotate: -45deg; }
  .pick[aria-checked="mixed"] i::after { content: ""; width: 8px; height: 2px; background: var(--sheet); }
  .sort { display: inline-flex; align-items: center; gap: 3px; padding: 0; border: 0; background: none; color: inherit; font: inherit; cursor: pointer; }
  .sort:hover { color: var(--ink); text-decoration: underline 1px var(--edge); text-underline-offset: 3px; }
  .grip { flex: none; display: grid; place-items: center; width: 18px; height: 28px; margin: 0 -6px; padding: 0; border: 0; background: none; color: var(--soft); cursor: grab; opacity: 0; }
  [role="row"]:hover .grip, .grip:focus { opacity: 1; }
  @media (max-width: 1023px) { [role="row"] { grid-template-columns: 26px minmax(0, 1fr) 84px 108px; } .c-kind, .c-address, .c-tags, .c-strength, .c-upkeep, .c-used, .c-changed { display: none; } &[data-few] [role="row"] { grid-template-columns: 26px minmax(0, 1fr) 108px; } }
  @media (max-width: 719px) { [role="row"], &[data-few] [role="row"] { grid-template-columns: 26px minmax(0, 1fr) 104px; gap: 8px; } .c-who, .folder .soft, .grip { display: none; } .what > span:last-child { display: grid; grid-template-columns: minmax(0, 1fr); gap: 0; line-height: 19px; } }
`;
