"use client";

import { useCommand } from "../shared/ask";
import { Act } from "../shared/controls";
import { Fact } from "./Card";
import type { EntryView } from "./types";

/** Whether staff who cannot use it may know of it and ask for it: for its steward to say. */
export function Listed({ entry }: { entry: EntryView }) {
  const list = useCommand("access.setListed");
  return (
    <Fact
      label="Who may know of it"
      act={
        <Act
          isDisabled={list.running}
          onPress={() => list.run({ entryId: entry.id, listed: !entry.listed })}
          aria-label={entry.listed ? "Unlist it" : "List it for all staff"}
        >
          {entry.listed ? "Unlist" : "List"}
        </Act>
      }
    >
      {entry.listed
        ? "listed: all staff find its name, site and stewards, and can ask for it"
        : "whoever can use it, and nobody else"}
      {list.wrong() && (
        <span role="alert" className="small" style={{ display: "block", color: "var(--crimson)" }}>
          {list.wrong()}
        </span>
      )}
    </Fact>
  );
}
