"use client";

import { useCallback, useEffect, useRef, useState } from "react";
import { copiedSomethingElse, copySecret } from "./clipboard";

/** Copies open text as it is; a secret leaves the clipboard again after 30 seconds, whatever page one is on by then. */
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
    if (timer.current) clearTimeout(timer.current);
    const end = () => setCopied(null);
    if (secret) await copySecret(text, end);
    else {
      await navigator.clipboard.writeText(text);
      copiedSomethingElse();
      timer.current = setTimeout(end, 2_000);
    }
    setCopied(label);
  }, []);
  return { copy, copied };
}
