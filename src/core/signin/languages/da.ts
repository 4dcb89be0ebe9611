import type { Language } from "./language";

/** Danish. */
export const da: Language = {
  signIn: { words: "log ind" },
  register: {
    words: `
      opret( en)? (konto|profil|bruger), ny bruger, opret( \\w+)?( \\w+)? (konto|bruger|profil)
    `,
  },
  reset: { words: "glemt( din| dit)? (adgangskode|kodeord|passord), nulstil( adgangskode)?" },
  change: { words: "(skift|aendr|andr) (adgangskode|kodeord), ny adgangskode" },
  confirm: { words: "gentag" },
  old: { words: "nuvaerende, gammel, gammelt" },
  new: { words: "ny" },
  password: { words: "adgangskode, kodeord" },
  userName: { words: "bruger(navn|id)?, kundenummer" },
  code: { words: "bekraeftelseskode" },
  search: { words: "sog" },
  newsletter: { words: "nyhedsbrev, tilmeld( nyhedsbrev)?" },
  next: { words: "naeste, fortsaet" },
  send: { words: "gem, bekraeft, opdater" },
  aside: { words: "annuller" },
  remember: { words: "husk( mig| meg)?" },
  particulars: { words: "efternavn" },
};
