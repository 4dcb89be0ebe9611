import { useSyncExternalStore } from "react";

const NARROW = "(max-width: 719px)";

/** A phone: one thing beside the other no longer fits. */
export const useNarrow = (): boolean =>
  useSyncExternalStore(
    (heard) => {
      const query = matchMedia(NARROW);
      query.addEventListener("change", heard);
      return () => query.removeEventListener("change", heard);
    },
    () => matchMedia(NARROW).matches,
    () => false,
  );
