import { expect, test } from "vitest";
import { ownAddress } from "./ownDomains";

test("an address is the organisation's at its domains and below them, and nowhere else", () => {
  const domains = ["tarrowick.example", "museum.example"];
  for (const own of ["a@tarrowick.example", "a@Museum.EXAMPLE", "a@shop.museum.example", '"x@y"@tarrowick.example'])
    expect(ownAddress(own, domains), own).toBe(true);
  for (const other of [
    "a@nottarrowick.example",
    "a@tarrowick.example.other",
    "a@example",
    "tarrowick.example@other.example",
    "",
  ])
    expect(ownAddress(other, domains), other).toBe(false);
});
