/** Beside the pages of a site while its password is changed by hand. It shows neither password: pages can be looked at. */
import type { ChangingView } from "../shared/messages";
import { changingTag as t } from "./strings";
import { type Ask, element, hangLarge, pressed } from "./tags";

let tag: HTMLElement | null = null;
/** What it shows; `asked` while an answer is awaited, `over` once it says how it ended: neither gives way to an older view. */
let shown: ChangingView["state"] | "asked" | "over" | null = null;

type Wrong = { wrong: string | null };

const SAYS: Record<ChangingView["state"], string> = {
  looking: t.openItsPage,
  "asks-current": t.asksForCurrent,
  "asks-new": t.fillsInBoth,
  filled: t.filledIn,
  "asks-again": t.asksAgain,
  sent: t.hasItAccepted,
};

/** @param view null where none is under way in this tab any more */
export function hangChanging(view: ChangingView | null, ask: Ask): void {
  const stays = shown === "asked" || shown === "over" || shown === view?.state;
  if (tag?.isConnected && stays) return;
  tag?.remove();
  tag = null;
  shown = null;
  if (view) hang(view, ask);
}

function hang({ name, state }: ChangingView, ask: Ask): void {
  shown = state;
  const { host, face } = hangLarge("dialog", t.changeThePassword);
  tag = host;
  const close = () => {
    host.remove();
    tag = null;
    shown = null;
  };
  const wrong = element("p", { class: "small wrong", role: "alert" });
  const button = (word: string, look: string, act: () => unknown) => {
    const made = element("button", { class: look, type: "button" }, word);
    pressed(made, act);
    return made;
  };
  const fill = (word: string, look: string, another = false) => {
    const made = button(word, look, async () => {
      made.setAttribute("disabled", "");
      shown = "asked";
      const answer = await ask<Wrong>({ ask: "fill-change", another });
      shown = state;
      made.removeAttribute("disabled");
      if (answer?.wrong !== null) wrong.textContent = answer?.wrong ?? t.notDone;
      else if (state !== "asks-current") hangChanging({ name, state: "filled" }, ask);
      else wrong.textContent = "";
    });
    return made;
  };
  const end = (word: string, look: string, keep: "new" | "old" | null) =>
    button(word, look, async () => {
      shown = "asked";
      const answer = await ask<Wrong>({ ask: "end-change", keep });
      shown = "over";
      if (answer?.wrong !== null) {
        shown = state;
        wrong.textContent = answer?.wrong ?? t.notDone;
        return;
      }
      if (keep === null) return close();
      face.replaceChildren(
        element("p", { role: "status" }, keep === "new" ? t.newStands : t.oldStands),
        element("div", { class: "do" }, button(t.close, "btn", close)),
      );
    });
  const decide = [end(t.useNew, "btn go", "new"), end(t.keepOld, "btn", "old"), end(t.decideLater, "act", null)];
  const acts: Record<ChangingView["state"], HTMLElement[]> = {
    looking: [end(t.cancel, "btn", null)],
    "asks-current": [fill(t.fillIn, "btn go"), end(t.cancel, "btn", null)],
    "asks-new": [fill(t.fillIn, "btn go"), end(t.cancel, "btn", null)],
    filled: [fill(t.fillInAgain, "btn"), end(t.decideLater, "act", null)],
    "asks-again": [
      fill(t.fillInAnother, "btn go", true),
      fill(t.fillInAgain, "btn"),
      end(t.useNew, "btn", "new"),
      end(t.keepOld, "btn", "old"),
    ],
    sent: decide,
  };
  face.append(
    element("p", { class: "lead" }, t.changing, element("b", {}, name)),
    element("p", { class: "small" }, SAYS[state]),
    element("div", { class: "do" }, ...acts[state]),
    wrong,
  );
}
