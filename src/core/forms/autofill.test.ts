import { describe, expect, test } from "vitest";
import { fieldsFor, kindsFor, monthFor, optionFor, tokenOf, valuesFor } from "./autofill";

const CARD = {
  holder: "CLEMENTINE RUDDOCK",
  number: "9999 0000 0000 0004",
  expires: "2028-09",
  "security-code": "118",
  pin: "4029",
};

describe("which field a form means", () => {
  test.each([
    ["cc-number", "cc-number"],
    ["section-pay billing cc-number", "cc-number"],
    ["shipping street-address", "street-address"],
    ["work tel webauthn", "tel"],
    ["Postal-Code", "postal-code"],
    ["off", null],
    ["on", null],
    ["new-password", null],
    ["cc-number cc-csc", null],
    ["", null],
    ["__proto__", null],
    ["constructor", null],
  ])("%s is %s", (attribute, token) => expect(tokenOf(attribute)).toBe(token));

  test("a name alone asks for no entry; a card's number, an address's street and a telephone do", () => {
    expect(kindsFor(["name"])).toEqual([]);
    expect(kindsFor(["cc-name", "cc-number"])).toEqual(["card"]);
    expect(kindsFor(["name", "postal-code", "email"])).toEqual(["postal-address", "contact"]);
  });
});

describe("what goes into it", () => {
  test("nothing of an entry that the form has no field for: no PIN ever, no security code unasked", () => {
    expect(fieldsFor("card", ["cc-number", "cc-exp-month", "cc-exp-year", "pin"])).toEqual(["number", "expires"]);
    expect(Object.keys(valuesFor("card", ["cc-number", "toString", "__proto__", "pin"], CARD))).toEqual(["cc-number"]);
  });

  test("a card, in the parts a form asks for", () => {
    const tokens = ["cc-name", "cc-given-name", "cc-family-name", "cc-number", "cc-exp-month", "cc-exp-year", "cc-csc"];
    expect(valuesFor("card", tokens, CARD)).toEqual({
      "cc-name": "CLEMENTINE RUDDOCK",
      "cc-given-name": "CLEMENTINE",
      "cc-family-name": "RUDDOCK",
      "cc-number": "9999000000000004",
      "cc-exp-month": "09",
      "cc-exp-year": "2028",
      "cc-csc": "118",
    });
  });

  test("an address line by line; what it lacks is left out", () => {
    const address = { addressee: "Loom House", lines: "4 Shuttle Row\n\n Back gate ", postcode: "TR9 4LH" };
    const tokens = ["organization", "address-line1", "address-line2", "address-line3", "postal-code", "country"];
    expect(valuesFor("postal-address", tokens, address)).toEqual({
      organization: "Loom House",
      "address-line1": "4 Shuttle Row",
      "address-line2": "Back gate",
      "postal-code": "TR9 4LH",
    });
  });

  test("a name of one word has no given name", () => {
    expect(valuesFor("card", ["cc-given-name", "cc-family-name"], { holder: "Tarrowick" })).toEqual({
      "cc-family-name": "Tarrowick",
    });
  });
});

describe("as the page wants it", () => {
  test.each([
    [{ type: "month", maxLength: null, placeholder: "" }, "2028-09"],
    [{ type: "text", maxLength: 5, placeholder: "MM/YY" }, "09/28"],
    [{ type: "text", maxLength: null, placeholder: "" }, "09/28"],
    [{ type: "text", maxLength: 7, placeholder: "" }, "09/2028"],
    [{ type: "text", maxLength: 7, placeholder: "MM / YY" }, "09/28"],
    [{ type: "tel", maxLength: null, placeholder: "MM/JJJJ" }, "09/2028"],
  ])("a month in %j is %s", (field, value) => expect(monthFor("2028-09", field)).toBe(value));

  test("options by value, by what they say, and in short", () => {
    const months = [
      { value: "8", text: "August" },
      { value: "9", text: "September" },
    ];
    expect(optionFor("cc-exp-month", "09", months)).toBe("9");
    expect(optionFor("cc-exp-year", "2028", [{ value: "28", text: "2028" }])).toBe("28");
    expect(optionFor("country", "norway", [{ value: "NO", text: "Norway" }])).toBe("NO");
    expect(optionFor("country", "Norway", [{ value: "SE", text: "Sweden" }])).toBeNull();
  });
});
