import type { Field } from "@/core/kinds/kind";
import { ROLES, type Role } from "@/core/kinds/own";
import { kindDesigner as t } from "./strings";
import type { DrawnForm } from "./types";

/** How a field is filled in, and what Galtry does with it where it signs in. */
export const FORMS: { value: string; word: string }[] = [
  { value: "line", word: t.oneLine },
  { value: "text", word: t.text },
  { value: "password", word: t.passwordPinOrCombination },
  { value: "digits", word: t.digits },
  { value: "choice", word: t.choiceFromAList },
  { value: "date", word: t.date },
  { value: "month", word: t.month },
  { value: "mail", word: t.emailAddress },
  { value: "phone", word: t.telephoneNumber },
  { value: "codes", word: t.codesToTickOffOneByOne },
  { value: "role:signInPage", word: t.signInPage },
  { value: "role:userName", word: t.userNameForSigningIn },
  { value: "role:password", word: t.passwordForSigningIn },
  { value: "role:code", word: t.oneTimeCode },
];

export interface Draft {
  key: string;
  id: string | undefined;
  label: string;
  /** A form, or `role:…`. */
  form: string;
  class: Field["class"];
  hint: string;
  choices: string;
  check: "" | "card number" | "IBAN";
  required: boolean;
  issued: boolean;
}

export const isRole = (form: string) => form.startsWith("role:");

/** What is written this way is a secret, whatever it is called. */
export const alwaysSecret = (form: string) => form === "password" || form === "codes";

export const blank = (): Draft => ({
  key: crypto.randomUUID(),
  id: undefined,
  label: "",
  form: "line",
  class: "open",
  hint: "",
  choices: "",
  check: "",
  required: false,
  issued: false,
});

export const draftOf = (field: Field): Draft => ({
  key: field.id,
  id: field.id,
  label: field.label,
  form: (ROLES as readonly string[]).includes(field.id) ? `role:${field.id}` : field.form,
  class: field.class,
  hint: field.hint ?? "",
  choices: field.choices?.join("\n") ?? "",
  check: field.check ?? "",
  required: field.required ?? false,
  issued: field.issued ?? false,
});

export function titleAt(fields: readonly Draft[], title: string | null): number | null {
  const at = fields.findIndex((field) => field.key === title);
  return at === -1 || fields[at]!.form !== "line" || fields[at]!.class !== "open" ? null : at;
}

export function toInput(field: Draft) {
  const role = isRole(field.form) ? (field.form.slice("role:".length) as Role) : undefined;
  return {
    id: field.id,
    role,
    label: field.label,
    class: alwaysSecret(field.form) ? "secret" : field.class,
    form: role ? "line" : (field.form as DrawnForm),
    hint: field.hint,
    choices:
      field.form === "choice"
        ? field.choices
            .split("\n")
            .map((choice) => choice.trim())
            .filter(Boolean)
        : [],
    check: field.check === "" ? undefined : field.check,
    required: field.required,
    issued: field.issued,
  };
}
