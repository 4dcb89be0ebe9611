"use client";

import { type KeyboardEvent, type ReactNode, useRef } from "react";
import { startingWith } from "./startingWith";

/** So long after a letter the next one still belongs to the same word. */
const PAUSE_MS = 900;

/** Links among which the first letters of a name go to it; typed on, the one that fits all of them. */
export function TypeAhead({ children }: { children: ReactNode }) {
  const typed = useRef({ text: "", at: 0 });
  const onKeyDown = (event: KeyboardEvent<HTMLDivElement>) => {
    const { key } = event;
    if (event.ctrlKey || event.metaKey || event.altKey || !/^[\p{L}\p{N}]$/u.test(key)) return;
    if (!(event.target instanceof HTMLAnchorElement)) return;
    const before = event.timeStamp - typed.current.at < PAUSE_MS ? typed.current.text : "";
    const text = before + key.toLowerCase();
    typed.current = { text, at: event.timeStamp };
    // The same keys anywhere else mean something: here they are a name.
    event.preventDefault();
    const links = [...event.currentTarget.querySelectorAll<HTMLAnchorElement>("a[data-name]")];
    const found = startingWith(
      links.map((link) => link.dataset.name ?? ""),
      text,
      links.indexOf(event.target),
    );
    if (found !== null) links[found]?.focus();
  };
  // biome-ignore lint/a11y/noStaticElementInteractions: it only hears what is typed at the links in it
  return <div onKeyDown={onKeyDown}>{children}</div>;
}
