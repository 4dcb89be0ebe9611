/** Kinds that an organisation makes for itself: read from what is typed, and changed without losing a value. */
import { z } from "zod";
import { plainName } from "../plainName";
import { askedFor, CODE, type Field, fieldOf, type Kind, PASSWORD, SIGN_IN_PAGE, USER_NAME } from "./kind";

/** Fields that Galtry itself works with; a kind has each at most once, under its own id. */
export const ROLES = [SIGN_IN_PAGE, USER_NAME, PASSWORD, CODE] as const;
export type Role = (typeof ROLES)[number];

const AS_ROLE: Record<Role, Pick<Field, "class" | "form">> = {
  [SIGN_IN_PAGE]: { class: "open", form: "address" },
  [USER_NAME]: { class: "identifier", form: "line" },
  [PASSWORD]: { class: "secret", form: "password" },
  [CODE]: { class: "secret", form: "one-time code" },
};

const FORMS = ["line", "text", "mail", "phone", "date", "month", "digits", "password", "codes", "choice"] as const;

const label = z
  .string()
  .max(1000, "A field’s name has at most 60 characters.")
  .transform(plainName)
  .pipe(z.string().min(1, "Give the field a name.").max(60, "A field’s name has at most 60 characters."));

const fieldSchema = z
  .strictObject({
    /** Of a field that is there already. */
    id: z.string().min(1).max(64).optional(),
    role: z.enum(ROLES).optional(),
    label,
    class: z.enum(["open", "identifier", "secret"]).default("open"),
    form: z.enum(FORMS).default("line"),
    hint: z.string().trim().max(200, "A hint has at most 200 characters.").default(""),
    choices: z.array(z.string().trim().min(1).max(100)).max(50, "At most 50 choices.").default([]),
    check: z.enum(["card number", "IBAN"]).optional(),
    required: z.boolean().default(false),
    issued: z.boolean().default(false),
  })
  .refine((field) => field.form !== "choice" || field.choices.length > 1, {
    message: "Add at least two choices.",
    path: ["choices"],
  })
  .refine((field) => !["password", "codes"].includes(field.form) || field.role || field.class === "secret", {
    message: "Fields of this type are always hidden.",
    path: ["class"],
  });

export const ownKindSchema = z
  .strictObject({
    name: z
      .string()
      .max(1000, "A kind’s name has at most 60 characters.")
      .transform(plainName)
      .pipe(z.string().min(1, "Give it a name.").max(60, "A kind’s name has at most 60 characters.")),
    purpose: z.enum(["sign-in", "get-in", "pay", "prove", "run", "keep"]),
    fields: z.array(fieldSchema).min(1, "A kind has at least one field.").max(40, "A kind has at most 40 fields."),
    /** Months after which its secrets are old; null for never. */
    oldAfter: z.number().int().min(1).max(240).nullable().default(null),
    /** Place in `fields` of the one that is the entry's title. */
    title: z.number().int().min(0).nullable().default(null),
  })
  .superRefine((kind, context) => {
    const roles = kind.fields.flatMap((field, at) => (field.role ? [{ role: field.role, at }] : []));
    for (const { role, at } of roles)
      if (roles.findIndex((one) => one.role === role) !== roles.findLastIndex((one) => one.role === role))
        context.addIssue({
          code: "custom",
          message: "A kind can have only one field of this type.",
          path: ["fields", at, "role"],
        });
    const title = kind.title === null ? null : kind.fields[kind.title];
    if (title !== null && (title?.class !== "open" || title.form !== "line" || title.role))
      context.addIssue({
        code: "custom",
        message: "The title must be one line of text that people with Use can read.",
        path: ["title"],
      });
  });

export type OwnKind = z.output<typeof ownKindSchema>;

/** A kind as it would be drawn anew, by its fields that are asked for: what another Galtry wrote can be made here. */
export function drawnFrom(kind: Kind): z.input<typeof ownKindSchema> {
  const fields = askedFor(kind);
  const title = fields.findIndex((field) => field.id === kind.title);
  return {
    name: kind.name,
    purpose: kind.purpose,
    fields: fields.map((field) => {
      const role = ROLES.find((one) => one === field.id);
      return {
        ...(role && { role }),
        label: field.label,
        class: field.class,
        form: role ? "line" : (field.form as Draft["form"]),
        hint: field.hint ?? "",
        choices: [...(field.choices ?? [])],
        ...(field.check && { check: field.check }),
        required: field.required ?? false,
        issued: field.issued ?? false,
      };
    }),
    oldAfter: kind.oldAfter ?? null,
    title: title === -1 ? null : title,
  };
}

type Draft = OwnKind["fields"][number];

function toField(draft: Draft, id: string): Field {
  const as = draft.role ? AS_ROLE[draft.role] : { class: draft.class, form: draft.form };
  return {
    id,
    label: draft.label,
    ...as,
    ...(draft.hint && { hint: draft.hint }),
    ...(as.form === "choice" && { choices: draft.choices }),
    ...(draft.check && { check: draft.check }),
    ...(draft.issued && { issued: true }),
    ...(draft.required && as.form !== "one-time code" && { required: true }),
  };
}

/**
 * The fields and title of a kind as drafted. Those taken out stay as retired when the kind is in use, so that what
 * entries hold in them keeps its name and class.
 * @param newId makes an id for a field that is new
 * @throws RangeError where a draft would lift or lower who sees values that are there already
 */
export function kindFrom(
  draft: OwnKind,
  before: Kind | null,
  inUse: boolean,
  newId: () => string,
): Pick<Kind, "fields" | "title"> {
  const fields = draft.fields.map((field) => {
    const known = field.id === undefined ? undefined : before && fieldOf(before, field.id);
    const again = field.role && before ? fieldOf(before, field.role) : undefined;
    const id = (known ?? again)?.id ?? field.role ?? newId();
    const made = toField(field, id);
    if (known && field.role !== asRole(known.id))
      throw new RangeError(`${field.label}: this field cannot become one that Galtry signs in with.`);
    if (inUse && known && known.class !== made.class)
      throw new RangeError(
        `${field.label}: you cannot change who sees it while entries have a value in it. Remove it and add another field.`,
      );
    return made;
  });
  const retired = inUse
    ? (before?.fields ?? []).filter((old) => !fields.some(({ id }) => id === old.id)).map(retire)
    : [];
  const title = draft.title === null ? undefined : fields[draft.title]!.id;
  return {
    fields: [...fields.map((field) => (field.id === title ? { ...field, required: true } : field)), ...retired],
    ...(title && { title }),
  };
}

const retire = ({ required: _, ...field }: Field): Field => ({ ...field, retired: true });

const asRole = (id: string): Role | undefined => ROLES.find((role) => role === id);
