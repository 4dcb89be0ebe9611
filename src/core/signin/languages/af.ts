import type { Language } from "./language";

/** Afrikaans. */
export const af: Language = {
  signIn: { words: "teken in" },
  register: { words: "skep( n)? rekening" },
  reset: { words: "wagwoord vergeet, herstel( jou)? wagwoord" },
  change: { words: "verander wagwoord, nuwe wagwoord" },
  confirm: { words: "bevestig" },
  old: { words: "huidige" },
  new: { words: "nuwe" },
  password: { words: "wagwoord" },
  email: { words: "e pos( ?adres)?, e posadres" },
  code: { words: "verifikasiekode, kode in wat" },
  search: { words: "soek" },
  newsletter: { words: "nuusbrief, teken in op" },
};
