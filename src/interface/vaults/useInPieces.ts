"use client";

import { useRouter } from "next/navigation";
import { useRef, useState } from "react";
import type { CommandName, InputOf, ResultOf } from "@/server/registry";
import { runCommand } from "../shared/ask";
import { type Step, useDone } from "../shared/Done";
import { useInPieces as t } from "./strings";

interface Running {
  done: number;
  of: number;
}

/**
 * One command for many, some at a time, with a count and a stop. What was done before a refusal or a stop stays done;
 * it is said, with its undo.
 */
export function useInPieces() {
  const [running, setRunning] = useState<Running | null>(null);
  const [refused, setRefused] = useState<string | null>(null);
  const stopped = useRef(false);
  const done = useDone();
  const router = useRouter();
  const partly = (undo: Step[], count: number, of: number) => {
    if (count === 0) return;
    done(t.doneForOfNotForTheOthers(count.toLocaleString("en-GB"), of.toLocaleString("en-GB")), undo);
    router.refresh();
  };
  const inPieces = async <Name extends CommandName>(
    ids: readonly string[],
    atOnce: number,
    command: Name,
    toInput: (ids: string[]) => InputOf<Name>,
    toUndo: (ids: string[], result: ResultOf<Name>) => Step | Step[] | null,
  ): Promise<Step[] | null> => {
    stopped.current = false;
    setRefused(null);
    const undo: Step[] = [];
    for (let at = 0; at < ids.length; at += atOnce) {
      if (ids.length > atOnce) setRunning({ done: at, of: ids.length });
      const some = ids.slice(at, at + atOnce);
      const answer = await runCommand(command, toInput(some));
      if (!answer.ok) {
        setRunning(null);
        setRefused(answer.refused.message);
        partly(undo, at, ids.length);
        return null;
      }
      const step = toUndo(some, answer.result);
      if (step) undo.unshift(...(Array.isArray(step) ? step : [step]));
      if (stopped.current && at + atOnce < ids.length) {
        setRunning(null);
        partly(undo, at + atOnce, ids.length);
        return null;
      }
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
