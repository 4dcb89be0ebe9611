"use client";

import { Fragment, type ReactNode, useEffect, useState } from "react";
import { holdLink } from "./takeLink";

/**
 * Another link put into the address of the same page opens like the first: the browser loads nothing by itself, so
 * what stands inside begins anew.
 */
export function EachLink({ children }: { children: ReactNode }) {
  const [link, setLink] = useState(0);
  useEffect(() => {
    const heard = ({ newURL }: HashChangeEvent) => {
      const { hash } = new URL(newURL);
      if (hash.length < 2) return;
      // Held from what is told: by now the framework, at work on something else, may have put its own address back.
      holdLink(hash.slice(1));
      setLink((before) => before + 1);
    };
    addEventListener("hashchange", heard);
    return () => removeEventListener("hashchange", heard);
  }, []);
  return <Fragment key={link}>{children}</Fragment>;
}
