"use client";

import { useEffect, useState } from "react";
import { runQuery } from "../shared/ask";
import { nothingFound as t } from "./strings";

/** Nothing matches: what that can mean, and whom to ask. */
export function NothingFound({ typed }: { typed: string }) {
  const [whom, setWhom] = useState<string[]>([]);
  useEffect(() => {
    void runQuery("frontdesk.whomToAsk", {}).then((answer) => answer.ok && setWhom(answer.result));
  }, []);
  return (
    <p>
      {t.nothingMatches(typed)}
      {whom.length > 0 && t.ifItIsElsewhereAsk(whom)}
    </p>
  );
}
