import type { Language } from "./language";

/** Dutch. */
export const nl: Language = {
  signIn: { words: "inloggen, aanmelden, meld aan" },
  register: {
    words: `
      registreren, registreer, account (aanmaken|maken), maak( een)? account( aan)?,
      maak( \\w+)?( \\w+)? (account|profiel)
    `,
  },
  reset: {
    words: `
      wachtwoord (vergeten|resetten|herstellen|opvragen), nieuw wachtwoord aanvragen, wachtwoord opnieuw instellen
    `,
  },
  change: { words: "wachtwoord (wijzigen|veranderen|instellen), nieuw wachtwoord" },
  confirm: { words: "herhaal, bevestig(en)?" },
  old: { words: "huidig(e)?, oude?" },
  new: { words: "nieuw(e)?" },
  password: { words: "wachtwoord" },
  userName: { words: "gebruiker(snaam)?, klantnummer, gebruikers?" },
  email: { words: "adres e ?mail, e ?mailadres(se)?" },
  phone: { words: "telefoon(nummer)?, mobiel" },
  code: { words: "verificatie ?code, beveiligingscode, eenmalige code, authenticatie ?code" },
  search: { words: "zoek(en)?" },
  newsletter: { words: "nieuwsbrief, abonneren" },
  next: { words: "volgende, verder, doorgaan" },
  send: { words: "verzenden, opslaan, verifieren, bevestigen, verificeer, verzend, versturen, stuur, bijwerken" },
  aside: { words: "tonen, verbergen, annuleren, sluiten, terug" },
  remember: { words: "onthoud( mij| me)?, ingelogd blijven, aangemeld blijven" },
  particulars: { words: "voornaam, achternaam, geboortedatum" },
  otherPurpose: { words: "bericht, melding" },
  settings: {
    words: `server(naam)?, database(naam)?, hostnaam, instellingen, tijdzone, installatie, rol, netwerk(naam)?`,
  },
  payment: { words: `kaartnummer, cadeaukaart, saldo, betalen, betaling, bedrag, vervaldatum` },
  secondSecret: { words: `geboortedatum, geheime vraag` },
};
