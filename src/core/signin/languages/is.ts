import type { Language } from "./language";

/** Icelandic. */
export const icelandic: Language = {
  signIn: { words: "innskraning, skra inn, innskra( mig)?" },
  register: { words: "nyskraning, stofna adgang" },
  reset: { words: "gleymt lykilord, endurstilla( lykilord)?" },
  change: { words: "breyta lykilordi, nytt lykilord" },
  confirm: { words: "stadfesta" },
  old: { words: "nuverandi, gamla" },
  password: { words: "lykilord, lykilordi?" },
  userName: { words: "notandanafn" },
  email: { words: "netfang" },
  code: { words: "stadfestingarkodi, oryggiskodi" },
  newsletter: { words: "frettabref, gerast askrifandi" },
  next: { words: "afram" },
  send: { words: "stadfesta, senda, vista" },
  remember: { words: "muna mig" },
  particulars: { words: "nafn, fornafn, eftirnafn" },
};
