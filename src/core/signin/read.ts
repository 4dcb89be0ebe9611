/**
 * Reads what a page is for. Three tables of weights answer in turn for each group of fields: which button sends it,
 * what each field is for, what the group is for; of the groups the first in the order of PAGE_KINDS is taken.
 */
import { NOTHING_READ, PAGE_KINDS, type PageDescription, type PageField, type PageReading } from "./page";
import { BUTTON_USES, buttonFeatures } from "./reading/buttons";
import { FIELD_USES, type FieldUse, fieldFeatures } from "./reading/fields";
import { type Entry, type Group, groupsOf, hidesText } from "./reading/groups";
import { GROUP_KINDS, type GroupKind, groupFeatures, textWithoutLabels } from "./reading/kinds";
import { type Likely, likely, ranked } from "./reading/model";
import type { ReadingWeights } from "./reading/tables";
import { fittedWeights } from "./reading/weights";
import { Subjects } from "./words";

export interface FieldRead {
  entry: Entry;
  features: ReadonlySet<string>;
  likely: Likely<FieldUse>;
  use: FieldUse;
}

/** A group, and all that was found out about it. */
export interface GroupRead {
  group: Group;
  buttons: { button: PageField; features: ReadonlySet<string>; send: number }[];
  submit: PageField | null;
  fields: FieldRead[];
  features: ReadonlySet<string>;
  likely: Likely<GroupKind>;
  kind: GroupKind;
}

/** Below it a button is none that sends. */
const LEAST_SEND = 0.25;
/** Below it nobody acts on a page that may be for signing in. */
export const SURE = 0.7;
const SURE_WITHOUT_A_WORD = 0.85;
/** Other kinds only keep Galtry from acting: the likelier one is enough. */
const LIKELY = 0.5;

/**
 * @returns selectors as the description gave them; `form` is null where no form element owns the fields
 */
export function readPage(page: PageDescription, weights: ReadingWeights = fittedWeights()): PageReading {
  const read = readGroups(page, weights).filter(({ kind }) => kind !== "none");
  const sure = read.filter((one) => one.likely[one.kind] >= sureFrom(one));
  const order = ({ kind }: GroupRead) => PAGE_KINDS.indexOf(kind);
  const best = sure.sort((a, b) => order(a) - order(b) || b.likely[b.kind] - a.likely[a.kind])[0];
  if (best) return readingOf(best);
  const perhaps = read.sort((a, b) => b.likely[b.kind] - a.likely[a.kind])[0];
  return perhaps ? { ...readingOf(perhaps), kind: "unsure" } : NOTHING_READ;
}

const SIGNS_IN: ReadonlySet<GroupKind> = new Set<GroupKind>(["sign-in", "identifier-first", "password-only-step"]);

/** So sure one has to be of a kind before it is acted on. */
const sureFrom = ({ kind, features }: GroupRead): number =>
  !SIGNS_IN.has(kind) ? LIKELY : [...features].some((one) => SPEAKS_OF_IT.test(one)) ? SURE : SURE_WITHOUT_A_WORD;

/** A word of signing in, a link for who forgot, a box to be remembered: what settings of other accounts do not have. */
const SPEAKS_OF_IT =
  /(?:button|around|title|opening|links) says? (?:signIn|reset)$|a box to be remembered|autocomplete (?:username|current-password)/;

/** Everything found out about each group of a page's fields. */
export function readGroups(page: PageDescription, weights: ReadingWeights = fittedWeights()): GroupRead[] {
  const subjects = new Subjects();
  return groupsOf(page, subjects).map((group) => readGroup(group, page, weights, subjects));
}

