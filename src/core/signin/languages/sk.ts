import type { Language } from "./language";

/** Slovak. */
export const sk: Language = {
  signIn: { words: "prihlasenie" },
  register: { words: "registracia, vytvorte( si)? ucet" },
  reset: { words: "zabudnute heslo, zabudli ste heslo" },
  old: { words: "sucasne" },
  userName: { words: "pouzivatel(ske meno)?, pouzivatelske" },
  search: { words: "hladat" },
  newsletter: { words: "odoberat" },
  next: { words: "dalsie" },
  send: { words: "odoslat" },
  remember: { words: "zapamatat( si)?( ma)?, ostat prihlaseny" },
  particulars: { words: "meno, priezvisko" },
};
