import styled from "styled-components";

export const Two = styled.div`
  display: grid;
  grid-template-columns: minmax(0, 1fr) 288px;
  gap: 0 56px;
  align-items: start;
  @media (max-width: 1023px) { grid-template-columns: minmax(0, 1fr); gap: 28px; }
`;

export const Finder = styled.div`
  display: flex;
  align-items: center;
  gap: 14px;
  height: 56px;
  padding: 0 18px;
  background: var(--sheet);
  border: 1px solid var(--edge);
  border-radius: var(--corner);
  color: var(--soft);
  &:focus-within { border-color: var(--copper); outline: 2px solid var(--copper); }
  input { flex: 1; min-width: 0; height: 100%; padding: 0; border: 0; outline: 0; background: none; color: var(--ink); caret-color: var(--copper); font: 400 21px/28px var(--text); }
  input::placeholder { color: var(--soft); opacity: 1; }
  @media (max-width: 719px) { padding: 0 14px; gap: 10px; input { font-size: 18px; } }
`;

export const Hint = styled.p`
  display: flex;
  flex-wrap: wrap;
  gap: 4px 20px;
  margin-top: 10px;
  min-height: 20px;
  color: var(--soft);
  font-size: 13.5px;
  line-height: 20px;
  b { color: var(--ink); }
  kbd { padding: 0 5px; border: 1px solid; border-radius: 3px; font: 12px/18px var(--mono); }
  @media (max-width: 719px) { display: none; }
`;
