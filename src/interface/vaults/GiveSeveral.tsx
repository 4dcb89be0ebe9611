"use client";

import { useEffect, useState } from "react";
import type { LedgerRow } from "@/server/vaults/vaults";
import { loadSubjects, type SubjectChoice } from "../entry/subjects";
import { TermsDialog } from "../entry/TermsDialog";
import { runQuery } from "../shared/ask";
import { Dialog } from "../shared/Dialog";
import type { Step } from "../shared/Done";
import { Picker } from "../shared/Picker";
import { giveSeveral as t } from "./strings";

interface GiveProps {
  rows: LedgerRow[];
  onClose: () => void;
  onDone: (says: string, undo: Step[]) => void;
}

/** One grant on each of several, by the same command as on one. */
export function GiveSeveral({ rows, onClose, onDone }: GiveProps) {
  const [to, setTo] = useState<SubjectChoice | null>(null);
  const [zone, setZone] = useState<string | null>(null);
  const what = rows.length === 1 ? rows[0]!.name : t.entriesAndFolders(rows.length);
  useEffect(() => {
    void runQuery("people.organisationQuery", {}).then((answer) =>
      setZone((answer.ok && answer.result?.timeZone) || "UTC"),
    );
  }, []);
  if (to && zone)
    return (
      <TermsDialog
        title={t.giveAccessTo(to.name)}
        nodeWord={what}
        start={{ level: "use", from: null, until: null, why: "" }}
        zone={zone}
        onClose={onClose}
        nodeIds={rows.map((row) => row.id)}
        subject={to.kind === "everyone" ? { kind: "everyone" } : { kind: to.kind, id: to.id }}
        verb={t.giveAccess}
        onGiven={(grantIds, refused) =>
          onDone(
            t.wasGivenAccessTo(
              to.name,
              grantIds.length === rows.length
                ? what
                : t.ofWord(grantIds.length, what, refused === null ? t.theOthersAlreadyHadIt : ""),
              refused === null ? "" : t.notToTheOthers(refused),
            ),
            grantIds.map((grantId) => ({ command: "access.endAccess", input: { grantId } })),
          )
        }
      />
    );
  return (
    <Dialog title={t.giveAccessTo2(what)} open onClose={onClose}>
      <Picker<SubjectChoice>
        label={t.to}
        seen
        placeholder={t.aPersonAGroupOrEveryone}
        list={t.peopleAndGroups}
        nothing={t.noMatchTryPartOfTheName}
        load={loadSubjects}
        searches
        onPick={setTo}
      />
    </Dialog>
  );
}
