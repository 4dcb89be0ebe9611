import type { Language } from "./language";

/** Hungarian. */
export const hu: Language = {
  signIn: { words: "bejelentkezes, belepes, bejelentkezem" },
  register: { words: "regisztracio, regisztralok, fiok letrehozasa" },
  reset: {
    words: `
      elfelejtett jelszo, jelszo (visszaallitasa|emlekezteto), uj jelszo kerese, elfelejtette( a)?( jelszavat)?
    `,
  },
  change: { words: "jelszo (modositasa|megvaltoztatasa|csere), uj jelszo" },
  confirm: { words: "megerosites, ismet, ujra" },
  old: { words: "jelenlegi, regi" },
  new: { words: "uj" },
  password: { words: "jelszo" },
  userName: { words: "felhasznalo(nev)?" },
  code: { words: "ellenorzo kod, egyszer hasznalatos" },
  search: { words: "kereses" },
  newsletter: { words: "hirlevel, feliratkozas" },
  next: { words: "kovetkezo, tovabb" },
  send: { words: "kuldes, mentes, frissites" },
  remember: { words: "emlekezz( ram)?, maradjak bejelentkezve" },
  particulars: { words: "keresztnev, vezeteknev" },
  otherPurpose: { words: "uzenet" },
};
