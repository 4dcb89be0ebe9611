"use client";

import { findSubjects, type SubjectChoice } from "../entry/subjects";
import { useCommand } from "../shared/ask";
import { Dialog } from "../shared/Dialog";
import { useDone } from "../shared/Done";
import { Picker } from "../shared/Picker";
import { slipFoot as t } from "./strings";

const findStaff = findSubjects("staff");

/** To whom else: they read it as far as they are steward, and say something. */
export function ShowSlip({ me, onClose }: { me: string; onClose: () => void }) {
  const show = useCommand("access.askSecondOpinion");
  const done = useDone();
  const load = async (typed: string): Promise<SubjectChoice[] | null> =>
    (await findStaff(typed))?.filter(({ id }) => id !== me) ?? null;
  return (
    <Dialog title={t.askForASecondOpinion} open onClose={onClose}>
      <p style={{ marginBottom: 12 }}>{t.theySeeItsEffectsWhereTheyAre}</p>
      <Picker<SubjectChoice>
        label={t.colleague}
        seen
        placeholder={t.aNameOrAnEmailAddress}
        list={t.people}
        nothing={t.noMatchTryPartOfTheName}
        load={load}
        searches
        onPick={async ({ id, name }) => {
          if (!(await show.run({ personId: id })).ok) return;
          done(t.hasBeenAskedForASecondOpinion(name));
          onClose();
        }}
      />
      {show.refused && (
        <p role="alert" style={{ color: "var(--crimson)", fontWeight: 600 }}>
          {show.refused.message}
        </p>
      )}
    </Dialog>
  );
}
