import type { Language } from "./language";

/** Latvian. */
export const lv: Language = {
  signIn: { words: "pieslegties, ienakt" },
  register: { words: "registreties, izveidot kontu" },
  reset: { words: "aizmirsat paroli, paroles atjaunosana" },
  change: { words: "mainit paroli, jauna parole" },
  confirm: { words: "atkartot" },
  old: { words: "pasreizeja, veca" },
  new: { words: "jauna" },
  password: { words: "parole, paroli" },
  userName: { words: "lietotajvards" },
  email: { words: "e pasta( adrese)?, e pasts" },
  code: { words: "apstiprinajuma kods, vienreizejais kods" },
  search: { words: "meklet" },
  newsletter: { words: "jaunumi, abonet" },
  next: { words: "talak" },
  send: { words: "apstiprinat, nosutit, saglabat" },
  remember: { words: "atceret(ies)?( mani)?" },
  particulars: { words: "vards, uzvards" },
};
