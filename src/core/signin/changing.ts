/** What comes of Galtry changing a password at its site: each way has a name and a sentence for those who look after it. */

export const CHANGE_OUTCOMES = {
  changed: {
    title: "The password has been changed",
    says: "Galtry has signed in with the new one. It is the current version; the old one is among the earlier versions.",
  },
  "not-signed-in": {
    title: "Galtry could not sign in",
    says: "Nothing has been changed. Test the login to see what happened.",
  },
  "no-change-page": {
    title: "Galtry did not find the page where the password is changed",
    says: "Nothing has been changed. Enter the address of that page, or change the password by hand.",
  },
  "only-by-hand": {
    title: "The page cannot be filled in by Galtry",
    says: "Nothing has been changed. Change the password by hand: Lanyard fills in the current one and a new one.",
  },
  rejected: {
    title: "The site rejected the new password",
    says: "The old one still works: Galtry has signed in with it. Change the password by hand, by the site’s rules.",
  },
  stopped: {
    title: "The change was stopped",
    says: "Nothing was sent, and nothing has been changed.",
  },
  "new-chosen": {
    title: "The new password was chosen",
    says: "Someone decided so; Galtry has not signed in with it. The old one is among the earlier versions.",
  },
  "old-chosen": {
    title: "The old password was chosen",
    says: "Someone decided so, and the new one has been forgotten.",
  },
  "by-hand": {
    title: "A new password was filled in at the site by hand",
    says: "Galtry has the old one and the new one until you decide which of them the site accepts.",
  },
  "in-doubt": {
    title: "It is not certain which password works",
    says: "The new one was sent, and the site’s answer left it open. Galtry has both until you decide.",
  },
} as const;

export type ChangeOutcome = keyof typeof CHANGE_OUTCOMES;

/** Who changes a password: Galtry, somebody at its site with Lanyard beside, or somebody at what has no site. */
export type ChangedBy = "galtry" | "hand-at-site" | "hand";

/** What a run does with each of its logins. */
export const RUN_WHATS = ["change", "test"] as const;
export type RunWhat = (typeof RUN_WHATS)[number];

/** Where people change passwords, by the words on the link: the likeliest first. */
const PASSWORD_LINK =
  /\bpass ?(?:word|code|phrase)s?\b|\b(?:kenn|pass)wort|mot de passe|contrasena|password|wachtwoord|losenord|passord|adgangskode|salasana|haslo|heslo|jelszo|parol|sifre|пароль|パスワード|비밀번호|密码|密碼/u;
const ACCOUNT_LINK =
  /\b(?:my )?(?:account|profile|settings|preferences|security|konto|profil|einstellungen|sicherheit|compte|parametres|securite|cuenta|ajustes|perfil|seguridad|impostazioni|sicurezza|instellingen|beveiliging)\b/u;
/** Whoever follows one of these has left, or has asked for something: a link is only to be looked behind. */
const NEVER =
  /\b(?:log|sign) ?(?:out|off)\b|abmelden|deconnexion|delete|remove|close|cancel|loschen|supprimer|forgot|forgotten|reset|vergessen|oublie|olvid|\b(?:re)?generate|\bsend\b|\brotate|\brevoke|\binvite|\bexpire|zusenden|envoyer|enviar/u;

/**
 * How near a link is to the page where a password is changed.
 * @param text what stands on it, and the path it leads to, both folded by `plain`
 * @returns 2 for a link about passwords, 1 for one to an account's settings, 0 for any other
 */
export function nearness(text: string): 0 | 1 | 2 {
  if (NEVER.test(text)) return 0;
  return PASSWORD_LINK.test(text) ? 2 : ACCOUNT_LINK.test(text) ? 1 : 0;
}
