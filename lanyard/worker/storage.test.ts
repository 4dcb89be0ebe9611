import { describe, expect, test } from "vitest";
import { mayStore } from "./storage";

const key = { signInPage: "https://login.pellam.example/in", hosts: ["id.tickets.example"], reach: "host" as const };
const GALTRY = "https://galtry.museums.example";

describe("what may be stored, and where", () => {
  test("the entry's own host and those of its steps, and no other of the site unless the entry is for all of it", () => {
    expect(mayStore("https://login.pellam.example", key, GALTRY)).toBe(true);
    expect(mayStore("https://id.tickets.example", key, GALTRY)).toBe(true);
    expect(mayStore("https://www.pellam.example", key, GALTRY)).toBe(false);
    expect(mayStore("https://www.pellam.example", { ...key, reach: "site" }, GALTRY)).toBe(true);
    expect(mayStore("https://pellam.example.evil.example", { ...key, reach: "site" }, GALTRY)).toBe(false);
  });

  test("never Galtry's own site, whatever the entry says, and nothing that is no web address", () => {
    const own = { ...key, signInPage: `${GALTRY}/in`, hosts: ["galtry.museums.example"] };
    expect(mayStore(GALTRY, own, GALTRY)).toBe(false);
    expect(mayStore("https://www.museums.example", { ...own, hosts: ["www.museums.example"] }, GALTRY)).toBe(false);
    for (const origin of ["null", "file://", "chrome-extension://abc"])
      expect(mayStore(origin, key, GALTRY)).toBe(false);
  });
});
