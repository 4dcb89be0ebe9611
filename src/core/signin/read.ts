/**
 * Reads what a page is for: groups its visible fields by form (or, without one, by the container they share with
 * a button), says for each group what it asks, and picks the first in the order of PAGE_KINDS.
 */
import {
  NOTHING_READ,
  PAGE_KINDS,
  type PageDescription,
  type PageField,
  type PageKind,
  type PageReading,
} from "./page";
import * as words from "./words";

/** One form, or the fields that stand together where there is none. */
interface Group {
  form: PageDescription["forms"][number] | null;
  text: string;
  hints: string;
  fields: PageField[];
  buttons: PageField[];
}

/**
 * @returns selectors as the description gave them; `form` is null where no form element owns the fields
 */
export function readPage(page: PageDescription): PageReading {
  const readings = groupsOf(page).map((group) => readGroup(group, page));
  const order = (kind: PageKind) => PAGE_KINDS.indexOf(kind);
  readings.sort((a, b) => order(a.kind) - order(b.kind) || b.weight - a.weight);
  const best = readings[0];
  if (!best || best.kind === "none") return NOTHING_READ;
  const { weight: _, ...reading } = best;
  return reading;
}

const TEXT_LIKE = new Set(["text", "email", "tel", "number", "url", "search", ""]);

const isButton = (field: PageField) =>
  field.control === "button" || (field.control === "input" && ["submit", "image", "button"].includes(field.type));
const isFillable = (field: PageField) =>
  field.visible &&
  !field.disabled &&
  ((field.control === "input" && (TEXT_LIKE.has(field.type) || field.type === "password")) ||
    field.control === "textarea");

function groupsOf(page: PageDescription): Group[] {
  const groups: Group[] = page.forms.map((form) => ({
    form,
    text: form.text,
    hints: form.hints,
    fields: [],
    buttons: [],
  }));
  const loose: PageField[] = [];
  for (const field of page.fields) {
    const group = field.form === null ? undefined : groups[field.form];
    if (!group) loose.push(field);
    else if (isButton(field)) group.buttons.push(field);
    else group.fields.push(field);
  }
  return [...groups, ...looseGroups(page, loose)].filter((group) => group.fields.some(isFillable));
}

/** Each fillable field climbs to the nearest container that also holds a button which could send it. */
function looseGroups(page: PageDescription, loose: PageField[]): Group[] {
  const senders = loose.filter(
    (field) => isButton(field) && field.visible && !words.ASIDE.test(words.plain(field.label)),
  );
  const byContainer = new Map<number, PageField[]>();
  for (const field of loose.filter((candidate) => !isButton(candidate))) {
    const home =
      [...field.within].reverse().find((id) => senders.some((sender) => sender.within.includes(id))) ??
      field.within[0] ??
      -1;
    byContainer.set(home, [...(byContainer.get(home) ?? []), field]);
  }
  return [...byContainer].map(([id, fields]) => ({
    form: null,
    text: page.containers[id]?.text ?? "",
    hints: page.containers[id]?.hints ?? "",
    fields,
    buttons: loose.filter((field) => isButton(field) && field.within.includes(id)),
  }));
}

interface Evidence {
  passwords: PageField[];
  identifiers: PageField[];
  codes: PageField[];
  particulars: number;
  /** Fields to write in whose purpose is not known. */
  others: number;
  submit: PageField | null;
  /** Words of the submit button alone, then of the form's own address, headings and hints. */
  act: string;
  around: string;
  title: string;
  /** Asks for consent to terms, or says what a password must be. */
  makesNew: boolean;
}

function readGroup(group: Group, page: PageDescription): PageReading & { weight: number } {
  const evidence = weigh(group, page);
  const kind = kindOf(evidence, group);
  if (kind === "none") return { ...NOTHING_READ, weight: 0 };
  const { passwords, identifiers, codes, submit } = evidence;
  const identifier = identifiers[0]?.selector ?? null;
  return {
    kind,
    form: group.form?.selector ?? null,
    userName: kind === "password-only-step" || kind === "one-time-code-step" ? null : identifier,
    password: passwordFor(kind, passwords)?.selector ?? null,
    oneTimeCode: codes[0]?.selector ?? null,
    submit: submit?.selector ?? null,
    weight: (identifier ? 2 : 0) + (submit ? 1 : 0) + (words.SIGN_IN.test(evidence.act) ? 2 : 0),
  };
}

