import type { Language } from "./language";

/** Italian. */
export const it: Language = {
  signIn: { words: "accedi, accesso, entra, autenticazione, accedere" },
  register: {
    words: `
      registrati, registrazione, registrarsi, crea( un| il tuo)? (account|profilo|conto), iscriviti ora,
      cre(a|are|i)( \\w+)?( \\w+)? (account|conto|profilo)
    `,
  },
  reset: {
    words: `
      password dimenticata, recupera( la)? password, recupero password, reimposta( la)?( password)?,
      ripristina password
    `,
  },
  change: { words: "(cambia|modifica|cambio)( la| tua)? password, nuova password" },
  confirm: { words: "conferma, ripeti" },
  old: { words: "attuale, vecchia" },
  new: { words: "nuova" },
  userName: { words: "nome utente, utente, codice (cliente|utente), codice fiscale, matricola" },
  email: { words: "posta elettronica, indirizzo e ?mail" },
  phone: { words: "cellulare" },
  code: { words: "codice( di)? (verifica|sicurezza|conferma|accesso)" },
  search: { words: "cerca, ricerca" },
  newsletter: { words: "iscriviti( alla newsletter)?" },
  next: { words: "avanti, continua, prosegui" },
  send: { words: "invia, salva, verifica, conferma, aggiorna" },
  aside: { words: "mostra, nascondi, annulla, chiudi, indietro" },
  remember: { words: "ricordami, resta collegato, resta connesso, mantieni l accesso" },
  particulars: { words: "cognome, nome, data di nascita" },
  otherPurpose: { words: "messaggio" },
  settings: { words: `server, database, nome host, impostazioni, fuso orario, installazione, ruolo, rete` },
  payment: { words: `numero( della)? carta, carta regalo, saldo, pagamento, paga, importo, intestatario, scadenza` },
  secondSecret: { words: `data di nascita, domanda segreta, risposta segreta` },
};
