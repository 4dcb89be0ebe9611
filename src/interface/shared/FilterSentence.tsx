"use client";

import styled from "styled-components";

/** What a list shows, as one sentence whose dotted parts can be changed; a part that narrows it is underlined. */
export const FilterSentence = styled.p`
  flex: 1 1 420px;
  line-height: 30px;
  overflow-wrap: anywhere;
  select, button {
    appearance: none;
    field-sizing: content;
    max-width: 100%;
    min-height: 28px;
    padding: 0 2px;
    border: 0;
    border-bottom: 1px dotted var(--edge);
    background: none;
    color: var(--ink);
    font: 600 15px/26px var(--text);
    text-decoration: none;
    cursor: pointer;
  }
  [data-said] { color: var(--ink); border-bottom: 2px solid var(--ink); }
`;
