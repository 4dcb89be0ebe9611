import type { Language } from "./language";

/** Armenian. */
export const hy: Language = {
  signIn: { parts: "մուտք" },
  register: { parts: "գրանցվել" },
  reset: { parts: "պաշտպանված" },
  password: { parts: "գաղտնաբառ" },
  userName: { parts: "օգտանուն" },
};