function weigh(group: Group, page: PageDescription): Evidence {
  const fillable = group.fields.filter(isFillable);
  const passwords = fillable.filter(isPassword);
  const codes = codeFields(
    fillable.filter((field) => !passwords.includes(field)),
    group,
  );
  const rest = fillable.filter((field) => !passwords.includes(field) && !codes.includes(field));
  const submit = submitOf(group);
  const identifiers = identifiersOf(rest, passwords, group);
  return {
    passwords,
    identifiers,
    codes,
    particulars: rest.filter((field) => isParticular(field)).length,
    others: rest.filter((field) => !identifiers.includes(field) && !isAnotherCode(about(field))).length,
    submit,
    act: submit ? words.plain(submit.label) : "",
    around: words.plain(
      [
        ownText(group, fillable),
        group.hints,
        actionWords(group.form?.action ?? ""),
        submit?.name ?? "",
        submit?.id ?? "",
      ].join(" | "),
    ),
    title: words.plain(page.title),
    makesNew:
      words.PASSWORD_RULE.test(
        words.plain([group.text, ...fillable.map((field) => `${field.label} ${field.placeholder}`)].join(" | ")),
      ) || group.fields.some((field) => field.type === "checkbox" && words.TERMS.test(words.plain(field.label))),
  };
}

/** The group's text without fields' own labels that speak of signing in ("Login name"): they do not name the form. */
function ownText(group: Group, fillable: PageField[]): string {
  return fillable
    .map((field) => field.label)
    .filter((label) => words.SIGN_IN.test(words.plain(label)))
    .reduce((text, label) => text.replace(label, " "), group.text);
}

/** What a form's address says, without host and query values. */
function actionWords(action: string): string {
  return action.replace(/^[a-z]+:\/\/[^/]*/i, "").replace(/=[^&]*/g, " ");
}

const about = (field: PageField) => words.plain([field.label, field.placeholder, field.name, field.id].join(" | "));
const spoken = (field: PageField) => words.plain([field.label, field.placeholder].join(" | "));

function isPassword(field: PageField): boolean {
  if (/one-time-code/.test(field.autocomplete)) return false;
  if (field.type === "password") return !isCode(field) || words.PASSWORD.test(spoken(field));
  if (/(current|new)-password/.test(field.autocomplete)) return TEXT_LIKE.has(field.type);
  return false;
}

function isCode(field: PageField): boolean {
  if (/one-time-code/.test(field.autocomplete)) return true;
  if (field.control === "textarea" || field.type === "email" || field.type === "search") return false;
  if (/username|email|current-password|new-password/.test(field.autocomplete)) return false;
  const text = about(field);
  return !isAnotherCode(text) && words.CODE.test(text);
}

/** A postcode, a voucher, the letters of a picture. */
const isAnotherCode = (text: string): boolean =>
  words.OTHER_PURPOSE.test(text) ||
  /post ?code|zip|captcha|country|area code|promo|sort code|postleitzahl|invit|referral/.test(text);

/** A field for the code, or the boxes of a code in order. */
function codeFields(fields: PageField[], group: Group): PageField[] {
  const boxes = fields.filter((field) => field.maxLength === 1 && field.type !== "email");
  if (boxes.length >= 4) return boxes;
  const named = fields.filter(isCode);
  if (named.length > 0) return named;
  const ask = fields.filter((field) => !isAnotherCode(about(field)));
  // A field called just "code" or "pin", short and numeric, in a form that speaks of codes.
  const around = words.plain(`${group.text} ${group.hints}`);
  const password = group.fields.findIndex((field) => isFillable(field) && isPassword(field));
  return ask.filter(
    (field) =>
      // Short and numeric after the password, whatever it is called.
      (password >= 0 &&
        group.fields.indexOf(field) > password &&
        field.inputMode === "numeric" &&
        field.maxLength !== null &&
        field.maxLength >= 4 &&
        field.maxLength <= 8) ||
      (/(?:^| )(?:code|pin|kod|codigo|codice|kode|koodi|cod)(?= |$)/.test(about(field)) &&
        (words.CODE.test(around) || (field.maxLength !== null && field.maxLength >= 4 && field.maxLength <= 8))) ||
      (fields.length === 1 &&
        ((field.inputMode === "numeric" && field.maxLength !== null && field.maxLength <= 8) ||
          (spoken(field) === "" && ["text", "tel", "number", ""].includes(field.type))) &&
        words.CODE.test(around)),
  );
}

