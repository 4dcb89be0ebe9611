"use client";

import styled from "styled-components";
import { Dialog } from "../shared/Dialog";

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
      ["/", "find, and sign in"],
      ["?", "this list"],
      ["Escape", "close what lies over the page"],
    ],
  },
  {
    where: "In the finder",
    keys: [
      ["Enter", "sign in to the line that is marked"],
      ["Shift Enter", "open its entry"],
      ["Alt N", "copy the user name of the line that is marked"],
      ["Alt P", "copy its password, without showing it"],
      ["Alt O", "copy its one-time code"],
      ["↓ ↑", "next line, line before"],
      ["Escape", "empty it"],
    ],
  },
  {
    where: "In a vault’s ledger",
    keys: [
      ["↓ ↑", "next row, row before; with Shift the rows between are chosen"],
      ["Space", "choose the row, or no more"],
      ["Ctrl A", "choose all that are shown"],
      ["→ ←", "open the folder, close it"],
      ["Enter", "open the row"],
      ["Alt ↓ ↑", "move the row, in your own order"],
      ["Escape", "choose none"],
    ],
  },
  {
    where: "In the access grid",
    keys: [
      ["↓ ↑ → ←", "next cell; with Shift the cells between are chosen"],
      ["1 2 3 4", "Use, Reveal, Edit, Steward, on the slip"],
      ["B", "Blocked"],
      ["0", "take away what is set there"],
      ["Enter", "level and time of the chosen cells"],
      [".", "the same as last time"],
      ["Delete", "take the cells off the slip"],
      ["Space", "read why it is so"],
    ],
  },
  {
    where: "On a website, with Lanyard",
    keys: [["Alt ↓", "in the user name’s field: open Lanyard’s window with the key that fits"]],
  },
];

export default function KeysSheet({ onClose }: { onClose: () => void }) {
  return (
    <Dialog title="Keys" open onClose={onClose}>
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
