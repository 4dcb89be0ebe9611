"use client";

import { useRouter } from "next/navigation";
import { useRef, useState } from "react";
import { CHANGE_OUTCOMES } from "@/core/signin/changing";
import { FAILURES } from "@/core/signin/outcome";
import type { Changed } from "@/server/signin/changePassword";
import type { Tested } from "@/server/signin/testing";
import { post } from "../shared/ask";
import { proving } from "../shared/proving";
import { run as t } from "./strings";

export interface RunItem {
  entryId: string;
  name: string;
}

export interface RunLine extends RunItem {
  good: boolean;
  says: string;
}

export interface Run {
  what: "change" | "test";
  of: number;
  /** What is under way; null once it is over. */
  now: RunItem | null;
  lines: RunLine[];
  stopping: boolean;
}

/** Many, one after the other: a site is never asked twice at once, and each ends before the next begins. */
export function useRun() {
  const router = useRouter();
  const [state, setState] = useState<Run | null>(null);
  const stop = useRef(false);
  const start = async (what: Run["what"], items: readonly RunItem[]): Promise<void> => {
    stop.current = false;
    const lines: RunLine[] = [];
    for (const item of items) {
      if (stop.current) break;
      setState({ what, of: items.length, now: item, lines: [...lines], stopping: false });
      lines.push({ ...item, ...(await (what === "change" ? change(item) : test(item))) });
    }
    setState({ what, of: items.length, now: null, lines, stopping: false });
    router.refresh();
  };
  return {
    run: state,
    start,
    stop: () => {
      stop.current = true;
      setState((before) => before && { ...before, stopping: true });
    },
    clear: () => setState(null),
  };
}

async function change({ entryId }: RunItem): Promise<Pick<RunLine, "good" | "says">> {
  const answer = await proving(() => post<Changed>(`/api/change/${entryId}`, { what: "change", page: "" }));
  if (!answer.ok) return { good: false, says: answer.refused.message };
  return { good: answer.result.outcome === "changed", says: CHANGE_OUTCOMES[answer.result.outcome].title };
}

async function test({ entryId }: RunItem): Promise<Pick<RunLine, "good" | "says">> {
  const answer = await proving(() => post<Tested>(`/api/test/${entryId}`, {}));
  if (!answer.ok) return { good: false, says: answer.refused.message };
  const { outcome } = answer.result;
  return outcome === "signed-in"
    ? { good: true, says: t.signedIn }
    : { good: false, says: t.theSite(FAILURES[outcome].title) };
}
