"use client";

import type { KeyboardEvent } from "react";
import { useState } from "react";
import { CODE, PASSWORD, USER_NAME } from "@/core/kinds/kind";
import { runCommand } from "./ask";
import { useQuickCopy as t } from "./strings";
import { useCopy } from "./useCopy";

/** Alt with a letter, on the line that is marked. */
const FIELDS: Record<string, { field: string; word: string }> = {
  KeyN: { field: USER_NAME, word: t.userName },
  KeyP: { field: PASSWORD, word: t.password },
  KeyO: { field: CODE, word: t.oneTimeCode },
};

/** Copies a value of an entry by keys, without showing it; each time is a line in the journal. */
export function useQuickCopy() {
  const { copy } = useCopy();
  const [says, setSays] = useState<string | null>(null);
  const onKey = (event: KeyboardEvent, line: { id: string; name: string } | undefined): boolean => {
    const wanted = event.altKey && !event.ctrlKey && !event.metaKey ? FIELDS[event.code] : undefined;
    if (!wanted || !line) return false;
    event.preventDefault();
    void runCommand("vaults.revealField", {
      entryId: line.id,
      field: wanted.field,
      how: "copied",
    }).then(async (answer) => {
      if (!answer.ok)
        return setSays(
          answer.refused.code === "not-found" ? t.hasNone(line.name, wanted.word) : answer.refused.message,
        );
      await copy(answer.result.value, true, wanted.field);
      setSays(t.copied(wanted.word, line.name));
    });
    return true;
  };
  return { says, onKey, clear: () => setSays(null) };
}
