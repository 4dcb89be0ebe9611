/** Which fields and buttons of a page belong together: those of a form, or of the container they share with a button. */
import type { PageDescription, PageField } from "../page";
import type { Subjects } from "../words";

/** What one fills in as one thing: a field, or the boxes that take one character each. */
export interface Entry {
  field: PageField;
  /** In order; empty for an ordinary field. */
  boxes: PageField[];
}

/** One form, or the fields that stand together where there is none. */
export interface Group {
  form: PageDescription["forms"][number] | null;
  text: string;
  hints: string;
  links: string;
  fields: PageField[];
  /** What can be filled in, in the order of the page. */
  entries: Entry[];
  buttons: PageField[];
}

const TEXT_LIKE = new Set(["text", "email", "tel", "number", "url", "search", "date", "month", ""]);

export const isButton = (field: Pick<PageField, "control" | "type">): boolean =>
  field.control === "button" || (field.control === "input" && ["submit", "image", "button"].includes(field.type));

/** A part of a control that only looks like a field: nobody gets into it. */
const isOrnament = ({ readOnly, hints }: PageField): boolean => readOnly && /aria-hidden/.test(hints);

export const isFillable = (field: PageField): boolean =>
  field.visible &&
  !field.disabled &&
  !isOrnament(field) &&
  ((field.control === "input" && (TEXT_LIKE.has(field.type) || field.type === "password")) ||
    field.control === "textarea");

/** A field whose characters nobody sees. */
export const hidesText = (field: PageField): boolean => field.type === "password" || field.masked;

export function groupsOf(page: PageDescription, subjects: Subjects): Group[] {
  const groups: Group[] = page.forms.map((form) => ({
    form,
    ...{ text: form.text, hints: form.hints, links: form.links },
    ...{ fields: [], entries: [], buttons: [] },
  }));
  const loose: PageField[] = [];
  for (const field of page.fields) {
    const group = field.form === null ? undefined : groups[field.form];
    if (!group) loose.push(field);
    else (isButton(field) ? group.buttons : group.fields).push(field);
  }
  const senders = loose.filter((field) => isSender(field, subjects));
  for (const group of groups) besideTheForm(page, group, senders);
  return [...groups, ...looseGroups(page, loose, senders)]
    .map((group) => ({
      ...group,
      entries: looked(entriesOf(group.fields)),
      buttons: group.buttons.slice(0, MOST_LOOKED_AT),
    }))
    .filter((group) => group.entries.length > 0);
}

/** So many fields and buttons of a group are looked at: no form that people sign in with has more. */
const MOST_LOOKED_AT = 60;

/** Those around the first password, where there are more than are looked at. */
function looked(entries: Entry[]): Entry[] {
  if (entries.length <= MOST_LOOKED_AT) return entries;
  const secret = entries.findIndex(({ field }) => hidesText(field));
  const from = Math.max(0, secret - MOST_LOOKED_AT / 2);
  return entries.slice(from, from + MOST_LOOKED_AT);
}

/** So many boxes of one character make one field: fewer are a middle initial and the like. */
const FEWEST_BOXES = 3;

function entriesOf(fields: readonly PageField[]): Entry[] {
  const entries: Entry[] = [];
  const fillable = fields.filter(isFillable);
  for (let at = 0; at < fillable.length; ) {
    const field = fillable[at]!;
    let end = at;
    while (isBox(fillable[end]) && fillable[end]!.type === field.type) end++;
    const boxes = end - at >= FEWEST_BOXES ? fillable.slice(at, end) : [];
    entries.push({ field, boxes });
    at += Math.max(1, boxes.length);
  }
  return entries;
}

const isBox = (field: PageField | undefined): boolean =>
  field !== undefined && field.maxLength === 1 && field.control === "input" && field.type !== "email";

const isSender = (field: PageField, subjects: Subjects): boolean =>
  isButton(field) && field.visible && !subjects.of(field.label).has("aside");

/** A form without a button takes those of the nearest container around it that holds one: windows that scripts draw. */
function besideTheForm(page: PageDescription, group: Group, senders: PageField[]): void {
  const field = group.fields.find(isFillable);
  if (!field || group.buttons.some(({ visible }) => visible)) return;
  const home = [...field.within].reverse().find((id) => senders.some((sender) => sender.within.includes(id)));
  if (home === undefined) return;
  group.buttons.push(...senders.filter((sender) => sender.within.includes(home)));
  const { text = "", hints = "", links = "" } = page.containers[home] ?? {};
  Object.assign(group, {
    text: `${group.text} ${text}`,
    hints: `${group.hints} ${hints}`,
    links: `${group.links} ${links}`,
  });
}

/** Each fillable field climbs to the nearest container that also holds a button which could send it. */
function looseGroups(page: PageDescription, loose: PageField[], senders: PageField[]): Group[] {
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
    links: page.containers[id]?.links ?? "",
    fields,
    entries: [],
    buttons: loose.filter((field) => isButton(field) && field.within.includes(id)),
  }));
}
