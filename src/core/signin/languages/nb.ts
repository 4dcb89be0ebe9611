import type { Language } from "./language";

/** Norwegian. */
export const nb: Language = {
  signIn: { words: "logg inn, logg pa, innlogging" },
  register: {
    words: `
      opprett( en)? (konto|bruker|profil), registrer( deg| dig)?,
      (opprett|lag)( \\w+)?( \\w+)? (bruker|konto|profil)
    `,
  },
  reset: { words: "tilbakestill( passord)?" },
  change: { words: "nytt passord, (bytt|endre) passord, opprett nytt passord" },
  confirm: { words: "gjenta, bekreft" },
  old: { words: "navaerende" },
  new: { words: "nytt" },
  password: { words: "passord" },
  userName: { words: "bruker(navn|id)?" },
  code: { words: "bekreftelseskode, verifiserw*kode" },
  next: { words: "neste" },
  send: { words: "lagre, bekreft, oppdater" },
  aside: { words: "vis, skjul" },
  remember: { words: "forbliv logget (ind|pa), hold meg innlogget" },
  particulars: { words: "fornavn, etternavn" },
};
