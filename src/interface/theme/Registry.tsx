"use client";

import { useServerInsertedHTML } from "next/navigation";
import { type ReactNode, useState } from "react";
import { createGlobalStyle, ServerStyleSheet, StyleSheetManager } from "styled-components";
import { BASE, TOKENS } from "./tokens";

const Global = createGlobalStyle`
  ${TOKENS}
  ${BASE}
  body { min-height: 100dvh; display: flex; flex-direction: column; padding-bottom: var(--bar); }
`;

/** Collects the styles of a page while the server renders it. */
export function StyleRegistry({ children }: { children: ReactNode }) {
  const [sheet] = useState(() => new ServerStyleSheet());
  useServerInsertedHTML(() => {
    const styles = sheet.getStyleElement();
    sheet.instance.clearTag();
    return styles;
  });
  const content = (
    <>
      <Global />
      {children}
    </>
  );
  return typeof window === "undefined" ? (
    <StyleSheetManager sheet={sheet.instance}>{content}</StyleSheetManager>
  ) : (
    content
  );
}
