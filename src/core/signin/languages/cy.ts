import type { Language } from "./language";

/** Welsh. */
export const cy: Language = {
  signIn: { words: "mewngofnodi" },
  register: { words: "cofrestru, creu cyfrif" },
  reset: { words: "wedi anghofio( ch)?( cyfrinair)?, ailosod( cyfrinair)?" },
  change: { words: "newid cyfrinair, cyfrinair newydd" },
  confirm: { words: "cadarnhau" },
  old: { words: "presennol" },
  new: { words: "newydd" },
  password: { words: "cyfrinair" },
  userName: { words: "enw defnyddiwr" },
  email: { words: "ebost, cyfeiriad e bost" },
  code: { words: "cod dilysu" },
  search: { words: "chwilio" },
  newsletter: { words: "cylchlythyr, tanysgrifio" },
  next: { words: "nesaf" },
  remember: { words: "cofio fi" },
  particulars: { words: "enw cyntaf, cyfenw" },
};
