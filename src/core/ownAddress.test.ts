import fc from "fast-check";
import { expect, test } from "vitest";
import { ownAddress } from "./ownAddress";

const home = new URL("https://galtry.tarrowick.example/");

test.each([
  ["/entry/1?x=2#y", "/entry/1?x=2#y"],
  ["https://galtry.tarrowick.example/vaults", "/vaults"],
  ["vaults", "/vaults"],
  ["", "/"],
  ["/\t/elsewhere.example", "/"],
  ["/\n/elsewhere.example", "/"],
  ["\t//elsewhere.example", "/"],
  ["//elsewhere.example", "/"],
  ["/\\elsewhere.example", "/"],
  ["/.//elsewhere.example", "/"],
  ["/x/..//elsewhere.example", "/"],
  ["https://elsewhere.example/", "/"],
  ["https://galtry.tarrowick.example@elsewhere.example/", "/"],
  ["http://galtry.tarrowick.example/", "/"],
  ["javascript:alert(1)", "/"],
  ["data:text/html,x", "/"],
  ["http://[", "/"],
])("%j leads to %s", (address, leads) => {
  expect(ownAddress(address, home)).toBe(leads);
});

test("what is no text leads home", () => {
  for (const odd of [undefined, null, ["/a", "/b"], 1]) expect(ownAddress(odd, home)).toBe("/");
});

test("wherever an address leads, the browser that follows it stays here", () => {
  const part = fc.constantFrom(
    "/",
    "\\",
    "\t",
    "\n",
    "\r",
    ".",
    "..",
    ":",
    "@",
    "#",
    "?",
    "//",
    "https:",
    "javascript:",
    "elsewhere.example",
    " ",
    "%2f",
    "％",
    "a",
  );
  fc.assert(
    fc.property(fc.array(part, { maxLength: 8 }), (parts) => {
      const leads = ownAddress(parts.join(""), home);
      expect(new URL(leads, home).origin).toBe(home.origin);
    }),
    { numRuns: 5000 },
  );
});
