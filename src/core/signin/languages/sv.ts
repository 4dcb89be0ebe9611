import type { Language } from "./language";

/** Swedish. */
export const sv: Language = {
  signIn: { words: "logga in, inloggning" },
  register: {
    words: `
      registrera( dig)?, skapa( ett)? konto, bli medlem, skapa( \\w+)?( \\w+)? konto
    `,
  },
  reset: { words: "glomt( ditt)? losenord, aterstall( losenord)?" },
  change: { words: "(byt|andra) losenord, nytt losenord" },
  confirm: { words: "upprepa, bekrafta" },
  old: { words: "nuvarande, gammalt" },
  new: { words: "nytt?" },
  password: { words: "losenord" },
  userName: { words: "anvandar(namn|id)?, kundnummer, personnummer" },
  email: { words: "e ?post( ?adress(e)?)?, epost" },
  code: { words: "engangs(kod|kode), verifieringskod, sakerhetskod" },
  search: { words: "sok" },
  newsletter: { words: "nyhetsbrev, prenumerera, prenumerera pa" },
  next: { words: "nasta, fortsatt, naste, vidare" },
  send: { words: "spara, skicka, bekrafta, uppdatera" },
  aside: { words: "visa, dolj, avbryt" },
  remember: { words: "kom ihag( mig)?, hall mig inloggad" },
  particulars: { words: "fornamn, efternamn" },
  otherPurpose: { words: "meddelande" },
  settings: { words: `server(namn)?, databas, installningar, tidszon, installation, roll, natverk` },
  payment: { words: `kortnummer, presentkort, saldo, betalning, betala, belopp` },
  secondSecret: { words: `fodelsedatum` },
};
