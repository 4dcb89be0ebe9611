"use client";

import styled from "styled-components";
import { Dialog } from "../shared/Dialog";
import { keysSheet as t } from "./strings";

const Listed = styled.dl`
  display: grid;
  grid-template-columns: 112px minmax(0, 1fr);
  gap: 6px 20px;
  margin-bottom: 16px;
  dd { margin: 0; }
  kbd { display: inline-block; min-width: 24px; padding: 0 6px; border: 1px solid var(--edge); border-radius: 3px; font: 13px/20px var(--mono); text-align: center; }
`;

const KEYS: { where: string; keys: [keys: string, does: string][] }[] = [
  {
    where: "Anywhere",
    keys: [
      ["/", t.findAndSignIn],
      ["?", t.thisList],
      ["Escape", t.closeWhatLiesOverThePage],
    ],
  },
  {
    where: t.inTheFinder,
    keys: [
      ["Enter", t.signInToTheLineThat],
      [t.shiftEnter, t.openItsEntry],
      [t.altN, t.copyTheUserNameOfThe],
      [t.altP, t.copyItsPasswordWithoutShowing],
      [t.altO, t.copyItsOneTimeCode],
      ["↓ ↑", t.nextLineLineBefore],
      ["Escape", t.emptyIt],
    ],
  },
  {
    where: t.inAVaultsLedger,
    keys: [
      ["↓ ↑", t.nextRowRowBeforeWithShift],
      ["Space", t.chooseTheRowOrNoMore],
      [t.ctrlA, t.chooseAllThatAreShown],
      ["→ ←", t.openTheFolderCloseIt],
      ["Enter", t.openTheRow],
      [t.alt, t.moveTheRowInYourOwn],
      ["Escape", t.chooseNone],
    ],
  },
  {
    where: t.inTheAccessGrid,
    keys: [
      ["↓ ↑ → ←", t.nextCellWithShiftTheCells],
      ["1 2 3 4", t.useRevealEditStewardOnThe],
      ["B", "Blocked"],
      ["0", t.takeAwayWhatIsSetThere],
      ["Enter", t.levelAndTimeOfTheChosen],
      [".", t.theSameAsLastTime],
      ["Delete", t.takeTheCellsOffTheSlip],
      ["Space", t.readWhyItIsSo],
    ],
  },
  {
    where: t.onAWebsiteWithLanyard,
    keys: [[t.alt2, t.inTheUserNamesFieldOpen]],
  },
];

export default function KeysSheet({ onClose }: { onClose: () => void }) {
  return (
    <Dialog title={t.keys} open onClose={onClose}>
      {KEYS.map(({ where, keys }) => (
        <section key={where}>
          <h3 style={{ marginBottom: 6 }}>{where}</h3>
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
    </Dialog>
  );
}
