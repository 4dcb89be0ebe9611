/** Reading and checking what a person fills in for an entry of a kind. */

import { z } from "zod";
import { readMonth } from "../month";
import { plainName } from "../plainName";
import { type CodeSettings, readCodeSettings } from "../signin/code";
import { wholeAddress } from "../signin/site";
import { CODE, type Field, type FieldForm, fieldOf, type Kind, SIGN_IN_PAGE, USER_NAME } from "./kind";

/** Refuses what a transform cannot read, with the sentence it gives. */
const read = <T>(reader: (text: string) => T) =>
  z.string().transform((text, context): T => {
    try {
      return reader(text);
    } catch (error) {
      context.addIssue({
        code: "custom",
        message: error instanceof RangeError ? error.message : "This cannot be understood.",
      });
      return z.NEVER;
    }
  });

const LONGEST_NOTE = 100_000;
const LONGEST_LINE = 1000;

/** Read without what is not seen in it. */
const shown = (least: string, most: number, tooLong: string) =>
  z.string().max(10_000, tooLong).transform(plainName).pipe(z.string().min(1, least).max(most, tooLong));

export const extraFieldSchema = z.strictObject({
  id: z.string().min(1).max(64),
  label: shown("Give the field a name.", 100, "A field’s name has at most 100 characters."),
  class: z.enum(["open", "identifier", "secret"]),
  /** Left out: keep what is there. */
  value: z.string().max(10_000, "A field has at most 10,000 characters.").optional(),
});

export type ExtraValue = z.output<typeof extraFieldSchema>;

const name = shown("Give it a name.", 200, "A name has at most 200 characters.");

/** What every entry has, whatever its kind. */
const common = {
  name,
  description: z.string().trim().max(300, "A description has at most 300 characters.").default(""),
  notes: z.string().max(LONGEST_NOTE, "Notes have at most 100,000 characters.").default(""),
  tags: z
    .array(shown("Give the tag a name.", 50, "A tag has at most 50 characters."))
    .max(20, "At most 20 tags.")
    .default([]),
  extras: z
    .array(extraFieldSchema)
    .max(50, "At most 50 extra fields.")
    // Two of one id would each be the other's class to what is kept.
    .refine((extras) => new Set(extras.map(({ id }) => id)).size === extras.length, "A field appears twice.")
    .default([]),
};

const line = (most = LONGEST_LINE) =>
  z
    .string()
    .max(most, `At most ${most.toLocaleString("en-GB")} characters.`)
    .refine((text) => !/[\n\r]/.test(text), "This field takes one line of text.");

