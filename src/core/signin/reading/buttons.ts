/** Which button of a group sends what was filled in. */
import type { PageField } from "../page";
import type { Subjects } from "../words";
import { type Group, hidesText } from "./groups";

export const BUTTON_USES = ["send", "aside"] as const;
export type ButtonUse = (typeof BUTTON_USES)[number];

/** Features of one button among those of its group. */
export function buttonFeatures(button: PageField, group: Group, subjects: Subjects): Set<string> {
  const found = new Set<string>(["any button"]);
  const visible = group.buttons.filter((one) => one.visible);
  const sends = visible.filter((one) => one.type === "submit" || one.type === "image");
  const kind = button.standsFor === "nothing" ? button.type : `stands for one by its ${button.standsFor}`;
  found.add(kind);
  if (!group.form) found.add(`${kind}, no form`);
  if (sends.length === 0) found.add(`${kind}, and none of type submit`);
  const text = button.label || `${button.name} ${button.id}`;
  const says = subjects.of(text);
  for (const subject of says) found.add(`says ${subject}`);
  if (!says.has("signIn")) for (const subject of says) found.add(`says ${subject}, not signIn`);
  if (says.size === 0) found.add(button.label === "" ? "says nothing" : "says something else");
  if (group.entries.some(({ field }) => hidesText(field)))
    for (const subject of ["reset", "register", "elsewhere", "code"] as const)
      if (says.has(subject)) found.add(`says ${subject} beside a password`);
  for (const subject of subjects.of(`${button.name} ${button.id}`))
    if (["signIn", "send", "next", "aside", "register", "search"].includes(subject)) found.add(`is called ${subject}`);
  if (/submit|primary/i.test(`${button.name} ${button.id} ${button.hints}`)) found.add("is called submit or primary");
  if (/secondary|link|outline|icon|toggle|close/i.test(button.hints)) found.add("is called secondary");
  if (/aria-hidden/.test(button.hints)) found.add("aria-hidden");
  if (visible.length === 1) found.add("the only one");
  if (visible[0] === button) found.add("the first");
  if (sends[0] === button) found.add("the first of type submit");
  if (visible.at(-1) === button) found.add("the last");
  if (button.label.length > 40) found.add("a long text");
  return found;
}
