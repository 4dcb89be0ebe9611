import { describe, expect, test } from "vitest";
import { askedFor, fieldOf, type Kind } from "./kind";
import { drawnFrom, kindFrom, ownKindSchema } from "./own";
import { READY_KINDS } from "./ready";

const counter = () => {
  let made = 0;
  return () => `field-${++made}`;
};
const PROJECTOR = {
  name: "Film projector",
  purpose: "run",
  fields: [
    { label: "Model" },
    { label: "Serial number", class: "identifier" },
    { label: "Service PIN", class: "secret", form: "password" },
    { label: "Gauge", form: "choice", choices: ["16 mm", "35 mm"] },
  ],
  title: 0,
};
const made = (): Kind => ({
  id: "k",
  name: "Film projector",
  purpose: "run",
  own: true,
  ...kindFrom(ownKindSchema.parse(PROJECTOR), null, false, counter()),
});
const issue = (kind: object) => {
  const read = ownKindSchema.safeParse({ ...PROJECTOR, ...kind });
  return read.success ? null : { path: read.error.issues[0]!.path.join("."), says: read.error.issues[0]!.message };
};

describe("what is typed", () => {
  test.each([
    [{ name: "  " }, "name", "Give it a name."],
    [{ fields: [] }, "fields", "A kind has at least one field."],
    [{ fields: [{ label: "\u202e\n" }] }, "fields.0.label", "Give the field a name."],
    [
      { fields: [{ label: "Gauge", form: "choice", choices: ["one"] }] },
      "fields.0.choices",
      "Add at least two choices.",
    ],
    [{ fields: [{ label: "PIN", form: "password" }] }, "fields.0.class", "Fields of this type are always hidden."],
    [{ title: 1 }, "title", "The title must be one line of text that people with Use can read."],
    [{ title: 2 }, "title", "The title must be one line of text that people with Use can read."],
  ])("%j is refused at %s", (kind, path, says) => expect(issue(kind)).toEqual({ path, says }));

  test("what Galtry signs in with stands in a kind once", () =>
    expect(
      issue({
        fields: [
          { label: "Page", role: "signInPage" },
          { label: "Page again", role: "signInPage" },
        ],
        title: null,
      }),
    ).toEqual({ path: "fields.0.role", says: "A kind can have only one field of this type." }));
});

describe("a kind", () => {
  test("has the fields drawn, in their order, and a title that is always asked for", () => {
    const { fields, title } = made();
    expect(fields.map(({ id, label, class: fieldClass, form }) => [id, label, fieldClass, form])).toEqual([
      ["field-1", "Model", "open", "line"],
      ["field-2", "Serial number", "identifier", "line"],
      ["field-3", "Service PIN", "secret", "password"],
      ["field-4", "Gauge", "open", "choice"],
    ]);
    expect(title).toBe("field-1");
    expect(fields[0]!.required).toBe(true);
  });

  test("a role says class and form by itself, under its own id", () => {
    const { fields } = kindFrom(
      ownKindSchema.parse({
        name: "Portal",
        purpose: "sign-in",
        fields: [
          { label: "Where", role: "signInPage", class: "secret" },
          { label: "Member number", role: "userName" },
          { label: "Word", role: "password", class: "open" },
        ],
      }),
      null,
      false,
      counter(),
    );
    expect(fields.map(({ id, class: fieldClass, form }) => [id, fieldClass, form])).toEqual([
      ["signInPage", "open", "address"],
      ["userName", "identifier", "line"],
      ["password", "secret", "password"],
    ]);
  });

  test("changed while in use: what is taken out stays as retired with its class, what is renamed keeps its id", () => {
    const before = made();
    const after = kindFrom(
      ownKindSchema.parse({
        ...PROJECTOR,
        fields: [
          { id: "field-1", label: "Make and model" },
          { label: "Lamp hours", form: "digits" },
        ],
      }),
      before,
      true,
      () => "field-9",
    );
    expect(after.fields.map(({ id, label, retired }) => [id, label, retired ?? false])).toEqual([
      ["field-1", "Make and model", false],
      ["field-9", "Lamp hours", false],
      ["field-2", "Serial number", true],
      ["field-3", "Service PIN", true],
      ["field-4", "Gauge", true],
    ]);
    expect(fieldOf({ ...before, ...after }, "field-3")!.class).toBe("secret");
    expect(askedFor({ ...before, ...after }).map(({ id }) => id)).toEqual(["field-1", "field-9"]);
  });

  test("changed while nothing is of it: what is taken out goes", () => {
    const draft = ownKindSchema.parse({ ...PROJECTOR, fields: [{ id: "field-1", label: "Model" }] });
    expect(kindFrom(draft, made(), false, counter()).fields).toHaveLength(1);
  });

  test.each([
    ["a secret does not become open", { id: "field-3", label: "Service PIN", class: "open" }],
    ["an open value does not become a secret", { id: "field-4", label: "Gauge", class: "secret" }],
    ["a field does not become the password", { id: "field-3", label: "Service PIN", role: "password" }],
  ])("while in use, %s", (_, field) => {
    const draft = ownKindSchema.parse({ ...PROJECTOR, fields: [{ id: "field-1", label: "Model" }, field] });
    expect(() => kindFrom(draft, made(), true, counter())).toThrow(RangeError);
  });
});

test("drawn anew from its definition, any kind is the same again but for the ids of its fields", () => {
  for (const kind of [...READY_KINDS, made()]) {
    const read = ownKindSchema.safeParse(drawnFrom(kind));
    // Ready kinds may sign in with an address under another label; those read too.
    expect(read.success ? null : `${kind.id}: ${read.error.issues[0]!.path} ${read.error.issues[0]!.message}`).toBe(
      null,
    );
    const again = kindFrom(read.data!, null, false, counter());
    const plain = (fields: Kind["fields"]) =>
      fields.map(({ id: _, required: __, ...field }) => JSON.stringify(field, Object.keys(field).sort()));
    expect(plain(again.fields)).toEqual(plain(askedFor(kind)));
  }
});
