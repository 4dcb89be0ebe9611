import { usePathname } from "next/navigation";
import { useEffect, useRef } from "react";

/** A dialog that leads to another page gives the focus back to what is gone by then. */
const SETTLED_MS = 80;

/**
 * On a page that one came to from another, what has the focus is gone with that other page: the next Tab would begin at
 * the very top again. It goes on in the content instead, unless something there took the focus.
 */
export function useArrival(): void {
  const path = usePathname();
  const here = useRef(path);
  useEffect(() => {
    if (here.current === path) return;
    here.current = path;
    const timer = setTimeout(() => {
      const { activeElement } = document;
      if (activeElement === null || activeElement === document.body)
        document.getElementById("content")?.focus({ preventScroll: true });
    }, SETTLED_MS);
    return () => clearTimeout(timer);
  }, [path]);
}
