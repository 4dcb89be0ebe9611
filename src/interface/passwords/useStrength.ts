import { useEffect, useState } from "react";
import type { Strength } from "@/core/generator/strengthWords";
import { ratePassword } from "./ask";

/** After the last key, in milliseconds: nobody wants to be judged letter by letter. */
const PAUSE_MS = 250;

/** What is typed, rated in the worker once typing rests; null before, and of nothing. */
export function useStrength(text: string, hints: readonly string[]): Strength | null {
  const [strength, setStrength] = useState<Strength | null>(null);
  const known = hints.join("\n");
  useEffect(() => {
    if (text === "") return setStrength(null);
    let current = true;
    const timer = setTimeout(() => {
      void ratePassword(text, known.split("\n")).then((answer) => {
        if (current) setStrength(answer.answer);
      });
    }, PAUSE_MS);
    return () => {
      current = false;
      clearTimeout(timer);
    };
  }, [text, known]);
  return strength;
}
