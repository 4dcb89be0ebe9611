import type { Language } from "./language";

/** Estonian. */
export const et: Language = {
  signIn: { words: "sisselogimine, logi sisse, logi" },
  register: { words: "registreeru, loo konto" },
  reset: { words: "unustasid parooli, parooli (taastamine|lahtestamine)" },
  change: { words: "muuda parooli, uus parool" },
  confirm: { words: "korda" },
  old: { words: "praegune, vana" },
  new: { words: "uus" },
  password: { words: "parool, parooli" },
  userName: { words: "kasutajanimi, kasutaja" },
  email: { words: "e posti( aadress)?" },
  code: { words: "kinnituskood, uhekordne kood" },
  search: { words: "otsi" },
  newsletter: { words: "uudiskiri, telli" },
  next: { words: "edasi" },
  send: { words: "kinnita, saada, salvesta" },
  remember: { words: "jata mind meelde" },
  particulars: { words: "eesnimi, perekonnanimi" },
};
