"use client";

import { useEffect, useState } from "react";
import { runQuery } from "../shared/ask";
import { nothingFound as t } from "./strings";

/** Nothing is called so: what that may mean, and whom to ask. */
export function NothingFound({ typed }: { typed: string }) {
  const [whom, setWhom] = useState<string[]>([]);
  useEffect(() => {
    void runQuery<string[]>("frontdesk.whomToAsk", {}).then((answer) => answer.ok && setWhom(answer.result));
  }, []);
  return <p>{t.nothingYouHaveAccessToMatches(typed, whom.length > 0 ? t.ifItIsElsewhereAsk(sayNames(whom)) : ".")}</p>;
}

const sayNames = (names: readonly string[]): string =>
  names.length === 1 ? names[0]! : t.or(names.slice(0, -1).join(", "), names.at(-1));
