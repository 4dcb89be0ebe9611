"use client";

import dynamic from "next/dynamic";
import { usePathname } from "next/navigation";
import { useEffect, useState } from "react";
import styled from "styled-components";
import { keys as t } from "./strings";

// Loaded when they are first asked for: the Front desk has its own finder.
const FinderSheet = dynamic(() => import("./FinderSheet"));
const KeysSheet = dynamic(() => import("./KeysSheet"));

const Key = styled.button`
  display: flex;
  align-items: center;
  gap: 10px;
  height: var(--control);
  padding: 0 10px 0 12px;
  border: 1px solid var(--baize-edge);
  border-radius: var(--corner);
  background: none;
  color: inherit;
  font: 14px/20px var(--text);
  cursor: pointer;
  kbd { padding: 0 5px; border: 1px solid; border-radius: 3px; font: 12px/18px var(--mono); }
  @media (max-width: 719px) { kbd { display: none; } }
`;

const isTyping = (target: HTMLElement) =>
  /^(INPUT|TEXTAREA|SELECT)$/.test(target.tagName) || target.isContentEditable || target.role === "textbox";

/** `/` opens the finder from anywhere and `?` says which keys there are, unless one is typing. */
export function Keys() {
  const atFrontDesk = usePathname() === "/";
  const [sheet, setSheet] = useState<"finder" | "keys" | null>(null);
  const close = () => setSheet(null);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.ctrlKey || event.metaKey || event.altKey || isTyping(event.target as HTMLElement)) return;
      if (event.key !== "/" && event.key !== "?") return;
      event.preventDefault();
      const own = document.querySelector<HTMLInputElement>("input[role=combobox]");
      if (event.key === "?") setSheet("keys");
      else if (atFrontDesk && own) own.focus();
      else setSheet("finder");
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [atFrontDesk]);
  return (
    <>
      {!atFrontDesk && (
        <Key type="button" onClick={() => setSheet("finder")}>
          {t.find(<kbd>/</kbd>)}
        </Key>
      )}
      {sheet === "finder" && <FinderSheet onClose={close} />}
      {sheet === "keys" && <KeysSheet onClose={close} />}
    </>
  );
}
