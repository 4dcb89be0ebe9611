"use client";

import styled from "styled-components";
import type { KeyGroup } from "../help/strings";
import { keysSheet as t } from "./strings";

const Listed = styled.dl`
  display: grid;
  grid-template-columns: 112px minmax(0, 1fr);
  gap: 6px 20px;
  margin-bottom: 16px;
  dd { margin: 0; }
  kbd { display: inline-block; min-width: 24px; padding: 0 6px; border: 1px solid var(--edge); border-radius: 3px; font: 13px/20px var(--mono); text-align: center; }
`;

const KEYS: { where: string; group: KeyGroup | null; keys: [keys: string, does: string][] }[] = [
  {
    where: t.anywhere,
    group: null,
    keys: [
      ["/", t.findAndSignIn],
      ["N", t.addAnEntry],
      ["?", t.showThisList],
      ["Escape", t.closeTheDialogOrMenu],
    ],
  },
  {
    where: t.inTheFinder,
    group: "finder",
    keys: [
      ["Enter", t.signInToTheHighlightedLine],
      [t.shiftEnter, t.openItsEntry],
      [t.altN, t.copyTheUserNameOfThe],
      [t.altP, t.copyItsPasswordWithoutShowing],
      [t.altO, t.copyItsOneTimeCode],
      ["↓ ↑", t.nextOrPreviousLine],
      ["Escape", t.clearTheSearch],
    ],
  },
  {
    where: t.inAVaultsLedger,
    group: "ledger",
    keys: [
      ["↓ ↑", t.nextOrPreviousRowHoldShiftTo],
      ["Space", t.selectOrDeselectTheRow],
      [t.ctrlA, t.selectAllRowsShown],
      ["→ ←", t.openOrCloseTheFolder],
      ["Enter", t.openTheRow],
      [t.alt, t.moveTheRowInYourOwnOrder],
      ["Escape", t.clearTheSelection],
    ],
  },
  {
    where: t.inTheAccessGrid,
    group: "grid",
    keys: [
      ["↓ ↑ → ←", t.nextCellHoldShiftToSelectThe],
      ["1 2 3 4", t.addUseRevealEditOrStewardTo],
      ["B", "Blocked"],
      ["0", t.endWhatIsSetDirectlyThere],
      ["Enter", t.setLevelAndDatesOfTheSelected],
      [".", t.repeatTheLastLevelAndDates],
      ["Delete", t.removeTheCellsFromTheSlip],
      ["Space", t.explainWhy],
      ["G", t.unfoldTheGroup],
    ],
  },
  {
    where: t.onAWebsiteWithLanyard,
    group: "lanyard",
    keys: [[t.alt2, t.inTheUserNameFieldOpenLanyard]],
  },
];

/** Every key there is; those of the page one is on first. */
export function KeyLists({ first }: { first: KeyGroup | null }) {
  const own = KEYS.filter(({ group }) => group !== null && group === first);
  const others = KEYS.filter((one) => !own.includes(one));
  return (
    <>
      <h3>{t.keyboardShortcuts}</h3>
      {[...own, ...others].map(({ where, keys }) => (
        <section key={where}>
          <h4 style={{ marginBottom: 6 }}>{where}</h4>
          <Listed>
            {keys.map(([pressed, does]) => (
              <div key={pressed} style={{ display: "contents" }}>
                <dt>
                  <kbd>{pressed}</kbd>
                </dt>
                <dd>{does}</dd>
              </div>
            ))}
          </Listed>
        </section>
      ))}
    </>
  );
}
