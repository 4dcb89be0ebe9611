import { useCallback, useState } from "react";

/** Ids that are switched on and off one at a time; the third adds some. */
export function useToggled(): [ReadonlySet<string>, (id: string) => void, (ids: readonly string[]) => void] {
  const [on, setOn] = useState<ReadonlySet<string>>(new Set());
  const toggle = useCallback(
    (id: string) =>
      setOn((was) => {
        const next = new Set(was);
        if (!next.delete(id)) next.add(id);
        return next;
      }),
    [],
  );
  const add = useCallback((ids: readonly string[]) => setOn((was) => new Set([...was, ...ids])), []);
  return [on, toggle, add];
}
