import type { Language } from "./language";

/** Romanian. */
export const ro: Language = {
  signIn: { words: "autentificare, conectare, intra in cont" },
  register: { words: "inregistrare, creare cont, creeaza( un)? cont, cont nou" },
  reset: { words: "ai uitat parola, resetare parola, recuperare parola, ati uitat parola" },
  change: { words: "schimba(re|ti)? parola, parola noua" },
  confirm: { words: "confirma, repeta" },
  old: { words: "actuala, veche" },
  new: { words: "noua" },
  password: { words: "parola" },
  userName: { words: "utilizator, nume( de)? utilizator, nume de utilizator" },
  email: { words: "adresa de e ?mail, adresa de email" },
  code: { words: "cod( de)? (verificare|securitate)" },
  search: { words: "cauta(re)?" },
  newsletter: { words: "abonare, buletin" },
  next: { words: "urmatorul, mai departe, continuati" },
  send: { words: "trimite, confirma" },
  remember: { words: "tine( ma)? minte, ramai conectat" },
  particulars: { words: "prenume, nume" },
};
