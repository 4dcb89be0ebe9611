import type { Language } from "./language";

/** Czech. */
export const cs: Language = {
  signIn: { words: "prihlasit( se| sa)?, prihlaseni, prihlaste" },
  register: {
    words: `
      registrovat( se| sa)?, registrace, vytvorit( si)? ucet, zalozit ucet, zaregistrovat( se| sa)?,
      zalozte( si)? ucet
    `,
  },
  reset: { words: "zapomenute heslo, obnovit heslo, obnova hesla, obnoveni hesla, zapomneli jste heslo" },
  change: { words: "(zmenit|zmena) (heslo|hesla), nove heslo" },
  confirm: { words: "zopakovat, potvrdit, potvrzeni, znovu, opakovat, zopakujte" },
  old: { words: "soucasne" },
  new: { words: "nove, novou" },
  password: { words: "heslo, hesla" },
  userName: { words: "uzivatel(ske jmeno)?, uzivatelske, prihlasovaci( jmeno)?, zakaznicke cislo" },
  email: { words: "emailova adresa, e mailova( adresa)?" },
  code: { words: "overovaci kod, jednorazovy kod" },
  search: { words: "hledat, vyhledavani" },
  newsletter: { words: "odebirat, novinky" },
  next: { words: "dalsi, pokracovat" },
  send: { words: "odeslat, ulozit, potvrdit, overit, poslat, aktualizovat" },
  aside: { words: "zobrazit, skryt, zrusit, zpet" },
  remember: { words: "zapamatovat( si)?( me)?, zustat prihlasen" },
  particulars: { words: "jmeno( a prijmeni)?, prijmeni" },
  otherPurpose: { words: "zprava" },
};
