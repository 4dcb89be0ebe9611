import type { Language } from "./language";

/** Lithuanian. */
export const lt: Language = {
  signIn: { words: "prisijungti, prisijungimas" },
  register: { words: "registruotis, sukurti paskyra" },
  reset: { words: "pamirsote slaptazodi, slaptazodzio atkurimas" },
  change: { words: "keisti slaptazodi, naujas slaptazodis" },
  confirm: { words: "pakartokite" },
  old: { words: "dabartinis, senas" },
  new: { words: "naujas" },
  password: { words: "slaptazodis" },
  userName: { words: "vartotojo vardas, vartotojas, prisijungimo vardas" },
  email: { words: "el pasto( adresas)?, el pastas" },
  code: { words: "patvirtinimo kodas, vienkartinis kodas" },
  search: { words: "ieskoti" },
  newsletter: { words: "naujienlaiskis, prenumeruoti" },
  next: { words: "toliau" },
  send: { words: "patvirtinti, siusti, issaugoti" },
  remember: { words: "prisiminti( mane)?" },
  particulars: { words: "vardas, pavarde" },
};
