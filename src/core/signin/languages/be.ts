import type { Language } from "./language";

/** Belarusian. */
export const be: Language = {
  signIn: { parts: "увайсці" },
  register: { parts: "рэгістрацыя" },
  reset: { parts: "забыўся" },
};
