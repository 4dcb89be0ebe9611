import styled from "styled-components";

/** The foot of a list in which something is selected: how many, and what can be done with them. */
export const SelectionBar = styled.div`
  position: sticky;
  bottom: var(--bar, 0px);
  z-index: 4;
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 8px;
  margin-top: 16px;
  padding: 10px 14px;
  background: var(--baize);
  color: var(--baize-ink);
  button { background: transparent; color: inherit; border-color: var(--baize-edge); }
  button[data-disabled] { color: var(--baize-soft); }
  > span { margin-right: 8px; font-weight: 650; white-space: nowrap; }
  @media (max-width: 719px) { flex-wrap: nowrap; overflow-x: auto; > * { flex: none; } }
`;
