/** What each labelled page teaches: the features of its buttons, fields and groups, and what each of them is. */

import type { PageField } from "../../src/core/signin/page";
import { type GroupRead, readGroups } from "../../src/core/signin/read";
import type { ButtonUse } from "../../src/core/signin/reading/buttons";
import type { FieldUse } from "../../src/core/signin/reading/fields";
import { hidesText } from "../../src/core/signin/reading/groups";
import type { GroupKind } from "../../src/core/signin/reading/kinds";
import type { ReadingWeights } from "../../src/core/signin/reading/tables";
import { Subjects } from "../../src/core/signin/words";
import type { LabelledPage } from "./corpus";
import type { Example } from "./regression";

/** The group that the page's label speaks of. */
function labelledGroup(page: LabelledPage, groups: readonly GroupRead[]): GroupRead | null {
  const { kind, parts } = page;
  if (kind === "none") return null;
  const named = [parts.password, parts.userName, parts.oneTimeCode, parts.submit].find((one) => one);
  if (named)
    return (
      groups.find(({ group }) => [...group.fields, ...group.buttons].some(({ selector }) => selector === named)) ?? null
    );
  const wants = /sign-in|password|register/.test(kind);
  const fitting = groups.filter(({ group }) => group.entries.some(({ field }) => hidesText(field)) === wants);
  return (
    [...(fitting.length > 0 ? fitting : groups)].sort((a, b) => b.group.entries.length - a.group.entries.length)[0] ??
    null
  );
}

function* inPage(page: LabelledPage, weights: ReadingWeights): Generator<{ read: GroupRead; own: boolean }> {
  const groups = readGroups(page.page.description, weights);
  const own = labelledGroup(page, groups);
  for (const read of groups) yield { read, own: read === own };
}

export function buttonExamples(page: LabelledPage, weights: ReadingWeights): Example<ButtonUse>[] {
  if (page.parts.submit === undefined) return [];
  return [...inPage(page, weights)].flatMap(({ read, own }) =>
    !own
      ? []
      : read.buttons.map(({ button, features }) => ({
          features: [...features],
          is: button.selector === page.parts.submit ? ("send" as const) : ("aside" as const),
          weight: page.written ? 5 : 1,
        })),
  );
}

export function fieldExamples(page: LabelledPage, weights: ReadingWeights): Example<FieldUse>[] {
  const known = page.parts.password !== undefined || page.parts.userName !== undefined;
  return [...inPage(page, weights)].flatMap(({ read, own }) => {
    const { kind } = page;
    if (kind === "none")
      return read.fields.flatMap(({ entry, features }) => {
        const is = useWhereNone(entry.field);
        return is === null ? [] : [{ features: [...features], is, weight: 0.3 }];
      });
    if (!own) return [];
    return read.fields.flatMap((one) => {
      const is = known ? useByLabel(page, one, read) : useByPlace(page.kind, one, read);
      return is === null ? [] : [{ features: [...one.features], is, weight: page.written ? 5 : 1 }];
    });
  });
}

const subjects = new Subjects();

/**
 * What is hidden as it is typed stays a password where the page is for something else, and a name a name: what it is
 * all for is the group's to tell.
 */
function useWhereNone(field: PageField): FieldUse | null {
  if (hidesText(field)) return "password";
  const says = subjects.of(`${field.label} | ${field.placeholder} | ${field.name} | ${field.id}`);
  const mayName = field.type === "email" || field.type === "tel" || says.has("userName") || says.has("email");
  return mayName || says.has("phone") || says.has("code") || says.has("password") ? null : "other";
}

function useByLabel(
  { parts, kind }: LabelledPage,
  { entry }: GroupRead["fields"][number],
  read: GroupRead,
): FieldUse | null {
  const { selector } = entry.field;
  const holds = (part: string | null | undefined) =>
    part === selector || entry.boxes.some((box) => box.selector === part);
  if (holds(parts.userName)) return "user-name";
  if (holds(parts.oneTimeCode)) return "code";
  const secrets = read.fields.filter((one) => hidesText(one.entry.field)).length;
  if (holds(parts.password))
    return kind === "register" || (kind === "change-password" && secrets < 3 && isNew(parts, read))
      ? "new-password"
      : "password";
  if (hidesText(entry.field)) return kind === "register" || kind === "change-password" ? "new-password" : "other";
  if (parts.userName === undefined && entry.field.type !== "hidden") return null;
  return "other";
}

/** A page after a reset asks for no old password: its first is new. */
const isNew = (parts: LabelledPage["parts"], read: GroupRead): boolean =>
  read.fields.some(
    ({ entry }) =>
      entry.field.selector === parts.password &&
      (entry.field.id === "n" ||
        /new|pw1|choose/i.test(`${entry.field.name} ${entry.field.label} ${entry.field.autocomplete}`)),
  );

function useByPlace(kind: GroupKind, { entry }: GroupRead["fields"][number], read: GroupRead): FieldUse | null {
  const secrets = read.fields.filter((one) => hidesText(one.entry.field));
  if (hidesText(entry.field)) {
    if (kind === "register") return "new-password";
    if (kind === "change-password")
      return secrets.length > 2 && secrets[0]!.entry === entry
        ? "password"
        : secrets.length > 2
          ? "new-password"
          : null;
    return kind === "one-time-code-step" ? "code" : secrets[0]!.entry === entry ? "password" : null;
  }
  if (kind === "one-time-code-step") return read.fields.length === 1 ? "code" : null;
  const before = read.fields.filter((one) => !hidesText(one.entry.field));
  return kind === "sign-in" || kind === "reset-request" ? (before.length === 1 ? "user-name" : null) : null;
}

export function groupExamples(page: LabelledPage, weights: ReadingWeights): Example<GroupKind>[] {
  return [...inPage(page, weights)].flatMap(({ read, own }) => {
    const features = [...read.features];
    const weight = page.written ? 5 : page.foreign ? 2 : page.mute ? 0.2 : 1;
    if (own || page.kind === "none") return [{ features, is: page.kind, weight }];
    if (!page.whole) return [];
    const secret = read.fields.some(({ entry }) => hidesText(entry.field));
    return [{ features, is: secret ? ("register" as const) : ("none" as const), weight }];
  });
}