/** Empty, or as the form has it. */
const FORMS: Record<Exclude<FieldForm, "one-time code" | "choice" | "address">, z.ZodType<string, string>> = {
  line: line(),
  password: line(),
  text: z.string().max(LONGEST_NOTE, "At most 100,000 characters."),
  codes: z.string().max(10_000, "At most 10,000 characters."),
  mail: line(320).pipe(z.union([z.literal(""), z.email("This is not an email address.")])),
  phone: line(60).refine((text) => /^[\d\s()+\-/.,#*a-zA-Z]*$/.test(text), "This is not a telephone number."),
  date: line(10).pipe(z.union([z.literal(""), z.iso.date("This is not a date.")])),
  month: line(20)
    .refine((text) => text.trim() === "" || readMonth(text) !== null, "Enter a month as on the card: 08/27.")
    .transform((text) => readMonth(text) ?? ""),
  digits: line(40).refine((text) => /^[\d\s*#-]*$/.test(text), "Use digits only."),
};

function schemaOf(field: Field): z.ZodType<string | undefined, string | undefined> {
  // What is hidden and left out stays as it is; an open value that is left out is empty.
  const optional = (schema: z.ZodType<string, string>) =>
    field.class === "open" ? schema.default("") : schema.optional();
  if (field.form === "choice")
    return optional(
      line(100).refine((text) => text === "" || field.choices!.includes(text), "Choose one of the options."),
    );
  if (field.form === "address" || field.form === "one-time code") throw new Error("read apart");
  const schema = FORMS[field.form];
  return optional(
    field.required && !field.retired
      ? schema.refine((text) => text.trim() !== "", `${field.label} is missing.`)
      : schema,
  );
}

const signInPage = z.string().trim().max(2000, "This address is too long.");
const neededPage = signInPage.min(1, "Enter the address of the sign-in page.").pipe(read(wholeAddress));
const freePage = signInPage.pipe(z.union([z.literal(""), read(wholeAddress)])).default("");

/** An otpauth address or a base32 secret; empty takes the code away. */
const code = z
  .string()
  .max(2000)
  .optional()
  .transform((text, context): CodeSettings | null | undefined => {
    if (text === undefined) return undefined;
    if (text === "") return null;
    const settings = read(readCodeSettings).safeParse(text);
    if (settings.success) return settings.data;
    context.addIssue({ code: "custom", message: settings.error.issues[0]!.message });
    return z.NEVER;
  });

/** What was read; in `fields` only what was given. */
export interface EntryValues {
  name: string;
  description: string;
  notes: string;
  tags: string[];
  extras: ExtraValue[];
  /** Empty where the kind has none. */
  signInPage: string;
  reach: "site" | "host";
  useSeesUserName: boolean;
  /** Undefined: stays as it is. Null: there is none any more. */
  code: CodeSettings | null | undefined;
  /** By field id. */
  fields: Record<string, string>;
}

const schemas = new WeakMap<Kind, z.ZodType<Record<string, unknown>>>();

function schemaFor(kind: Kind): z.ZodType<Record<string, unknown>> {
  const known = schemas.get(kind);
  if (known) return known;
  const fields = Object.fromEntries(
    kind.fields
      .filter((field) => field.id !== SIGN_IN_PAGE && field.id !== CODE)
      .map((field) => [field.id, schemaOf(field)]),
  );
  const page = fieldOf(kind, SIGN_IN_PAGE);
  const schema = z.strictObject({
    ...common,
    ...fields,
    // The name of a kind with a title is that field's value.
    ...(kind.title && { name: z.string().default(""), [kind.title]: name }),
    ...(page && { signInPage: page.required ? neededPage : freePage, reach: z.enum(["site", "host"]).default("site") }),
    ...(fieldOf(kind, CODE) && { code }),
    ...(fieldOf(kind, USER_NAME) && { useSeesUserName: z.boolean().default(false) }),
  });
  schemas.set(kind, schema);
  return schema;
}

/**
 * Reads the values of an entry, flat: what every entry has, and one key for each field of the kind. A hidden value
 * that is left out stays as it is; an empty one is emptied.
 * @throws z.ZodError with the path of what is wrong, unknown keys included
 */
export function readValues(kind: Kind, values: unknown): EntryValues {
  const flat = schemaFor(kind).parse(values) as Record<string, unknown> & z.output<z.ZodObject<typeof common>>;
  const fields: Record<string, string> = {};
  for (const { id } of kind.fields)
    if (id !== SIGN_IN_PAGE && id !== CODE && flat[id] !== undefined) fields[id] = flat[id] as string;
  return {
    name: kind.title ? fields[kind.title]! : flat.name,
    description: flat.description,
    notes: flat.notes,
    tags: flat.tags,
    extras: flat.extras,
    signInPage: (flat.signInPage as string | undefined) ?? "",
    reach: (flat.reach as EntryValues["reach"] | undefined) ?? "site",
    useSeesUserName: (flat.useSeesUserName as boolean | undefined) ?? false,
    code: flat.code as EntryValues["code"],
    fields,
  };
}

/**
 * Reads one value as its field has it.
 * @param id a field of the kind, "description" or "notes"; not the one-time code
 * @throws z.ZodError
 */
export function readField(kind: Kind, id: string, value: string): string {
  if (id === "description" || id === "notes") return common[id].parse(value);
  const field = fieldOf(kind, id)!;
  if (id === SIGN_IN_PAGE) return (field.required ? neededPage : freePage).parse(value);
  return schemaOf(field).parse(value) ?? "";
}
