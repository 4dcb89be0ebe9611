"use client";

import { useCommand } from "../shared/ask";
import { Act } from "../shared/controls";
import { Fact } from "./Card";
import type { EntryView } from "./types";
import { listed as t } from "./strings";

/** Whether staff who cannot use it may know of it and ask for it: for its steward to say. */
export function Listed({ entry }: { entry: EntryView }) {
  const list = useCommand("access.setListed");
  return (
    <Fact
      label={t.whoMayKnowOfIt}
      act={
        <Act
          isDisabled={list.running}
          onPress={() => list.run({ entryId: entry.id, listed: !entry.listed })}
          aria-label={entry.listed ? t.unlistIt : t.listItForAllStaff}
        >
          {entry.listed ? t.unlist : t.list}
        </Act>
      }
    >
      {entry.listed ? t.listedAllStaffFindItsName : t.whoeverCanUseItAndNobody}
      {list.wrong() && (
        <span role="alert" className="small" style={{ display: "block", color: "var(--crimson)" }}>
          {list.wrong()}
        </span>
      )}
    </Fact>
  );
}
