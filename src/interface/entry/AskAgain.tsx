"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import { runCommand } from "../shared/ask";
import { Act } from "../shared/controls";
import { useProving } from "../shared/useProving";
import { Fact } from "./Card";
import type { EntryView } from "./types";

/** Whether each reveal takes the sign-in password again: for its steward to say. */
export function AskAgain({ entry }: { entry: EntryView }) {
  const router = useRouter();
  const { prove, sheet } = useProving();
  const [refused, setRefused] = useState("");
  const turn = async () => {
    const answer = await prove(() => runCommand("vaults.askAgain", { entryId: entry.id, askAgain: !entry.askAgain }));
    setRefused(answer.ok ? "" : answer.refused.message);
    if (answer.ok) router.refresh();
  };
  return (
    <Fact
      label="Before a reveal"
      act={
        <Act
          onPress={turn}
          aria-label={entry.askAgain ? "Stop asking before each reveal" : "Ask again before each reveal"}
        >
          {entry.askAgain ? "Stop asking" : "Ask again"}
        </Act>
      }
    >
      {entry.askAgain ? "one’s sign-in password is asked for again" : "nothing more is asked"}
      {refused && (
        <span role="alert" className="small" style={{ display: "block", color: "var(--crimson)" }}>
          {refused}
        </span>
      )}
      {sheet}
    </Fact>
  );
}
