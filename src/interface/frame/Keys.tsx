"use client";

import dynamic from "next/dynamic";
import { usePathname, useRouter } from "next/navigation";
import { useCallback, useEffect, useState } from "react";
import styled from "styled-components";
import type { Reader } from "../help/strings";
import { keys as t } from "./strings";

// Loaded when they are first asked for: the Front desk has its own finder.
const FinderSheet = dynamic(() => import("./FinderSheet"));
const AddSheet = dynamic(() => import("./AddSheet"));
const HelpSheet = dynamic(() => import("../help/HelpSheet"));

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

/** The Front desk begins in its finder: no name begins with a question mark, and help is one key away there, too. */
const isEmptyFinder = (target: HTMLElement): boolean =>
  target instanceof HTMLInputElement && target.getAttribute("role") === "combobox" && target.value === "";

/** `/` opens the finder from anywhere, `n` begins a new entry and `?` says which keys there are, unless one is typing. */
export function Keys({ reader }: { reader: Reader }) {
  const path = usePathname();
  const router = useRouter();
  const atFrontDesk = path === "/";
  const [sheet, setSheet] = useState<"finder" | "help" | "add" | null>(null);
  const close = useCallback(() => setSheet(null), []);
  useEffect(() => {
    const onKey = (event: KeyboardEvent) => {
      if (event.defaultPrevented || event.ctrlKey || event.metaKey || event.altKey) return;
      const target = event.target as HTMLElement;
      if (isTyping(target) && !(event.key === "?" && isEmptyFinder(target))) return;
      if (event.key === "n" && !document.querySelector("[role=dialog]")) {
        event.preventDefault();
        // As the address says at this moment: a page that has just come is drawn before this hears of it.
        const vault = /^\/vaults\/([\w-]{36})$/.exec(location.pathname)?.[1];
        // In the folder that the address names, if it does.
        if (vault) router.push(`/vaults/${vault}/new${location.search}`);
        else setSheet("add");
        return;
      }
      if (event.key !== "/" && event.key !== "?") return;
      event.preventDefault();
      const own = document.querySelector<HTMLInputElement>("input[role=combobox]");
      if (event.key === "?") setSheet("help");
      else if (atFrontDesk && own) own.focus();
      else setSheet("finder");
    };
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, [atFrontDesk, router]);
  return (
    <>
      {!atFrontDesk && (
        <Key type="button" onClick={() => setSheet("finder")}>
          {t.find(<kbd>/</kbd>)}
        </Key>
      )}
      <Key type="button" onClick={() => setSheet("help")} aria-label={t.help} title={t.help}>
        ?
      </Key>
      {sheet === "finder" && <FinderSheet reader={reader} onClose={close} />}
      {sheet === "add" && <AddSheet onClose={close} />}
      {sheet === "help" && <HelpSheet reader={reader} onClose={close} />}
    </>
  );
}
