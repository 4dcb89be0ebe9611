"use client";

import { useRef, useState } from "react";
import { runCommand } from "../shared/ask";
import type { Step } from "../shared/Done";

interface Running {
  done: number;
  of: number;
}

/**
 * One command for many, some at a time, with a count and a stop. What was done before a refusal stays done, and its
 * undo is kept until the whole has been.
 */
export function useInPieces() {
  const [running, setRunning] = useState<Running | null>(null);
  const [refused, setRefused] = useState<string | null>(null);
  const stopped = useRef(false);
  const inPieces = async <R>(
    ids: readonly string[],
    atOnce: number,
    command: string,
    toInput: (ids: string[]) => unknown,
    toUndo: (ids: string[], result: R) => Step | null,
  ): Promise<Step[] | null> => {
    stopped.current = false;
    setRefused(null);
    const undo: Step[] = [];
    for (let at = 0; at < ids.length; at += atOnce) {
      if (ids.length > atOnce) setRunning({ done: at, of: ids.length });
      const some = ids.slice(at, at + atOnce);
      const answer = await runCommand<R>(command, toInput(some));
      if (!answer.ok) {
        setRunning(null);
        setRefused(at === 0 ? answer.refused.message : `After ${at} of ${ids.length}: ${answer.refused.message}`);
        return null;
      }
      const step = toUndo(some, answer.result);
      if (step) undo.unshift(step);
      if (stopped.current) break;
    }
    setRunning(null);
    return undo;
  };
  return {
    running,
    refused,
    inPieces,
    stop: () => {
      stopped.current = true;
    },
  };
}