function isParticular(field: PageField): boolean {
  if (/given-name|family-name|^name$|bday|street-address|postal-code|country|organization/.test(field.autocomplete))
    return true;
  if (field.control === "textarea") return true;
  const text = about(field);
  // Which organisation signs in is no particular of a new customer.
  if (/(company|organi[sz]ation|firm\w*|tenant|mandant) ?(code|id|number|no|nummer)(?= |$)/.test(text)) return false;
  return (
    words.PARTICULARS.test(text) &&
    !words.USER_NAME.test(spoken(field)) &&
    !words.EMAIL.test(text) &&
    !/user|login/.test(text)
  );
}

/** Fields that could hold the user name, best first. */
function identifiersOf(fields: PageField[], passwords: PageField[], group: Group): PageField[] {
  const firstPassword = passwords[0];
  const scored = fields
    .filter((field) => !field.readOnly && field.control === "input" && field.type !== "search" && field.type !== "url")
    .map((field) => ({ field, score: identifierScore(field, firstPassword, group) }))
    .filter(({ score }) => score > 0);
  scored.sort((a, b) => b.score - a.score);
  return scored.map(({ field }) => field);
}

function identifierScore(field: PageField, password: PageField | undefined, group: Group): number {
  const text = about(field);
  let score = 0;
  if (/(^| )username( |$)/.test(field.autocomplete)) score += 8;
  if (/(^| )email( |$)/.test(field.autocomplete)) score += 4;
  if (field.type === "email") score += 4;
  if (words.USER_NAME.test(text)) score += 5;
  if (words.EMAIL.test(text)) score += 4;
  if (words.PHONE.test(text) || field.type === "tel") score += 2;
  if (words.SEARCH.test(text) && score < 4) score -= 6;
  if (isParticular(field)) score -= 4;
  if (password && group.fields.indexOf(field) < group.fields.indexOf(password)) {
    score += 2;
    const between = group.fields.slice(group.fields.indexOf(field) + 1, group.fields.indexOf(password));
    if (!between.some(isFillable)) score += 2;
  }
  return score;
}

/** The button a visitor would press to send the fields. */
function submitOf(group: Group): PageField | null {
  const scored = group.buttons
    .filter((button) => button.visible)
    .map((button) => ({ button, score: submitScore(button, group) }))
    .filter(({ score }) => score > 0);
  scored.sort((a, b) => b.score - a.score);
  return scored[0]?.button ?? null;
}

function submitScore(button: PageField, group: Group): number {
  const text = words.plain(button.label || `${button.name} ${button.id}`);
  const hints = words.plain(`${button.name} ${button.id} ${button.hints}`);
  let score = 0;
  if (button.type === "submit" || button.type === "image") score += 4;
  else if (!group.form) score += 1;
  if (words.SIGN_IN.test(text)) score += 5;
  // "Forgot your password?" as a button beside the password's field.
  else if (words.RESET.test(text) && group.fields.some((field) => field.visible && field.type === "password"))
    score -= 4;
  else if (words.NEXT.test(text) || words.REGISTER.test(text) || words.RESET.test(text) || words.CHANGE.test(text))
    score += 4;
  else if (words.SEND.test(text)) score += 3;
  if (words.SIGN_IN.test(hints) || /submit/.test(hints)) score += 1;
  if (words.ASIDE.test(text) && !words.SIGN_IN.test(text)) score -= 8;
  if (words.ELSEWHERE.test(text)) score -= 6;
  if (/aria-hidden/.test(button.hints)) score -= 4;
  // An eye, an arrow round: a picture of something else than sending.
  if (text === "" && button.type !== "image") score -= 2;
  // The first of equals is what Enter presses.
  return score - group.buttons.indexOf(button) * 0.01;
}

function kindOf(evidence: Evidence, group: Group): PageKind {
  return evidence.passwords.length > 0 ? kindWithPassword(evidence) : kindWithoutPassword(evidence, group);
}

