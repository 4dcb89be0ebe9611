"use client";

import { useEffect } from "react";
import type { HeldPresses } from "./early";

/** Last in the page: says on it that it has taken over, and does what was pressed before. */
export function TakenOver() {
  useEffect(() => {
    const pressed = (window as typeof window & { galtryHeld?: HeldPresses }).galtryHeld?.end();
    // What was typed before is in its fields by then, and forms send.
    const timer = setTimeout(() => {
      document.documentElement.dataset.takenOver = "";
      if (pressed?.isConnected) pressed.click();
    });
    return () => clearTimeout(timer);
  }, []);
  return null;
}
