"use client";

import { useEffect, useState } from "react";
import { runQuery } from "../shared/ask";

/** Nothing is called so: what that may mean, and whom to ask. */
export function NothingFound({ typed }: { typed: string }) {
  const [whom, setWhom] = useState<string[]>([]);
  useEffect(() => {
    void runQuery<string[]>("frontdesk.whomToAsk", {}).then((answer) => answer.ok && setWhom(answer.result));
  }, []);
  return (
    <p>
      Nothing that you can reach is called “{typed}”. It may be kept where you have no access
      {whom.length > 0 ? `: ask ${sayNames(whom)}.` : "."}
    </p>
  );
}

const sayNames = (names: readonly string[]): string =>
  names.length === 1 ? names[0]! : `${names.slice(0, -1).join(", ")} or ${names.at(-1)}`;
