import type { Language } from "./language";

/** Catalan. */
export const ca: Language = {
  signIn: { words: "iniciar sessio, inicia sessio, inicia la sessio" },
  register: { words: "registra t, crea un compte" },
  reset: { words: "has oblidat( la)? contrasenya, restableix( la)? contrasenya, recupera( la)? contrasenya" },
  change: { words: "canvia( la)? contrasenya, contrasenya nova" },
  confirm: { words: "confirma la contrasenya, repeteix" },
  password: { words: "contrasenya" },
  userName: { words: "usuari, nom d usuari" },
  email: { words: "correu( electronic)?" },
  code: { words: "codi( de)? (verificacio|seguretat)" },
  search: { words: "leita" },
  newsletter: { words: "butlleti, subscriu te" },
  next: { words: "seguent" },
  send: { words: "desa, envia" },
  remember: { words: "recorda m" },
  particulars: { words: "cognoms" },
};
