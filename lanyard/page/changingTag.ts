/** Beside the pages of a site while its password is changed by hand. It shows neither password: pages can be looked at. */
import type { ChangingView } from "../shared/messages";
import { changingTag as t } from "./strings";
import { type Ask, element, hangLarge, pressed } from "./tags";

let tag: HTMLElement | null = null;

type Wrong = { wrong: string | null };

const SAYS: Record<ChangingView["state"], string> = {
  looking: t.openItsPage,
  "asks-current": t.asksForCurrent,
  "asks-new": t.fillsInBoth,
  filled: t.filledIn,
  "asks-again": t.asksAgain,
  sent: t.hasItAccepted,
};

export function hangChanging({ name, state }: ChangingView, ask: Ask): void {
  tag?.remove();
  const { host, face } = hangLarge("dialog", t.changeThePassword);
  tag = host;
  const close = () => {
    host.remove();
    tag = null;
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
      const answer = await ask<Wrong>({ ask: "fill-change", another });
      made.removeAttribute("disabled");
      if (answer?.wrong !== null) wrong.textContent = answer?.wrong ?? t.notDone;
      else if (state !== "asks-current") hangChanging({ name, state: "filled" }, ask);
      else wrong.textContent = "";
    });
    return made;
  };
  const end = (word: string, look: string, keep: "new" | "old" | null) =>
    button(word, look, async () => {
      const answer = await ask<Wrong>({ ask: "end-change", keep });
      if (answer?.wrong !== null) {
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
