"use client";

import { Fragment, type ReactNode, useEffect, useState } from "react";

/**
 * Another link put into the address of the same page opens like the first: the browser loads nothing by itself, so
 * what stands inside begins anew.
 */
export function EachLink({ children }: { children: ReactNode }) {
  const [link, setLink] = useState(0);
  useEffect(() => {
    const heard = () => location.hash.length > 1 && setLink((before) => before + 1);
    addEventListener("hashchange", heard);
    return () => removeEventListener("hashchange", heard);
  }, []);
  return <Fragment key={link}>{children}</Fragment>;
}
