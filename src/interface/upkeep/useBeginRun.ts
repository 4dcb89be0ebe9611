"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import type { RunWhat } from "@/core/signin/changing";
import { post } from "../shared/ask";
import { GIVEN_UP, proving } from "../shared/proving";

export interface RunItem {
  entryId: string;
  name: string;
}

/** Begins runs. The server keeps them: what they have come to is read with the page. */
export function useBeginRun(aboutId: string | null) {
  const router = useRouter();
  const [beginning, setBeginning] = useState(false);
  const [refused, setRefused] = useState<string | null>(null);
  const begin = async (what: RunWhat, items: readonly RunItem[]): Promise<void> => {
    setBeginning(true);
    const entryIds = items.map(({ entryId }) => entryId);
    const answer = await proving(() => post<{ runId: string }>("/api/run", { what, entryIds, aboutId }));
    setRefused(answer.ok || answer.refused.code === GIVEN_UP ? null : answer.refused.message);
    setBeginning(false);
    router.refresh();
  };
  return { begin, beginning, refused };
}
