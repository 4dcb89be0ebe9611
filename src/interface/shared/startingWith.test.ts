import { expect, test } from "vitest";
import { startingWith } from "./startingWith";

const KINDS = [
  "Website login",
  "Password",
  "Payment card",
  "Postal address",
  "Safe",
  "Server or device",
  "Ökonomie",
  "Note",
];
const to = (typed: string, here = 0) => {
  const found = startingWith(KINDS, typed, here);
  return found === null ? null : KINDS[found];
};

test("a letter goes to the first name with it, pressed again to the next, and around", () => {
  expect(to("p")).toBe("Password");
  expect(to("p", 1)).toBe("Payment card");
  expect(to("p", 2)).toBe("Postal address");
  expect(to("p", 3)).toBe("Password");
  expect(to("pp", 1)).toBe("Payment card");
});

test("more letters go to the name that begins with all of them, and stay there", () => {
  expect(to("pay", 1)).toBe("Payment card");
  expect(to("paym", 2)).toBe("Payment card");
  expect(to("se", 4)).toBe("Server or device");
});

test("accents and case do not matter; what no name begins with leads nowhere", () => {
  expect(to("OK")).toBe("Ökonomie");
  expect(to("x")).toBeNull();
  expect(to("pz", 1)).toBeNull();
  expect(startingWith([], "a", -1)).toBeNull();
});
