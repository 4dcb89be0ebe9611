import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { convert } from "./convert";
import { READY_KINDS, readyKind } from "./ready";
import type { EntryValues } from "./values";

const values = (more: Partial<EntryValues> = {}): EntryValues => ({
  name: "Pellam",
  description: "box office",
  notes: "Ring first.",
  tags: ["desk"],
  extras: [],
  signInPage: "https://pellam.example/in",
  reach: "site",
  useSeesUserName: false,
  code: null,
  fields: { userName: "desk", password: "p 1" },
  ...more,
});
const [login, note, password] = [readyKind("website-login"), readyKind("note"), readyKind("password")];

describe("an entry of another kind", () => {
  test("what changed while it was being read becomes extra fields of its class, and nothing is lost", () => {
    const code = { secret: "JBSWY3DPEHPK3PXP", digits: 6, period: 30, algorithm: "SHA1" } as const;
    const { extras, fields, signInPage, code: left, name } = convert(values({ code }), login, note);
    expect(extras.map(({ id, class: fieldClass }) => [id, fieldClass])).toEqual([
      ["userName", "identifier"],
      ["password", "secret"],
      ["signInPage", "open"],
      ["code", "secret"],
    ]);
    expect(extras.find((one) => one.id === "code")!.value).toContain("JBSWY3DPEHPK3PXP");
    expect([signInPage, left, name]).toEqual(["", null, "Pellam"]);
    expect(Object.values(fields).join("")).toBe("");
  });

  test("what fits stays where it is", () => {
    const { extras, fields } = convert(values(), login, password);
    expect(fields).toMatchObject({ userName: "desk", password: "p 1" });
    expect(extras.map((one) => one.id)).toEqual(["signInPage"]);
  });

  test("and back: every value finds its place again", () => {
    const away = convert(values(), login, note);
    const back = convert(away, note, login);
    expect(back).toEqual(values({ fields: { ...back.fields, userName: "desk", password: "p 1" } }));
    expect(back.extras).toEqual([]);
  });

  test("a secret never moves into a field that others may read", () => {
    for (const from of READY_KINDS)
      for (const to of READY_KINDS)
        for (const field of from.fields.filter((one) => one.class !== "open" && one.form !== "one-time code")) {
          let after: EntryValues;
          try {
            after = convert(values({ fields: { [field.id]: "4471" } }), from, to, "https://pellam.example/in");
          } catch (error) {
            expect(error).toBeInstanceOf(RangeError);
            continue;
          }
          for (const other of to.fields.filter((one) => one.class === "open"))
            expect(`${from.id} ${to.id} ${other.id} ${after.fields[other.id] ?? ""}`).not.toContain("4471");
        }
  });

  test("where one signs in is asked for, and the most extra fields are fifty", () => {
    expect(() => convert(values({ signInPage: "" }), note, login)).toThrow("Enter the address of the sign-in page.");
    expect(convert(values({ signInPage: "" }), note, login, "https://a.example/").signInPage).toBe(
      "https://a.example/",
    );
    const extras = Array.from({ length: 50 }, (_, at) => ({
      id: `x${at}`,
      label: `X ${at}`,
      class: "open" as const,
      value: "v",
    }));
    expect(() => convert(values({ extras }), login, note)).toThrow("More than 50 fields");
  });

  test("any two ready kinds: no value of the entry goes missing on the way", () =>
    fc.assert(
      fc.property(fc.constantFrom(...READY_KINDS), fc.constantFrom(...READY_KINDS), (from, to) => {
        const filled = from.fields.filter(({ form }) => form === "line" || form === "password" || form === "text");
        const fields = Object.fromEntries(filled.map(({ id }, at) => [id, `value ${at}`]));
        const has = from.fields.some(({ id }) => id === "signInPage");
        let after: EntryValues;
        try {
          after = convert(
            values({ fields, signInPage: has ? "https://a.example/" : "" }),
            from,
            to,
            "https://b.example/",
          );
        } catch (error) {
          expect(error).toBeInstanceOf(RangeError);
          return;
        }
        const held = [...Object.values(after.fields), ...after.extras.map((one) => one.value)];
        for (const value of Object.values(fields)) expect(held).toContain(value);
      }),
    ));
});
