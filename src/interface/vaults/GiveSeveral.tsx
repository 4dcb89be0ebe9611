"use client";

import { useEffect, useState } from "react";
import type { LedgerRow } from "@/server/vaults/vaults";
import { loadSubjects, type SubjectChoice } from "../entry/subjects";
import { TermsDialog } from "../entry/TermsDialog";
import { runQuery } from "../shared/ask";
import { Dialog } from "../shared/Dialog";
import type { Step } from "../shared/Done";
import { Picker } from "../shared/Picker";

interface GiveProps {
  rows: LedgerRow[];
  onClose: () => void;
  onDone: (says: string, undo: Step[]) => void;
}

/** One grant on each of several, by the same command as on one. */
export function GiveSeveral({ rows, onClose, onDone }: GiveProps) {
  const [to, setTo] = useState<SubjectChoice | null>(null);
  const [zone, setZone] = useState<string | null>(null);
  const what = rows.length === 1 ? rows[0]!.name : `${rows.length} things`;
  useEffect(() => {
    void runQuery<{ timeZone: string } | null>("people.organisation", {}).then((answer) =>
      setZone((answer.ok && answer.result?.timeZone) || "UTC"),
    );
  }, []);
  if (to && zone)
    return (
      <TermsDialog
        title={`Give access to ${to.name}`}
        nodeWord={what}
        start={{ level: "use", from: null, until: null, why: "" }}
        zone={zone}
        onClose={onClose}
        nodeIds={rows.map((row) => row.id)}
        subject={to.kind === "everyone" ? { kind: "everyone" } : { kind: to.kind, id: to.id }}
        verb="Give access"
        onGiven={(grantIds, refused) =>
          onDone(
            `${to.name} was given access to ${
              grantIds.length === rows.length
                ? what
                : `${grantIds.length} of ${what}${refused === null ? "; the others had it already" : ""}`
            }.${refused === null ? "" : ` Not to the others: ${refused}`}`,
            grantIds.map((grantId) => ({ command: "access.withdraw", input: { grantId } })),
          )
        }
      />
    );
  return (
    <Dialog title={`Give access to ${what}`} open onClose={onClose}>
      <Picker<SubjectChoice>
        label="To whom"
        seen
        placeholder="a person, a group, Everyone"
        list="People and groups"
        nothing="Nobody of that name is here."
        load={loadSubjects}
        searches
        onPick={setTo}
      />
    </Dialog>
  );
}
