"use client";

import { useEffect, useMemo, useState } from "react";
import { type Findable, type Index, prepare } from "@/core/finder";
import { runQuery } from "./ask";

/** Fewer hits than this, and the finder looks into folders, open fields and user names as well. */
const FEW = 4;

/**
 * The index of what can be found. The words that take the server longest to gather are asked for once, and only when
 * what is typed finds little without them.
 */
export function useFinder<L extends Findable>(lines: readonly L[]) {
  const [more, setMore] = useState<ReadonlyMap<string, string> | undefined>(undefined);
  const [wanted, setWanted] = useState(false);
  useEffect(() => {
    if (!wanted) return;
    let current = true;
    void runQuery("frontdesk.finderWords", {}).then((answer) => {
      if (current && answer.ok) setMore(new Map(answer.result));
    });
    return () => {
      current = false;
    };
  }, [wanted]);
  const index: Index<L> = useMemo(() => prepare(lines, more), [lines, more]);
  return {
    index,
    /** To be told how many hits there were for what is typed. */
    noteHits: (typed: string, hits: number) => {
      if (!wanted && hits < FEW && typed.trim().length > 1) setWanted(true);
    },
  };
}
