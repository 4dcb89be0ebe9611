import type { Language } from "./language";

/** Galician. */
export const gl: Language = {
  register: {
    words: `
      crea( \\w+)? tua conta
    `,
  },
  reset: { words: "esqueciches" },
  change: { words: "cambiar contrasinal, novo contrasinal" },
  password: { words: "contrasinal" },
  userName: { words: "nome de usuario" },
};
