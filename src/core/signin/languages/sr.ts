import type { Language } from "./language";

/** Serbian and Macedonian in Cyrillic letters. */
export const sr: Language = {
  signIn: { parts: "пријава, пријави се, најави се" },
  register: { parts: "региструј, направите налог, регистрирај се" },
  reset: { parts: "заборавили сте, ресетовање, ресетуј, заборавена лозинка" },
  change: { parts: "промени лозинк" },
  confirm: { parts: "поновите, потврдите лозинк" },
  old: { parts: "тренутна, сегашна" },
  userName: { parts: "корисничко" },
  email: { parts: "имејл" },
  code: { parts: "код за потврду, код из поруке" },
  search: { parts: "претрага, пребарај" },
  newsletter: { parts: "билтен, претплати" },
  next: { parts: "даље" },
  remember: { parts: "упамти" },
  particulars: { parts: "презиме" },
};
