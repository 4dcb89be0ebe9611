import { Group, Label, Popover } from "react-aria-components";
import styled from "styled-components";
import { fieldLook, labelLook } from "./controls";

export const Box = styled(Group)`
  ${fieldLook}
  display: flex;
  align-items: center;
  gap: 2px;
  padding: 3px 4px 3px 12px;
  &[data-focus-within] { outline: 2px solid var(--copper); outline-offset: 1px; }
  &[data-invalid] { border-color: var(--crimson); }
  .input { display: flex; font-variant-numeric: tabular-nums; }
  .segment { padding: 0 1px; border-radius: 2px; outline: none; white-space: pre; caret-color: transparent; }
  .segment[data-placeholder] { color: var(--soft); }
  .segment[data-focused] { background: var(--ink); color: var(--sheet); }
  .to { padding: 0 4px; color: var(--soft); }
  .acts { display: flex; margin-left: auto; }
  button { display: grid; place-items: center; min-width: 28px; min-height: 28px; padding: 0 4px; border: 0; border-radius: var(--corner); background: none; color: var(--soft); font: 400 13.5px/20px var(--text); cursor: pointer; }
  button:hover { color: var(--ink); }
  button[data-focus-visible] { outline: 2px solid var(--copper); }
`;

export const Above = styled(Label)`${labelLook}`;

export const Leaf = styled(Popover)`
  padding: 12px 14px 14px;
  background: var(--sheet);
  border: 1px solid var(--edge);
  border-top: 3px solid var(--ink);
  box-shadow: var(--shade);
  outline: none;
  .month { display: flex; align-items: center; justify-content: space-between; margin-bottom: 6px; }
  .month h2 { font: 650 15px/22px var(--text); }
  .month button { display: grid; place-items: center; width: 32px; height: 32px; border: 0; border-radius: var(--corner); background: none; color: var(--ink); cursor: pointer; }
  .month button[data-disabled] { color: var(--soft); cursor: default; }
  .month button[data-focus-visible] { outline: 2px solid var(--copper); }
  table { border-collapse: collapse; }
  th { width: 36px; padding: 4px 0; border-bottom: 1px solid var(--rule); color: var(--soft); font: 400 13px/18px var(--text); }
  td { padding: 1px; }
  .day { display: grid; place-items: center; width: 34px; height: 32px; border-radius: var(--corner); font-size: 14.5px; font-variant-numeric: tabular-nums; cursor: pointer; outline: none; }
  .day[data-outside-month] { visibility: hidden; }
  .day[data-hovered] { background: var(--pick); }
  .day[data-today] { box-shadow: inset 0 -2px var(--copper); }
  .day[data-selected] { background: var(--ink); color: var(--sheet); }
  .day[data-focus-visible] { outline: 2px solid var(--copper); outline-offset: 1px; }
`;
