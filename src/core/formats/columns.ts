/** What a column of somebody else's table means: by its name, in the languages that programs here speak. */

export type Meaning =
  | "name"
  | "signInPage"
  | "userName"
  | "password"
  | "code"
  | "notes"
  | "description"
  | "tags"
  | "folder"
  | "extra open"
  | "extra identifier"
  | "extra secret"
  | "leave out";

export const MEANINGS: readonly { meaning: Meaning; label: string }[] = [
  { meaning: "name", label: "Name" },
  { meaning: "signInPage", label: "Sign-in page" },
  { meaning: "userName", label: "User name" },
  { meaning: "password", label: "Password" },
  { meaning: "code", label: "One-time code" },
  { meaning: "notes", label: "Notes" },
  { meaning: "description", label: "Description" },
  { meaning: "tags", label: "Tags" },
  { meaning: "folder", label: "Folder" },
  { meaning: "extra open", label: "Extra field (Use)" },
  { meaning: "extra identifier", label: "Extra field (Reveal)" },
  { meaning: "extra secret", label: "Extra field (hidden)" },
  { meaning: "leave out", label: "Skip" },
];

/** Of these a table has one column each at most. */
const SINGLE: ReadonlySet<Meaning> = new Set(["name", "signInPage", "userName", "password", "code", "folder"]);
/** Values of these are not shown before they are kept. */
export const HIDDEN: ReadonlySet<Meaning> = new Set(["password", "code", "extra secret"]);

/** Words as they begin or stand in names of columns, folded; earlier lines are looked at first. */
const WORDS: readonly [Meaning, string][] = [
  [
    "code",
    "totp otp otpauth 2fa onetimecode onetimepassword einmalcode einmalpasswort codeunique engangskode kertakoodi authenticator",
  ],
  [
    "password",
    "password passwd pwd pass passwort kennwort motdepasse contrasena contrasenya senha palavrapasse wachtwoord losenord adgangskode kodeord passord salasana haslo heslo jelszo parola sifre",
  ],
  [
    "userName",
    "username user login loginname userid account benutzername benutzer anmeldename nutzername identifiant utilisateur usuario utilizador nomeutente utente gebruikersnaam gebruiker anvandarnamn anvandare brugernavn bruker brukernavn kayttajatunnus uzytkownik uzivatel felhasznalonev felhasznalo utilizator kullaniciadi kullanici email mail epost courriel correo",
  ],
  [
    "signInPage",
    "url uri address website web site address webaddress loginurl link page adresse webadresse webseite internetseite siteweb adressweb lien sitio sitioweb enlace indirizzo sitoweb pagina adres webpagina webbplats hjemmeside nettsted sivusto strona adresa oldal hostname host domain",
  ],
  [
    "folder",
    "folder group path grouping category collection ordner gruppe kategorie pfad dossier groupe chemin carpeta grupo ruta cartella gruppo map groep mapp grupp mappe ryhma kansio slozka skupina mappa csoport dosar klasor",
  ],
  ["tags", "tags tag labels label etiketten schlagworter etiquettes etiquetas etichette taggar"],
  [
    "notes",
    "notes note comment comments extra remarks remark notiz notizen bemerkung bemerkungen kommentar anmerkung remarque remarques commentaire nota notas comentario observacoes opmerking opmerkingen notitie anteckning notering noter muistiinpano notatki poznamka poznamky megjegyzes not",
  ],
  [
    "description",
    "description beschreibung beschreibung zweck descripcion descrizione descricao omschrijving beskrivning beskrivelse kuvaus opis popis leiras",
  ],
  [
    "name",
    "name title entry item titel bezeichnung nom titre nombre titulo nome titolo naam namn titel navn nimi nazwa nazev nev cim nume titlu ad baslik",
  ],
];

const squashed = (text: string) =>
  text
    .normalize("NFKD")
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]/gu, "")
    .replace(/ß/g, "ss")
    .replace(/ø/g, "o")
    .replace(/ł/g, "l")
    .replace(/ı/g, "i");

const EXACT = new Map<string, Meaning>();
for (const [meaning, words] of WORDS)
  for (const word of words.split(" ")) if (!EXACT.has(word)) EXACT.set(word, meaning);

/** What programs keep for themselves: numbers of rows, when something was made or used, how a form was built. */
const OF_PROGRAMS: ReadonlySet<string> = new Set(
  "guid uuid httprealm formactionorigin formactionurl formsubmiturl formsubmitaddress timecreated timelastused timepasswordchanged timesused datecreated datemodified datelastused created createdat modified modifiedat updated updatedat lastused lastmodified favorite favourite".split(
    " ",
  ),
);

function byName(name: string): Meaning | null {
  const whole = squashed(name);
  if (OF_PROGRAMS.has(whole)) return "leave out";
  const exact = EXACT.get(whole);
  if (exact) return exact;
  // "signin_password", "address of the page": a part of it is such a word; the last part says most.
  const parts = name.split(/[^\p{L}\p{N}]+|(?<=\p{Ll})(?=\p{Lu})/u).map(squashed);
  for (const part of parts.toReversed()) {
    const meaning = EXACT.get(part);
    if (meaning) return meaning;
  }
  return null;
}

/** Where the name says nothing: what the values look like. */
function byValues(values: readonly string[]): Meaning | null {
  const filled = values.filter((value) => value.trim() !== "").slice(0, 50);
  if (filled.length === 0) return "leave out";
  const most = (pattern: RegExp) => filled.filter((value) => pattern.test(value)).length > filled.length * 0.7;
  if (most(/^otpauth:\/\//i)) return "code";
  if (most(/^https?:\/\//i)) return "signInPage";
  if (most(/^[^\s@]+@[^\s@]+\.[^\s@]+$/)) return "userName";
  return null;
}

/** A first guess, to be put right by whoever knows. What is not understood is kept as an extra field, not lost. */
export function guessMeanings(header: readonly string[], rows: readonly (readonly string[])[]): Meaning[] {
  const taken = new Set<Meaning>();
  const guesses = header.map((name): Meaning | null => {
    const meaning = byName(name);
    if (meaning === "leave out") return meaning;
    if (meaning === null || (SINGLE.has(meaning) && taken.has(meaning))) return null;
    taken.add(meaning);
    return meaning;
  });
  return guesses.map((guess, column) => {
    const sample = rows.slice(0, 200).map((row) => row[column] ?? "");
    if (guess !== null) return sample.every((value) => value.trim() === "") && !SINGLE.has(guess) ? "leave out" : guess;
    const looks = byValues(sample);
    if (looks === null || (SINGLE.has(looks) && taken.has(looks))) return "extra identifier";
    taken.add(looks);
    return looks;
  });
}

/** @returns a sentence when the meanings cannot stand together */
export function wrongMeanings(meanings: readonly Meaning[]): string | null {
  for (const meaning of SINGLE)
    if (meanings.filter((one) => one === meaning).length > 1)
      return `Two columns are set to “${MEANINGS.find((one) => one.meaning === meaning)!.label}”. Only one can be.`;
  if (!meanings.some((one) => one === "name" || one === "signInPage" || one === "userName"))
    return "One column must be the name, the sign-in page or the user name.";
  return null;
}
