/** What a group of fields is for, from its fields, its button and what stands around it. */
import type { PageDescription, PageField, PageKind } from "../page";
import { patternOf, plain, type Subject, type Subjects } from "../words";
import type { FieldUse } from "./fields";
import { type Entry, type Group, isFillable } from "./groups";

export type GroupKind = Exclude<PageKind, "unsure">;
export const GROUP_KINDS = [
  ...["sign-in", "identifier-first", "password-only-step", "one-time-code-step", "change-password"],
  ...["register", "reset-request", "none"],
] as readonly GroupKind[];

export interface Used {
  entry: Entry;
  use: FieldUse;
}

export interface Told {
  /** The group's own text and hints, without what its fields' labels say of signing in. */
  around: string;
  act: string;
  title: string;
}

export function groupFeatures(
  group: Group,
  page: PageDescription,
  used: readonly Used[],
  told: Told,
  subjects: Subjects,
): Set<string> {
  const found = new Set<string>();
  const many = (use: FieldUse) => used.filter((one) => one.use === use).length;
  const secrets = many("password") + many("new-password");
  const asks =
    secrets === 0 ? "no secret" : secrets === 1 ? "single secret" : secrets === 2 ? "two secrets" : "more secrets";
  const put = (feature: string) => found.add(`${asks}: ${feature}`);
  put("any");
  for (const use of ["user-name", "password", "new-password", "code", "other"] as const)
    put(`${Math.min(many(use), 3)} ${use}`);
  putFields(group, used, put, subjects);
  putWords(group, page, told, put, subjects);
  return found;
}

function putFields(group: Group, used: readonly Used[], put: (feature: string) => void, subjects: Subjects): void {
  for (const { entry, use } of used) {
    const { field } = entry;
    if (use === "other") {
      for (const subject of subjects.of(`${field.label} | ${field.placeholder} | ${field.name} | ${field.id}`))
        if (ELSE.has(subject)) put(`another field says ${subject}`);
      if (field.value !== "" && field.control === "input") put("another field is filled already");
      if (field.control === "textarea") put("a long text");
      if (field.readOnly) put("a field that cannot be changed");
      if (/(company|organi[sz]ation|firm\w*|tenant|mandant)/i.test(`${field.label} ${field.name}`))
        put("an organisation");
      if (/date|month/.test(field.type)) put("a date");
    } else {
      for (const subject of subjects.of(`${field.label} | ${field.placeholder}`))
        put(`the label of the ${use} says ${subject}`);
      for (const subject of subjects.of(`${field.name} | ${field.id}`))
        if (ELSE.has(subject)) put(`the ${use} is called ${subject}`);
      if (field.value !== "") put(`the ${use} is filled already`);
      if (/new-password/.test(field.autocomplete)) put("autocomplete new-password");
      if (/current-password/.test(field.autocomplete)) put("autocomplete current-password");
      if (/(^| )username/.test(field.autocomplete)) put("autocomplete username");
      if (/^(email|tel)$/.test(field.type)) put(`the ${use} is of type ${field.type}`);
      if (entry.boxes.length > 0) put(`the ${use} is in boxes`);
      if (/openid/i.test(`${field.label} ${field.name}`)) put("an OpenID");
    }
  }
  const first = used.find(({ use }) => use === "user-name");
  const secret = used.find(({ use }) => use === "password" || use === "new-password");
  if (first && secret)
    put(used.indexOf(first) < used.indexOf(secret) ? "user name before password" : "password before user name");
  const visible = group.fields.filter((field) => field.visible && !isFillable(field));
  const count = (control: string) =>
    visible.filter((field) => field.control === control || field.type === control).length;
  for (const control of ["select", "radio", "checkbox", "file", "range"] as const)
    if (count(control) > 0) put(`${count(control) > 2 ? "many" : "some"} of ${control}`);
  for (const box of visible.filter((field) => field.type === "checkbox")) {
    const says = subjects.of(`${box.label} | ${box.name} | ${box.id}`);
    if (says.has("remember")) put("a box to be remembered");
    if (says.has("terms")) put("a box for terms");
  }
  if (used.length > 6) put("more than six fields");
  else if (used.length > 3) put("more than three fields");
}

function putWords(
  group: Group,
  page: PageDescription,
  told: Told,
  put: (feature: string) => void,
  subjects: Subjects,
): void {
  const act = subjects.of(told.act);
  const around = subjects.of(told.around);
  const title = subjects.of(told.title);
  const links = subjects.of(group.links);
  const opening = subjects.of(group.text.replace(/^[\s|]+/, "").slice(0, 60));
  for (const subject of act) put(`button says ${subject}`);
  if (told.act === "") put("no button");
  else if (act.size === 0) put("button says something else");
  for (const [where, says] of [
    ["around", around],
    ["opening", opening],
    ["title", title],
    ["links", links],
  ] as const)
    for (const subject of ELSE) if (says.has(subject)) put(`${where} says ${subject}`);
  if (!act.has("signIn"))
    for (const subject of around) if (ELSE.has(subject)) put(`button not signIn, around says ${subject}`);
  if (![act, around, title].some((says) => says.has("signIn"))) put("nothing says signIn");
  if (![act, around, title].some((says) => says.has("register"))) put("nothing says register");
  putOrder(told.around, put);
  if (hasRule(group, subjects)) put("says what a password must be");
  if (page.forms.length > 4) put("a page of many forms");
  if (group.form === null) put("no form");
  else if (group.form.method === "get" && group.form.action !== "") put("sent by GET");
}

/** "Forgot your password?" stands in sign-in forms too, and "sign in" in a reset's: what comes first names the form. */
function putOrder(around: string, put: (feature: string) => void): void {
  const text = plain(around);
  const at = (["signIn", "reset", "register", "change"] as const)
    .map((subject) => ({ subject, at: patternOf(subject).exec(text)?.index ?? Number.POSITIVE_INFINITY }))
    .sort((a, b) => a.at - b.at)[0]!;
  put(Number.isFinite(at.at) ? `first of all says ${at.subject}` : "names no purpose");
}

const hasRule = (group: Group, subjects: Subjects): boolean =>
  subjects.of(group.text).has("passwordRule") ||
  group.entries.some(({ field }) => subjects.of(`${field.label} ${field.placeholder}`).has("passwordRule"));

const ELSE: ReadonlySet<Subject> = new Set<Subject>([
  ...(["signIn", "register", "reset", "change", "confirm", "code", "search", "newsletter", "new", "old"] as const),
  ...([
    "particulars",
    "otherPurpose",
    "settings",
    "payment",
    "secondSecret",
    "terms",
    "remember",
    "elsewhere",
    "passwordRule",
  ] as const),
  ...(["password", "phone"] as const),
]);

/** A field's own label may speak of signing in ("Login name"): it does not name the form. */
export function textWithoutLabels(group: Group, fillable: readonly PageField[], subjects: Subjects): string {
  return fillable
    .map((field) => field.label)
    .filter((label) => subjects.of(label).has("signIn"))
    .reduce((text, label) => text.replace(label, " "), group.text);
}
