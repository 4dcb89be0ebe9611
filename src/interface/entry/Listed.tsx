"use client";

import { useCommand } from "../shared/ask";
import { Act } from "../shared/controls";
import { Fact } from "./Card";
import { listed as t } from "./strings";
import type { EntryView } from "./types";

/** Whether staff who cannot use it may know of it and ask for it: for its steward to say. */
export function Listed({ entry }: { entry: EntryView }) {
  const list = useCommand("access.setListed");
  return (
    <Fact
      label={t.whoCanFindIt}
      act={
        <Act
          isDisabled={list.running}
          onPress={() => list.run({ entryId: entry.id, listed: !entry.listed })}
          aria-label={entry.listed ? t.stopListingIt : t.listItForAllStaff}
        >
          {entry.listed ? t.stopListing : t.listForAllStaff}
        </Act>
      }
    >
      {entry.listed ? t.allStaffFindItsNameSiteAnd : t.onlyPeopleWithAccess}
      {list.wrong() && (
        <span role="alert" className="small" style={{ display: "block", color: "var(--crimson)" }}>
          {list.wrong()}
        </span>
      )}
    </Fact>
  );
}
