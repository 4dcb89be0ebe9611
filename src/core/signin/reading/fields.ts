/** What each field of a group is for. */
import type { PageField } from "../page";
import type { Subject, Subjects } from "../words";
import { type Entry, type Group, hidesText } from "./groups";

export const FIELD_USES = ["user-name", "password", "new-password", "code", "other"] as const;
export type FieldUse = (typeof FIELD_USES)[number];

/** What the button and the surroundings say, for the features of fields. */
export interface Surroundings {
  act: ReadonlySet<Subject>;
  around: ReadonlySet<Subject>;
  title: ReadonlySet<Subject>;
}

export function fieldFeatures(
  entry: Entry,
  group: Group,
  { act, around, title }: Surroundings,
  subjects: Subjects,
): Set<string> {
  const { field } = entry;
  const found = new Set<string>();
  const sort = entry.boxes.length > 0 ? "boxes" : hidesText(field) ? "hidden text" : "open text";
  const put = (feature: string) => found.add(`${sort}: ${feature}`);
  put("any");
  put(`type ${field.control === "textarea" ? "textarea" : field.type || "text"}`);
  for (const token of field.autocomplete.split(/\s+/)) if (TOKENS.has(token)) put(`autocomplete ${token}`);
  const spoken = subjects.of(`${field.label} | ${field.placeholder}`);
  const named = subjects.of(`${field.name} | ${field.id}`);
  for (const subject of spoken) put(`label says ${subject}`);
  for (const subject of named) put(`is called ${subject}`);
  if (`${field.label}${field.placeholder}` === "") put("has no label");
  else if (spoken.size === 0) put("label says something else");
  if (/user|login|e-?mail|account/i.test(`${field.name} ${field.id}`)) put("is called user or login");
  if (/captcha|zip|post_?code|promo|coupon|invit|referral|country/i.test(about(field))) put("a code of another sort");
  if (/(company|organi[sz]ation|firm\w*|tenant|mandant)/i.test(about(field))) put("an organisation");
  if (/openid/i.test(about(field))) put("an OpenID");
  if (field.maxLength !== null) put(field.maxLength <= 3 ? "very short" : field.maxLength <= 10 ? "short" : "long");
  if (field.inputMode === "numeric" || field.type === "number" || field.type === "tel") put("digits");
  if (field.readOnly) put("cannot be changed");
  if (field.value !== "" && !field.readOnly) put("filled already");
  putPlace(entry, group, put);
  for (const [where, says] of [
    ["button", act],
    ["around", around],
    ["title", title],
  ] as const)
    for (const subject of TELLING) if (says.has(subject)) put(`${where} says ${subject}`);
  return found;
}

const about = (field: PageField) => `${field.label} ${field.placeholder} ${field.name} ${field.id}`;

/** Where it stands among the others. */
function putPlace(entry: Entry, { entries }: Group, put: (feature: string) => void): void {
  const at = entries.indexOf(entry);
  const secrets = entries.filter(({ field }) => hidesText(field));
  const firstSecret = secrets[0] ? entries.indexOf(secrets[0]) : -1;
  if (hidesText(entry.field)) {
    put(`number ${secrets.indexOf(entry) + 1} of ${Math.min(secrets.length, 4)}`);
    if (at === 0) put("before all others");
  } else if (firstSecret < 0)
    put(entries.length === 1 ? "alone" : at === 0 ? "first of several, no password" : "later, no password");
  else if (at === firstSecret - 1) put("just before the password");
  else put(at < firstSecret ? "before the password" : "after the password");
  if (at === 0) put("first");
  if (entries.length >= 5) put("one of many");
  if (entries.some(({ field }) => field.control === "textarea")) put("beside a long text");
}

const TOKENS = new Set([
  ...["username", "email", "tel", "current-password", "new-password", "one-time-code", "given-name", "family-name"],
  ...["name", "bday", "street-address", "postal-code", "country", "organization", "cc-number", "cc-csc", "url", "off"],
]);

const TELLING: readonly Subject[] = [
  "signIn",
  "register",
  "reset",
  "change",
  "code",
  "search",
  "newsletter",
  "settings",
  "payment",
  "confirm",
];
