import type { Language } from "./language";

/** Bengali. */
export const bn: Language = {
  signIn: { parts: "সাইন ইন" },
};
