"use client";

import { useEffect, useState } from "react";

/** “1:42”, once a second until it is over; null then. @param until milliseconds since 1970 */
export function useLeft(until: number): string | null {
  const [now, setNow] = useState(() => Date.now());
  useEffect(() => {
    const timer = setInterval(() => setNow(Date.now()), 1_000);
    return () => clearInterval(timer);
  }, []);
  return sayLeft(until - now);
}

export function sayLeft(ms: number): string | null {
  const seconds = Math.ceil(ms / 1_000);
  if (seconds <= 0) return null;
  return `${Math.floor(seconds / 60)}:${String(seconds % 60).padStart(2, "0")}`;
}
