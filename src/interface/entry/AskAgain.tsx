"use client";

import { useRouter } from "next/navigation";
import { useState } from "react";
import { runCommand } from "../shared/ask";
import { Act } from "../shared/controls";
import { Fact } from "./Card";
import { askAgain as t } from "./strings";
import type { EntryView } from "./types";

/** Whether each reveal takes the sign-in password again: for its steward to say. */
export function AskAgain({ entry }: { entry: EntryView }) {
  const router = useRouter();
  const [refused, setRefused] = useState("");
  const turn = async () => {
    const answer = await runCommand("vaults.setPasswordOnReveal", { entryId: entry.id, askAgain: !entry.askAgain });
    setRefused(answer.ok ? "" : answer.refused.message);
    if (answer.ok) router.refresh();
  };
  return (
    <Fact
      label={t.beforeAReveal}
      act={
        <Act
          onPress={turn}
          aria-label={entry.askAgain ? t.stopRequiringTheSignInPassword : t.requireTheSignInPasswordBefore}
        >
          {entry.askAgain ? t.stopRequiringIt : t.requireSignInPassword}
        </Act>
      }
    >
      {entry.askAgain ? t.requiresYourSignInPassword : t.nothingMoreIsRequired}
      {refused && (
        <span role="alert" className="small" style={{ display: "block", color: "var(--crimson)" }}>
          {refused}
        </span>
      )}
    </Fact>
  );
}
