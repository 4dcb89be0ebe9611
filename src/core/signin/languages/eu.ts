import type { Language } from "./language";

/** Basque. */
export const eu: Language = {
  signIn: { words: "saioa hasi, hasi saioa" },
  register: { words: "erregistratu, sortu( kontua)?" },
  reset: { words: "pasahitza ahaztu, berrezarri( pasahitza)?" },
  change: { words: "aldatu pasahitza, pasahitz berria" },
  confirm: { words: "berretsi" },
  old: { words: "oraingo" },
  new: { words: "berria" },
  password: { words: "pasahitza, pasahitz" },
  userName: { words: "erabiltzaile( izena)?" },
  email: { words: "helbide elektronikoa" },
  code: { words: "egiaztapen kodea" },
  search: { words: "bilatu" },
  newsletter: { words: "harpidetu" },
  next: { words: "hurrengoa" },
  remember: { words: "gogoratu" },
  particulars: { words: "izena, abizenak?" },
};
