"use client";

import { useCallback, useEffect, useRef, useState } from "react";

const CLEAR_MS = 30_000;

/** Copies open text as it is; a secret leaves the clipboard again after 30 seconds. */
export function useCopy() {
  const [copied, setCopied] = useState<string | null>(null);
  const timer = useRef<ReturnType<typeof setTimeout> | null>(null);
  useEffect(
    () => () => {
      if (timer.current) clearTimeout(timer.current);
    },
    [],
  );
  const copy = useCallback(async (text: string, secret = false, label = text) => {
    await navigator.clipboard.writeText(text);
    setCopied(label);
    if (timer.current) clearTimeout(timer.current);
    timer.current = setTimeout(
      () => {
        setCopied(null);
        // Only what is still ours: reading may be refused, then it is overwritten all the same.
        if (secret) void navigator.clipboard.writeText("").catch(() => undefined);
      },
      secret ? CLEAR_MS : 2_000,
    );
  }, []);
  return { copy, copied };
}