function readGroup(group: Group, page: PageDescription, weights: ReadingWeights, subjects: Subjects): GroupRead {
  const buttons = group.buttons
    .filter((button) => button.visible)
    .map((button) => {
      const features = buttonFeatures(button, group, subjects);
      return { button, features, send: likely(BUTTON_USES, weights.buttons, features).send };
    });
  const likeliest = buttons.reduce<(typeof buttons)[number] | null>(
    (best, one) => (best === null || one.send > best.send ? one : best),
    null,
  );
  const submit = likeliest !== null && likeliest.send >= LEAST_SEND ? likeliest.button : null;
  const told = tellingsOf(group, page, submit, subjects);
  const surroundings = { act: subjects.of(told.act), around: subjects.of(told.around), title: subjects.of(told.title) };
  const fields = group.entries.map((entry): FieldRead => {
    const features = fieldFeatures(entry, group, surroundings, subjects);
    const scores = likely(FIELD_USES, weights.fields, features);
    return { entry, features, likely: scores, use: ranked(scores)[0]! };
  });
  const features = groupFeatures(group, page, fields, told, subjects);
  const scores = likely(GROUP_KINDS, weights.groups, features);
  const kind = ranked(scores).find((one) => canBe(one, fields)) ?? "none";
  return { group, buttons, submit, fields, features, likely: scores, kind };
}

/** What the group's button, its surroundings and the page's title say. */
function tellingsOf(group: Group, page: PageDescription, submit: PageField | null, subjects: Subjects) {
  const own = textWithoutLabels(
    group,
    group.entries.map(({ field }) => field),
    subjects,
  );
  return {
    act: submit ? submit.label : "",
    around: [own, group.hints, actionWords(group.form?.action ?? ""), submit?.name ?? "", submit?.id ?? ""].join(" | "),
    title: page.title,
  };
}

/** What a form's address says, without host and query values. */
const actionWords = (action: string): string => action.replace(/^[a-z]+:\/\/[^/]*/i, "").replace(/=[^&]*/g, " ");

/** Whether the group has what a page of that kind cannot be without. */
function canBe(kind: GroupKind, fields: readonly FieldRead[]): boolean {
  const has = (use: FieldUse) => fields.some((field) => field.use === use);
  const secret = has("password") || has("new-password");
  switch (kind) {
    case "sign-in":
      return secret && userNameOf(fields) !== null;
    case "identifier-first":
    case "reset-request":
      return !secret && userNameOf(fields) !== null;
    case "password-only-step":
    case "change-password":
      return secret;
    case "one-time-code-step":
      return has("code");
    default:
      return true;
  }
}

/** A field that could not be the user name at all is none, even where nothing else is. */
const LEAST_USER_NAME = 0.15;

function userNameOf(fields: readonly FieldRead[]): FieldRead | null {
  const best = fields
    .filter(({ entry }) => !entry.field.readOnly && entry.field.control === "input")
    .reduce<FieldRead | null>(
      (first, one) => (first === null || one.likely["user-name"] > first.likely["user-name"] ? one : first),
      null,
    );
  return best !== null && best.likely["user-name"] >= LEAST_USER_NAME ? best : null;
}

/** A registration has nothing but new ones; of a change's the current one is told apart. */
function isNew({ entry, use }: FieldRead, { kind, fields }: GroupRead): boolean {
  if (use === "new-password") return true;
  if (use !== "password" || !hidesText(entry.field)) return false;
  return kind === "register" || !fields.some((field) => field.use === "new-password");
}

function readingOf(read: GroupRead): PageReading {
  const { kind, group, fields, submit } = read;
  const using = (use: FieldUse) => fields.find((field) => field.use === use)?.entry.field.selector ?? null;
  const asksForNew = kind === "register" || kind === "change-password";
  const namesPerson = kind !== "password-only-step" && kind !== "one-time-code-step";
  return {
    kind,
    confidence: Math.round(read.likely[kind] * 100) / 100,
    form: group.form?.selector ?? null,
    userName: namesPerson ? (userNameOf(fields)?.entry.field.selector ?? null) : null,
    password: asksForNew
      ? ((kind === "change-password" ? using("password") : using("new-password")) ??
        using("new-password") ??
        using("password"))
      : (using("password") ?? using("new-password")),
    oneTimeCode: using("code"),
    submit: submit?.selector ?? null,
    newPasswords: !asksForNew
      ? []
      : fields.filter((field) => isNew(field, read)).map(({ entry }) => entry.field.selector),
  };
}
