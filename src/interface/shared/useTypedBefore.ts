"use client";

import { type RefObject, useEffect, useSyncExternalStore } from "react";

/**
 * What somebody, or a password manager, typed while the page was still coming: React takes the field over with the
 * text in it, but tells nobody. Told here, once.
 */
export function useTypedBefore(
  field: RefObject<HTMLInputElement | HTMLTextAreaElement | null>,
  value: unknown,
  onText: ((text: string) => void) | undefined,
): void {
  // Asked when the page is taken over, and never again.
  useEffect(() => {
    const typed = field.current?.value ?? "";
    if (typeof value === "string" && typed !== value) onText?.(typed);
  }, []);
}

const never = () => () => undefined;

/** False in the page as the server sent it, true once it is taken over. */
export const useTakenOver = (): boolean =>
  useSyncExternalStore(
    never,
    () => true,
    () => false,
  );
