import type { Language } from "./language";

/** Finnish. */
export const fi: Language = {
  signIn: { words: "kirjaudu( sisaan)?, kirjautuminen, sisaan" },
  register: {
    words: `
      luo tili, rekisteroidy, luo tunnus, luo( \\w+)? (tili|tunnus)
    `,
  },
  reset: { words: "unohditko( salasanan)?, salasana unohtunut, palauta salasana, nollaa salasana" },
  change: { words: "vaihda salasana, uusi salasana" },
  confirm: { words: "toista, vahvista" },
  old: { words: "nykyinen, vanha" },
  new: { words: "uusi" },
  password: { words: "salasana" },
  userName: { words: "kayttaja(tunnus|nimi)?, tunnus, asiakasnumero" },
  email: { words: "sahkoposti(osoite)?" },
  phone: { words: "puhelin(numero)?" },
  code: { words: "vahvistuskoodi, kertakayttokoodi, turvakoodi" },
  search: { words: "haku, hae" },
  newsletter: { words: "uutiskirje, tilaa" },
  next: { words: "seuraava, jatka" },
  send: { words: "tallenna, vahvista, paivita" },
  aside: { words: "nayta, piilota, peruuta" },
  remember: { words: "muista( minut)?, pysy kirjautuneena" },
  particulars: { words: "etunimi, sukunimi" },
  otherPurpose: { words: "viesti" },
};
