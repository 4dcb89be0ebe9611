/**
 * The words by which sign-in pages in many languages say what a field or form is for. Matched against text that
 * `plain` has made lower-case, without accents, with camelCase and punctuation turned into spaces.
 */
import { LANGUAGES } from "./languages";
import { MEANINGS, type Meaning } from "./languages/language";

/** "logInForm_e-mail" → "log in form e mail"; accents fall away in Latin, Greek and Cyrillic alike. */
export function plain(text: string): string {
  if (/^[\0-\x7f]*$/.test(text))
    return text
      .replace(/([a-z\d])([A-Z])/g, "$1 $2")
      .toLowerCase()
      .replace(/[^a-z\d]+/g, " ")
      .trim();
  return text
    .replace(/(\p{Ll}|\d)(\p{Lu})/gu, "$1 $2")
    .normalize("NFKD")
    .replace(/\p{M}+/gu, "")
    .toLowerCase()
    .replaceAll("ß", "ss")
    .replaceAll("ø", "o")
    .replaceAll("æ", "ae")
    .replaceAll("ł", "l")
    .replaceAll("ı", "i")
    .replaceAll("đ", "d")
    .replaceAll("ð", "d")
    .replaceAll("þ", "th")
    .replace(/[^\p{L}\p{N}]+/gu, " ")
    .trim();
}

/** A pattern folded as `plain` folds text: without its accents, Hangul in its parts. */
const folded = (pattern: string): RegExp => new RegExp(pattern.normalize("NFKD").replace(/\p{M}+/gu, ""), "u");
/** All languages at once: a page seldom says which one it speaks, and often speaks two. */
function said(meaning: Meaning): RegExp {
  const items = (kind: "words" | "parts") =>
    Object.values(LANGUAGES).flatMap((language) =>
      (language[meaning]?.[kind] ?? "")
        .split(",")
        .map((item) => item.replace(/\s+/g, " ").trim())
        .filter(Boolean),
    );
  return folded([`(?:^| )(?:${items("words").join("|")})(?= |$)`, ...items("parts")].join("|"));
}

/** Ways in that are another organisation's. */
const ELSEWHERE = () =>
  folded(
    /(?:^| )(?:sign in|log ?in|login|sign up|continue|connect|anmelden|einloggen|weiter|se connecter|connexion|continuer|accedi|continua|entrar|continuar|iniciar sesion|inloggen|doorgaan|logga in|fortsatt|zaloguj sie) (?:with|using|via|through|mit|uber|avec|con|com|met|med|przez|z) (?:a |an |your |my |din |ihrem )?(?!e ?mail|e ?post|mail|password|passwort|mot de passe|contrasena|user|account|member|customer|phone|code)|(?:^| )(?:sso|single sign ?on|passkey|magic link|qr code)(?= |$)/u
      .source,
  );

/** Consent that is asked for once, when one registers. */
const TERMS = () =>
  folded(
    /(?:^| )(?:terms|conditions|privacy policy|i agree|i accept|agb|nutzungsbedingungen|datenschutz\w*|conditions generales|cgu|j accepte|terminos|condiciones|acepto|termini|accetto|termos|aceito|voorwaarden|akkoord|villkor|vilkar|betingelser|ehdot|regulamin|akceptuje|podmink\w*|souhlasim|szerzodesi|elfogadom|termenii|sartlar\w*|kosullar\w*)(?= |$)|услови|правил|соглас|правила|όρους|οροι|利用規約|同意|약관|동의|协议|条款|同意|الشروط|אני מסכימ|תנאי/u
      .source,
  );

/** What a password must be: said where one is made, not where it is given. */
const PASSWORD_RULE = () =>
  folded(
    /(?:at least|minimum|mindestens|au moins|al menos|almeno|minimo|pelo menos|minstens|minst|mindst|vahintaan|co najmniej|alespon|aspon|legalabb|cel putin|en az|не менее|не менш)(?: of)? \d+|\d+ ?(?:文字以上|자 이상|位以上|个字符)/u
      .source,
  );

/** What a text may speak of. */
export type Subject = Meaning | "elsewhere" | "terms" | "passwordRule";

const OTHERS: Readonly<Record<Exclude<Subject, Meaning>, () => RegExp>> = {
  elsewhere: ELSEWHERE,
  terms: TERMS,
  passwordRule: PASSWORD_RULE,
};

const SUBJECTS: readonly Subject[] = [...MEANINGS, "elsewhere", "terms", "passwordRule"];

const patterns = new Map<Subject, RegExp>();

/** What a text has to hold, folded by `plain`, to speak of something. Made when first asked for: most pages have no form. */
export function patternOf(subject: Subject): RegExp {
  const known = patterns.get(subject);
  if (known) return known;
  const made = subject in OTHERS ? OTHERS[subject as keyof typeof OTHERS]() : said(subject as Meaning);
  patterns.set(subject, made);
  return made;
}

/** What texts speak of, each worked out once: pages say the same again and again. */
export class Subjects {
  readonly #found = new Map<string, ReadonlySet<Subject>>();

  /** @param text as the page has it */
  of(text: string): ReadonlySet<Subject> {
    const known = this.#found.get(text);
    if (known) return known;
    const folded = plain(text);
    const found = new Set<Subject>();
    if (folded !== "") for (const subject of SUBJECTS) if (patternOf(subject).test(folded)) found.add(subject);
    this.#found.set(text, found);
    return found;
  }
}
