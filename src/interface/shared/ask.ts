"use client";

/** Runs commands and queries of the server from a page; types come from the server, code does not. */
import { useRouter } from "next/navigation";
import { useCallback, useState } from "react";
import type { CommandName, InputOf, QueryName, ResultOf } from "@/server/registry";
import type { Answer, Refusal } from "./answer";
import { GIVEN_UP, proving } from "./proving";
import { hasTyped, noteTyped, sessionEnded, signInAgain } from "./signedOut";
import { ask as t } from "./strings";

export type { Answer, Refusal } from "./answer";

/** Browsers carry no more than 64 KiB, of all that is under way together, beyond the page that sent it. */
const MOST_CARRIED = 60_000;

/**
 * To one of Galtry's own addresses.
 * @param carried gets there even if the page is left at that moment: for little things, one at a time
 */
export async function post<R>(address: string, input: unknown, carried = false): Promise<Answer<R>> {
  try {
    const body = JSON.stringify(input);
    const response = await fetch(address, {
      method: "POST",
      headers: { "content-type": "application/json" },
      body,
      keepalive: carried && body.length < MOST_CARRIED,
    });
    return (await response.json()) as Answer<R>;
  } catch {
    return {
      ok: false,
      refused: { code: "offline", message: t.galtryIsNotRespondingWhatYou },
    };
  }
}

/**
 * Where the session has ended under what was typed, its reader signs in over the page, and where an act wants to know
 * anew that it is them, they show it there; then the command goes on.
 */
export async function runCommand<Name extends CommandName>(
  name: Name,
  input: InputOf<Name>,
  carried = false,
): Promise<Answer<ResultOf<Name>>> {
  const send = () => proving(() => post<ResultOf<Name>>(`/api/command/${name}`, input, carried));
  const answer = await send();
  if (answer.ok || !hasTyped() || !sessionEnded(answer.refused)) return answer;
  return (await signInAgain()) ? send() : answer;
}
export const runQuery = <Name extends QueryName>(name: Name, input: InputOf<Name>) =>
  post<ResultOf<Name>>(`/api/query/${name}`, input);

/** A command with its state: running, and the refusal at its place. After success the page looks again. */
export function useCommand<Name extends CommandName>(name: Name) {
  const router = useRouter();
  const [running, setRunning] = useState(false);
  const [refused, setRefused] = useState<Refusal | null>(null);
  const run = useCallback(
    async (input: InputOf<Name>): Promise<Answer<ResultOf<Name>>> => {
      setRunning(true);
      const answer = await runCommand(name, input);
      setRunning(false);
      setRefused(answer.ok || answer.refused.code === GIVEN_UP ? null : answer.refused);
      if (answer.ok) noteTyped(false);
      if (answer.ok || answer.refused.code === "signed-out") router.refresh();
      return answer;
    },
    [name, router],
  );
  /** The message for a field, or for the whole when no field is named. */
  const wrong = (field?: string) =>
    refused &&
    (field === undefined ? !refused.field : refused.field === field || refused.field?.startsWith(`${field}.`))
      ? refused.message
      : null;
  return { run, running, refused, wrong, clear: () => setRefused(null) };
}
