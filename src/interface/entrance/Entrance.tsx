"use client";

import type { ReactNode } from "react";
import styled from "styled-components";
import { entrance as t } from "./strings";

const Hall = styled.main`
  flex: 1;
  display: grid;
  grid-template-columns: minmax(0, 420px);
  justify-content: center;
  align-content: start;
  gap: 24px;
  padding: 12vh 16px 48px;
`;

export const Band = styled.header`
  background: var(--baize);
  color: var(--baize-ink);
  padding: 14px var(--gutter);
  font: 700 22px/28px var(--title);
  letter-spacing: -0.015em;
  span { margin-left: 12px; color: var(--baize-soft); font: 400 14px/20px var(--text); letter-spacing: 0; }
  a { float: right; color: inherit; font: 400 15px/28px var(--text); letter-spacing: 0; }
`;

const Sheet = styled.section`
  padding: 22px 24px 26px;
  background: var(--sheet);
  border-top: 4px double var(--ink);
  --ground: var(--sheet);
  h1 { margin-bottom: 14px; }
`;

/** The pages before one is signed in: one sheet of paper. */
export function Entrance({
  organisation,
  title,
  children,
}: {
  organisation: string | null;
  title: string;
  children: ReactNode;
}) {
  return (
    <>
      <Band>
        {t.galtry}
        {organisation && <span>{organisation}</span>}
      </Band>
      <Hall>
        <Sheet>
          <h1>{title}</h1>
          {children}
        </Sheet>
      </Hall>
    </>
  );
}
