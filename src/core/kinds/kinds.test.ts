import { describe, expect, test } from "vitest";
import type { ZodError } from "zod";
import { adviceOn, isCardNumber, isIban } from "./checks";
import { PURPOSES } from "./kind";
import { READY_KINDS, readyKind, WEBSITE_LOGIN } from "./ready";
import { readValues } from "./values";

const refusal = (kindId: string, values: object): string => {
  try {
    readValues(readyKind(kindId), values);
  } catch (error) {
    const [issue] = (error as ZodError).issues;
    return `${issue!.path.join(".")}: ${issue!.message}`;
  }
  return "";
};

describe("ready kinds", () => {
  test("ids are one each, also those of their fields; every purpose has some", () => {
    expect(new Set(READY_KINDS.map((kind) => kind.id)).size).toBe(READY_KINDS.length);
    for (const kind of READY_KINDS) expect(new Set(kind.fields.map((one) => one.id)).size).toBe(kind.fields.length);
    for (const { purpose } of PURPOSES) expect(READY_KINDS.some((kind) => kind.purpose === purpose)).toBe(true);
  });

  test("nothing that opens a thing is open: codes, PINs, keys and passwords are secret", () => {
    for (const kind of READY_KINDS)
      for (const field of kind.fields)
        if (/password|\bPIN\b|code$|combination|licence key/i.test(field.label) && !/sort|post/i.test(field.label))
          expect(`${kind.name}: ${field.label}: ${field.class}`).toBe(`${kind.name}: ${field.label}: secret`);
  });

  test("every kind is read with a name alone, but for what it cannot be without", () => {
    const missing = READY_KINDS.filter((kind) => refusal(kind.id, { name: "x" }) !== "").map((kind) => kind.id);
    expect(missing).toEqual(["website-login"]);
  });
});

describe("values", () => {
  test("a website login", () => {
    const read = readValues(WEBSITE_LOGIN, { name: " Pellam ", signInPage: "pellam.example/in", password: "x" });
    expect(read).toMatchObject({ name: "Pellam", signInPage: "https://pellam.example/in", fields: { password: "x" } });
    // Left out: stays as it is. Empty: emptied.
    expect(read.fields).not.toHaveProperty("userName");
    expect(read.code).toBeUndefined();
    expect(readValues(WEBSITE_LOGIN, { name: "x", signInPage: "a.example", code: "" }).code).toBeNull();
  });

  test.each([
    ["website-login", { name: "x" }, "signInPage: "],
    ["website-login", { name: "x", signInPage: "ftp://a" }, "signInPage: An address begins with"],
    ["website-login", { name: "\u0007\u200b", signInPage: "a.example" }, "name: Give it a name."],
    ["door", { name: "x", "code-to-enter": "12a4" }, "code-to-enter: Use digits only."],
    ["door", { name: "x", signInPage: "https://a.example" }, ": "],
    ["card", { name: "x", expires: "13/2028" }, "expires: Enter a month as on the card: 08/27."],
    ["identity-paper", { name: "x", expires: "2026-02-30" }, "expires: This is not a date."],
    ["identity-paper", { name: "x", paper: "Treaty" }, "paper: Choose one of the options"],
    ["contact", { name: "x", mail: "nobody" }, "mail: "],
    ["wifi", { name: "x", network: " " }, "network: Network name is missing."],
    ["password", { name: "x", password: "two\nlines" }, "password: This field takes one line of text."],
  ])("%s %j is refused at its place", (kind, values, message) =>
    expect(refusal(kind, values).slice(0, message.length)).toBe(message),
  );

  test("open values that are left out are empty, hidden ones stay", () => {
    expect(readValues(readyKind("door"), { name: "x" }).fields).toEqual({ where: "", keyholder: "", line: "" });
  });
});

describe("checks", () => {
  // Made for this test: seven nines and ones are no bank's.
  test("a card number's last digit proves the others", () => {
    expect(isCardNumber("9999 0000 0000 0003")).toBe(false);
    const valid = Array.from({ length: 10 }, (_, i) => `999900000000000${i}`).filter(isCardNumber);
    expect(valid).toHaveLength(1);
    expect(isCardNumber(`${valid[0]!.slice(0, 4)}-${valid[0]!.slice(4)}`)).toBe(true);
    expect(isCardNumber("1234")).toBe(false);
  });

  test("an IBAN's check digits", () => {
    // Of an invented bank: of all pairs of check digits (02 to 98) one holds, and it proves order as well as digits.
    const iban = (pair: number, rest = "TARR12345612345678") => `GB${String(pair).padStart(2, "0")}${rest}`;
    const valid = Array.from({ length: 97 }, (_, i) => i + 2).filter((pair) => isIban(iban(pair)));
    expect(valid).toHaveLength(1);
    expect(isIban(iban(valid[0]!).replace(/(.{4})/g, "$1 "))).toBe(true);
    expect(isIban(iban(valid[0]!, "TARR12345612345687"))).toBe(false);
    expect(isIban("hello")).toBe(false);
  });

  test("advice, not refusal; nothing to say of nothing", () => {
    expect(adviceOn("IBAN", "")).toBeNull();
    expect(adviceOn(undefined, "x")).toBeNull();
    expect(adviceOn("card number", "1234 5678 9012 3456")).toContain("not a valid");
  });
});
