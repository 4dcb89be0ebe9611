/** An entry of one kind as one of another: what does not fit is kept as extra fields, and finds its way back. */
import { ZodError } from "zod";
import { codeAddress } from "../signin/code";
import { CODE, type Field, fieldOf, type Kind, SIGN_IN_PAGE } from "./kind";
import { type EntryValues, type ExtraValue, readField } from "./values";

const MOST_EXTRAS = 50;

/**
 * @param signInPage given where the new kind needs one and the entry has none
 * @throws RangeError where the new kind needs what the entry has not, or too much would not fit
 */
export function convert(values: EntryValues, from: Kind, to: Kind, signInPage = ""): EntryValues {
  const fields: Record<string, string> = Object.fromEntries(
    to.fields.filter(({ id }) => id !== SIGN_IN_PAGE && id !== CODE).map(({ id }) => [id, ""]),
  );
  const extras: ExtraValue[] = [];
  const fits = (id: string, fieldClass: Field["class"], value: string): boolean => {
    const field = fieldOf(to, id);
    if (!field || id === SIGN_IN_PAGE || id === CODE || field.class !== fieldClass || fields[id] !== "") return false;
    try {
      fields[id] = readField(to, id, value);
      return true;
    } catch (error) {
      if (error instanceof ZodError) return false;
      throw error;
    }
  };
  for (const field of from.fields) {
    const value = values.fields[field.id] ?? "";
    if (value !== "" && !fits(field.id, field.class, value))
      extras.push({ id: field.id, label: field.label, class: field.class, value });
  }
  for (const extra of values.extras) if (!extra.value || !fits(extra.id, extra.class, extra.value)) extras.push(extra);

  const after: EntryValues = { ...values, fields, extras };
  const page = fieldOf(to, SIGN_IN_PAGE);
  const back = extras.find((extra) => extra.id === SIGN_IN_PAGE && extra.class === "open");
  if (page) {
    after.signInPage = values.signInPage || back?.value || signInPage;
    if (back) after.extras = extras.filter((extra) => extra !== back);
    if (page.required && after.signInPage === "") throw new RangeError("Enter the address of the sign-in page.");
  } else if (values.signInPage !== "") {
    const label = fieldOf(from, SIGN_IN_PAGE)?.label ?? "Sign-in page";
    after.extras.push({ id: SIGN_IN_PAGE, label, class: "open", value: values.signInPage });
    after.signInPage = "";
  }
  if (!fieldOf(to, CODE) && values.code) {
    after.extras.push({
      id: CODE,
      label: "One-time code",
      class: "secret",
      value: codeAddress(values.code, values.name),
    });
    after.code = null;
  }
  for (const field of to.fields)
    if (field.required && !field.retired && field.id !== SIGN_IN_PAGE && fields[field.id] === "") {
      if (field.id === to.title) fields[field.id] = values.name;
      else throw new RangeError(`${to.name} requires a value this entry does not have: ${field.label}.`);
    }
  if (to.title) after.name = fields[to.title]!;
  if (after.extras.length > MOST_EXTRAS)
    throw new RangeError(`More than ${MOST_EXTRAS} fields would not fit this kind.`);
  return after;
}
