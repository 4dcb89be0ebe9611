import type { Language } from "./language";

/** Kazakh. */
export const kk: Language = {
  signIn: { parts: "кіру" },
  password: { parts: "құпия" },
};
