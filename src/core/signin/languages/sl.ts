import type { Language } from "./language";

/** Slovenian. */
export const sl: Language = {
  register: { words: "ustvarite racun" },
  reset: { words: "pozabljeno geslo, ste pozabili geslo" },
  change: { words: "spremeni geslo, novo geslo" },
  new: { words: "novo" },
  password: { words: "geslo, gesla" },
  userName: { words: "uporabnisko ime, uporabnik" },
  email: { words: "e postni( naslov)?" },
  code: { words: "potrditven[ao] koda, enkratna koda" },
  search: { words: "isci" },
  newsletter: { words: "e novice, naroci se" },
  next: { words: "naprej" },
  send: { words: "potrdi, poslji, shrani" },
  remember: { words: "zapomni( si)?( me)?" },
  particulars: { words: "priimek" },
};
