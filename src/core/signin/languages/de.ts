import type { Language } from "./language";

/** German. */
export const de: Language = {
  signIn: { words: "einloggen, anmelden, anmeldung, zugang" },
  register: {
    words: `
      registrieren, registrierung, konto (erstellen|anlegen|eroffnen), neues konto, jetzt mitglied werden, neu hier,
      neues \\w*konto, \\w*konto (erstellen|anlegen|eroffnen)
    `,
  },
  reset: {
    words: `
      passwort (vergessen|zurucksetzen|anfordern), kennwort (vergessen|zurucksetzen), zurucksetzen,
      neues passwort anfordern, anfordern, passwort anfordern, link anfordern
    `,
  },
  change: {
    words: `
      passwort (andern|aendern|festlegen|vergeben|setzen), neues (passwort|kennwort), kennwort (andern|aendern)
    `,
  },
  confirm: { words: "wiederholen, wiederholung, bestatigen, bestatigung" },
  old: { words: "aktuelles, altes, bisheriges, bisherigw*, aktuellw*" },
  new: { words: "neues?" },
  password: { words: "passwort, kennwort" },
  userName: {
    words: `
      benutzer(name|kennung)?, nutzername, kennung, kundennummer, kunden nr, mitgliedsnummer, anmeldename,
      benutzerw*, anmelde(name|kennung), nutzer(name|kennung)?, konto(nummer)?
    `,
  },
  email: { words: "e ?mail adresse, mailadresse" },
  phone: { words: "handy(nummer)?, telefon(nummer)?, telefonnummer, mobil(nummer)?" },
  code: {
    words: `
      einmal(code|passwort|kennwort), bestatigungscode, sicherheitscode, verifizierungscode, bestatigungs ?code,
      zugangscode
    `,
  },
  search: { words: "suche(n)?" },
  newsletter: { words: "abonnieren, immer informiert, news per mail, zum newsletter" },
  next: { words: "weiter, fortfahren" },
  send: { words: "absenden, senden, speichern, bestatigen, bestatige, prufen, ubernehmen, aktualisieren" },
  aside: { words: "anzeigen, ausblenden, abbrechen, schliessen, zuruck" },
  remember: { words: "angemeldet bleiben, eingeloggt bleiben, merken" },
  particulars: { words: "vorname, nachname, geburtsdatum, strasse, plz, familienname" },
  otherPurpose: { words: "(konto|profil) (loschen|schliessen), loschen, kontakt, nachricht, kommentar, gutschein" },
  settings: {
    words: `host(name)?, server(name)?, datenbank(name)?, wlan, netzwerkname, postfach, einrichten, einrichtung, einstellungen, rolle, zeitzone, installation, benutzer (anlegen|hinzufugen)`,
  },
  payment: {
    words: `kartennummer, kreditkarte\\w*, karteninhaber, guthaben( abfragen)?, gutschein(nummer|code)?, geschenkkarte, einlosen, bezahlen, zahlung, betrag, ablaufdatum`,
  },
  secondSecret: { words: `geburtsdatum, sicherheitsfrage, geheimzahl, antwort, merkwort` },
};
