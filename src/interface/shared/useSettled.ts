import { useEffect, useRef } from "react";

const SETTLED_MS = 700;

/** Tells of the last of several changes, once no more have come for a moment: a date changes with every digit. */
export function useSettled<V>(tell: (value: V) => void): (value: V) => void {
  const timer = useRef<ReturnType<typeof setTimeout>>(undefined);
  const latest = useRef(tell);
  latest.current = tell;
  useEffect(() => () => clearTimeout(timer.current), []);
  return (value) => {
    clearTimeout(timer.current);
    timer.current = setTimeout(() => latest.current(value), SETTLED_MS);
  };
}