function kindWithPassword(evidence: Evidence): PageKind {
  const { passwords, identifiers, act, around, title, particulars, makesNew } = evidence;
  const old = passwords.filter((field) => /current-password/.test(field.autocomplete) || words.OLD.test(about(field)));
  const fresh = passwords.filter(
    (field) =>
      /new-password/.test(field.autocomplete) ||
      words.NEW.test(spoken(field)) ||
      words.NEW.test(words.plain(field.name)),
  );
  const repeats = passwords.filter((field) => words.CONFIRM.test(about(field)));
  const saysChange = words.CHANGE.test(`${act} | ${around}`) || (words.CHANGE.test(title) && !words.SIGN_IN.test(act));
  const saysRegister = words.REGISTER.test(act) || (words.REGISTER.test(around) && !words.SIGN_IN.test(act));

  if (passwords.length >= 3) return "change-password";
  if (passwords.length === 2) {
    if (old.length === 1 && !old.every((field) => fresh.includes(field))) return "change-password";
    if (identifiers.length === 0 && particulars === 0) return "change-password";
    if (saysChange && !saysRegister) return "change-password";
    if (repeats.length > 0 || fresh.length > 0 || saysRegister) return "register";
    return words.SIGN_IN.test(act) ? "sign-in" : "register";
  }

  const only = passwords[0]!;
  const isNew = /new-password/.test(only.autocomplete);
  if (identifiers.length === 0 && (isNew || words.NEW.test(spoken(only))) && !saysRegister && particulars === 0)
    return "change-password";
  if (saysChange && words.CHANGE.test(act)) return "change-password";
  if (makesNew && !words.SIGN_IN.test(act))
    return identifiers.length > 0 || particulars > 0 ? "register" : "change-password";
  if (isNew && !words.SIGN_IN.test(act)) return "register";
  // Three things and a password, in whatever language: more than anybody is asked for when signing in.
  if (identifiers.length + evidence.others >= 3 && !words.SIGN_IN.test(act)) return "register";
  // A new mail address or name, with the password to prove who asks.
  if (identifiers[0] && words.NEW.test(spoken(identifiers[0])) && !words.SIGN_IN.test(act)) return "none";
  // Particulars beside a password, and no word of signing in anywhere.
  if (particulars > 0 && !words.SIGN_IN.test(`${act} | ${around} | ${title}`)) return "register";
  if (words.REGISTER.test(title) && !words.SIGN_IN.test(`${act} | ${around} | ${title}`)) return "register";
  if (words.REGISTER.test(act) && !words.SIGN_IN.test(act)) return "register";
  if (particulars >= 2 && !words.SIGN_IN.test(act)) return "register";
  if (saysRegister && !words.SIGN_IN.test(`${around} | ${title}`)) return "register";
  if (isNew && particulars > 0) return "register";
  return identifiers.length > 0 ? "sign-in" : "password-only-step";
}

function passwordFor(kind: PageKind, passwords: PageField[]): PageField | undefined {
  if (kind !== "change-password") return passwords[0];
  return (
    passwords.find((field) => /current-password/.test(field.autocomplete) || words.OLD.test(about(field))) ??
    passwords[0]
  );
}

function kindWithoutPassword(evidence: Evidence, group: Group): PageKind {
  const { identifiers, codes, act, around, title, particulars } = evidence;
  const own = `${act} | ${around}`;
  if (codes.length > 0 && identifiers.length === 0 && !words.SEARCH.test(act) && !words.NEWSLETTER.test(act))
    return "one-time-code-step";
  if (identifiers.length === 0) return "none";
  const tellsItself = [words.SIGN_IN, words.REGISTER, words.RESET].some((one) => one.test(act));
  if (!tellsItself && (words.SEARCH.test(act) || /search/.test(group.form?.hints.toLowerCase() ?? ""))) return "none";
  if (words.NEWSLETTER.test(act)) return "none";
  if (group.fields.some((field) => isFillable(field) && field.control === "textarea")) return "none";
  if (words.OTHER_PURPOSE.test(act) && !words.RESET.test(`${around} | ${title}`)) return "none";

  if (words.RESET.test(act)) return "reset-request";
  if (words.REGISTER.test(act)) return words.NEWSLETTER.test(around) ? "none" : "register";
  if (words.SIGN_IN.test(act)) return "identifier-first";
  if (words.NEWSLETTER.test(around)) return "none";
  // "Forgot your password?" stands in sign-in forms too, and "sign in" in a reset's: what comes first names the form.
  const [signIn, reset] = [around.search(words.SIGN_IN), around.search(words.RESET)];
  if (signIn >= 0) {
    if (reset >= 0 && reset < signIn) return "reset-request";
    return words.RESET.test(title) && !words.SIGN_IN.test(title) ? "reset-request" : "identifier-first";
  }
  if (words.RESET.test(own) || words.RESET.test(title)) return "reset-request";
  if (words.REGISTER.test(own) || words.REGISTER.test(title)) return "register";
  if (particulars > 0 || words.OTHER_PURPOSE.test(around)) return "none";
  if (words.SIGN_IN.test(title)) return "identifier-first";
  const named = identifiers.some((field) => /username/.test(field.autocomplete));
  return named || (words.NEXT.test(act) && words.USER_NAME.test(about(identifiers[0]!))) ? "identifier-first" : "none";
}
