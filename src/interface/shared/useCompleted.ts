import { useRef, useState } from "react";
import type { Filled } from "./partialDate";

/** What has been filled in of a date, by the name of its part. */
function filledIn(field: HTMLElement): Filled {
  const filled: Filled = {};
  for (const segment of field.querySelectorAll<HTMLElement>("[role=spinbutton]")) {
    const type = segment.dataset.type as keyof Filled;
    if (!segment.hasAttribute("data-placeholder")) filled[type] = Number(segment.getAttribute("aria-valuenow"));
  }
  return filled;
}

/** Completes what was left open of a date when its field is left; what is no date at all is emptied. */
export function useCompleted(value: string, whole: (filled: Filled) => string | null, onText: (text: string) => void) {
  const field = useRef<HTMLDivElement>(null);
  // Drawn anew to empty it: a field keeps the parts that are no whole date yet to itself.
  const [key, setKey] = useState(0);
  const clear = () => {
    setKey(key + 1);
    onText("");
  };
  const complete = () => {
    if (value !== "" || !field.current) return;
    const filled = filledIn(field.current);
    if (Object.keys(filled).length === 0) return;
    const found = whole(filled);
    if (found) onText(found);
    else clear();
  };
  return { field, key, clear, complete };
}
