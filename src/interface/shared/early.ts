/**
 * Stands in the page before everything else: a press on a button before the page has taken over is kept, and done once
 * it has (`TakenOver`). The last one counts; a press elsewhere takes it back. A press that begins before and ends after
 * is done as well: what handles presses has not seen it begin and would let it go.
 */
export const EARLY_PRESSES = `(() => {
  const button = (event) => event.target.closest("button, [role=button]");
  let [over, begun, pressed] = [false, null, null];
  const leave = () => {
    removeEventListener("pointerdown", begins, true);
    removeEventListener("click", ends, true);
  };
  const begins = (event) => {
    if (over) leave();
    else begun = button(event);
  };
  const ends = (event) => {
    if (!event.isTrusted) return;
    const at = button(event);
    if (!over) {
      pressed = at;
      begun = null;
      return;
    }
    leave();
    if (at && at === begun && at.hasAttribute("data-react-aria-pressable")) at.click();
  };
  addEventListener("pointerdown", begins, true);
  addEventListener("click", ends, true);
  window.galtryHeld = {
    end: () => {
      over = true;
      if (!begun) leave();
      return pressed;
    },
  };
})();`;

export interface HeldPresses {
  /** The page has taken over; gives the button that was pressed last, if any. */
  end: () => HTMLElement | null;
}
