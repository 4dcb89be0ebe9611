import type { Language } from "./language";

/** Georgian. */
export const ka: Language = {
  signIn: { parts: "შესვლა" },
  register: { parts: "რეგისტრაცია" },
  password: { parts: "პაროლი" },
  userName: { parts: "მომხმარებელი" },
  email: { parts: "ელფოსტა" },
};
