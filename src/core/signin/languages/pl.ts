import type { Language } from "./language";

/** Polish. */
export const pl: Language = {
  signIn: { words: "zaloguj( sie)?, logowanie" },
  register: {
    words: `
      zarejestruj( sie)?, rejestracja, zaloz konto, utworz konto, utworz( \\w+)? konto, zaloz( \\w+)? konto
    `,
  },
  reset: {
    words: `
      nie pamietasz hasla, zapomnial(es|as|em)?( hasla)?, resetuj haslo, odzyskaj haslo, zresetuj haslo,
      przypomnij haslo, odzyskiwanie hasla
    `,
  },
  change: { words: "zmien haslo, zmiana hasla, nowe haslo" },
  confirm: { words: "powtorz, potwierdz" },
  old: { words: "obecne, stare, aktualne" },
  new: { words: "nowe" },
  password: { words: "haslo" },
  userName: { words: "uzytkownik(a)?, nazwa uzytkownika" },
  email: { words: "poczta" },
  code: { words: "kod (weryfikacyjny|jednorazowy|sms|z aplikacji|bezpieczenstwa), kod bezpieczenstwa" },
  search: { words: "szukaj" },
  newsletter: { words: "zapisz sie, subskrybuj, zapis sie( do newslettera)?" },
  next: { words: "dalej, kontynuuj" },
  send: { words: "zapisz, wyslij, weryfikuj, potwierdz, aktualizuj" },
  aside: { words: "pokaz, ukryj, anuluj, wroc" },
  remember: { words: "zapamietaj( mnie)?, nie wylogowuj" },
  particulars: { words: "imie( i nazwisko)?, nazwisko" },
  otherPurpose: { words: "wiadomosc" },
  settings: { words: `serwer, baza danych, ustawienia, strefa czasowa, instalacja, rola, siec` },
  payment: { words: `numer karty, karta podarunkowa, saldo, platnosc, zaplac, kwota` },
  secondSecret: { words: `data urodzenia` },
};
