import { describe, expect, test } from "vitest";
import { brokenBy, type Giving, type HouseRules, houseRulesSchema, sayRules, USUAL_RULES } from "./houseRules";

const NOW = Date.UTC(2026, 10, 26, 12);
const DAY = 86_400_000;
const giving = (more: Partial<Giving>): Giving => ({
  ...{ to: "staff", inIt: false, level: "use", until: null, why: "" },
  ...more,
});
const rules = (more: Partial<HouseRules>): HouseRules => ({ ...USUAL_RULES, ...more });
const broken = (some: Partial<HouseRules>, what: Partial<Giving>) => brokenBy(rules(some), giving(what), NOW);

describe("house rules", () => {
  test("the usual ones forbid nothing but a guest as steward", () => {
    for (const to of ["staff", "groups", "everyone"] as const)
      expect(brokenBy(USUAL_RULES, giving({ to, level: "steward" }), NOW)).toBe(null);
    expect(brokenBy(USUAL_RULES, giving({ to: "guests", level: "edit" }), NOW)).toBe(null);
    expect(brokenBy(USUAL_RULES, giving({ to: "guests", level: "steward" }), NOW)?.field).toBe("level");
  });

  test("a level above the highest, and a subject that gets nothing", () => {
    const highest = { staff: "edit", groups: "reveal", everyone: "none", guests: "use" } as const;
    expect(broken({ highest }, { level: "steward" })).toMatchObject({ field: "level", second: false });
    expect(broken({ highest }, { level: "edit" })).toBe(null);
    expect(broken({ highest }, { to: "groups", level: "edit" })?.message).toContain("up to Reveal");
    expect(broken({ highest }, { to: "everyone" })?.field).toBe("subject");
    // Taking away is never against the rules.
    expect(broken({ highest }, { to: "everyone", level: "blocked" })).toBe(null);
  });

  test("only one's own groups", () => {
    expect(broken({ ownGroups: true }, { to: "groups", inIt: false })?.field).toBe("subject");
    expect(broken({ ownGroups: true }, { to: "groups", inIt: true })).toBe(null);
    expect(broken({ ownGroups: true }, { to: "staff" })).toBe(null);
  });

  test("a time longer than the longest, or none at all, wants a second yes", () => {
    const longest = { staff: null, guests: 30 };
    expect(broken({ longest }, { to: "staff" })).toBe(null);
    expect(broken({ longest }, { to: "guests" })).toMatchObject({ field: "until", second: true });
    expect(broken({ longest }, { to: "guests", until: NOW + 30 * DAY })).toBe(null);
    expect(broken({ longest }, { to: "guests", until: NOW + 31 * DAY })).toMatchObject({ second: true });
    expect(broken({ longest: { staff: 7, guests: null } }, { to: "groups", until: NOW + 8 * DAY })?.second).toBe(true);
  });

  test("a reason from a level on; what no second yes makes good is said first", () => {
    expect(broken({ reasonFrom: "reveal" }, { level: "use" })).toBe(null);
    expect(broken({ reasonFrom: "reveal" }, { level: "edit" })?.field).toBe("why");
    expect(broken({ reasonFrom: "reveal" }, { level: "edit", why: "the fair" })).toBe(null);
    const both = { reasonFrom: "use", longest: { staff: 1, guests: 1 } } as const;
    expect(broken(both, {})).toMatchObject({ field: "why", second: false });
  });

  test("each is one sentence, other where the rule is other", () => {
    const usual = sayRules(USUAL_RULES);
    const strict = sayRules(
      {
        highest: { staff: "none", groups: "none", everyone: "none", guests: "none" },
        ...{
          ownGroups: true,
          longest: { staff: 1, guests: 2 },
          reasonFrom: "steward",
          emergency: true,
          accept: true,
          nightTests: true,
          changeEvery: 6,
        },
        lanyard: { use: ["shop"], add: ["shop", "desk"], neverOn: ["bank.example"], fillsOnOpening: true },
        makes: { vaults: "owners", groups: "staff", guests: "administrators", handovers: "nobody" },
        forgottenByMail: true,
        joinDomains: ["tarrowick.example", "friends.tarrowick.example"],
        confirm: { acts: ["rules", "reveal"], minutes: 15 },
        waysIn: [{ groupId: "g", needs: "passkey", from: "2026-12-01" }],
      },
      () => "Finance",
    );
    expect(strict).toHaveLength(usual.length + 1);
    for (const [i, sentence] of strict.entries()) expect(sentence).not.toBe(usual[i]);
    expect(strict).toContain(
      "People confirm that it is them before revealing a value or changing the house rules, unless they did so within the last 15 minutes. Exports and changes to ways to sign in always need confirmation.",
    );
    expect(strict.at(-1)).toBe(
      "From 1 December 2026, the people in Finance need a passkey or single sign-on to sign in.",
    );
  });

  test("rules kept before another one was thought of are read with its usual answer", () => {
    expect(houseRulesSchema.parse({ emergency: true })).toEqual({ ...USUAL_RULES, emergency: true });
  });
});
