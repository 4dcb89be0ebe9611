import type { Language } from "./language";

/** Croatian, Bosnian and Serbian in Latin letters. */
export const hr: Language = {
  signIn: { words: "prijava, prijavi se, prijavite se, uloguj se, ulogujte se" },
  register: { words: "registracija, registriraj se, otvorite racun" },
  reset: { words: "zaboravljena lozinka, zaboravili ste lozinku" },
  change: { words: "nova lozinka, promijeni lozinku" },
  confirm: { words: "ponovite, ponovno" },
  old: { words: "trenutn[ao], star[ao]" },
  password: { words: "lozinka, lozinku" },
  userName: { words: "korisnicko ime, korisnik" },
  code: { words: "kontrolni kod, jednokratni kod" },
  search: { words: "trazi, pretraga, traziti" },
  newsletter: { words: "pretplati se" },
  next: { words: "dalje, nastavi" },
  send: { words: "potvrdi, posalji, spremi" },
  remember: { words: "zapamti( me)?" },
  particulars: { words: "ime, prezime" },
};
