import { describe, expect, test } from "vitest";
import { FINDING_KINDS, FINDINGS, type FindingKind } from "@/core/upkeep/findings";
import type { FindingRow } from "@/server/upkeep/findingsPage";
import { addressOf, FIRST_SHOWN } from "./filter";
import { sayFinding, sayHouseFinding } from "./words";

const NOW = Date.UTC(2027, 4, 6, 12);
const DAY = 86_400_000;
const ZONE = "Europe/London";

const row = (kind: FindingKind, more: Partial<FindingRow> = {}): FindingRow => ({
  ...{
    id: "f",
    kind,
    ...FINDINGS[kind],
    nodeId: "n",
    type: "entry",
    name: "Elmsworth Tills",
    vaultId: "v",
    vault: "Shop",
  },
  ...{ link: "/entry/n", picture: null, since: NOW, detail: {}, people: [], time: "", others: [], usedBy: 3 },
  ...{ grant: null, changedBy: "galtry" as const, putOff: null, ...more },
});
const say = (kind: FindingKind, more: Partial<FindingRow> = {}) => sayFinding(row(kind, more), NOW, ZONE);
const given = { id: "g", why: "the fair, April 2027", by: "Bram" };

describe("a finding as a sentence", () => {
  test.each<[FindingKind, Partial<FindingRow>, string]>([
    ["leaked", { detail: { times: 41 } }, "In a list of leaked passwords, 41 times"],
    ["leaked", { detail: { times: 1 } }, "In a list of leaked passwords, once"],
    ["leaver", { people: ["Theodora"] }, "Known to Theodora, who has left"],
    ["leaver", { people: ["Ada", "Bo", "Cy", "Di"] }, "Known to Ada, Bo and 2 others, who have left"],
    ["leaver", {}, "Known to someone who has left"],
    ["former", { people: ["Callum"] }, "Known to Callum, who can no longer reveal it"],
    ["reused", { others: ["Rookstead", "Wexcombe"] }, "Also the password of Rookstead and Wexcombe"],
    ["weak", { time: "3 hours" }, "Weak: would take 3 hours to guess"],
    ["one-steward", { people: ["Bram"] }, "Only one steward: Bram"],
    ["fails", { detail: { failure: "challenge" } }, "Sign-in fails: the site shows a puzzle"],
    ["everyone", { detail: { level: "edit" } }, "Everyone has Edit"],
    ["open-guest", { people: ["Kit"], detail: { level: "use" } }, "Kit, a guest, has Use with no end date"],
    [
      "passed",
      { people: ["Silas"], detail: { level: "edit" }, grant: given },
      "Silas’s Edit: “the fair, April 2027” is over",
    ],
    ["passed", { detail: { level: "edit" }, grant: given }, "A group’s Edit: “the fair, April 2027” is over"],
    ["ending", { people: ["Kit"], detail: { level: "use", until: NOW + DAY } }, "Kit’s Use ends tomorrow, 13:00"],
    ["unused-access", { people: ["Kit"], detail: { level: "use", lastAt: null } }, "Kit’s Use, never used"],
    [
      "unused-access",
      { people: ["Kit"], detail: { level: "use", lastAt: NOW - 95 * DAY } },
      "Kit’s Use, last used 31 January",
    ],
    ["over", { detail: { field: "Ends", date: Date.UTC(2027, 4, 4) } }, "Ends: over since Monday"],
    ["ends", { detail: { field: "Ends", date: Date.UTC(2027, 6, 1) } }, "Ends 30 June, 56 days left"],
    ["unused", { detail: { lastAt: null } }, "Nobody has ever used it"],
  ])("%s %j", (kind, more, sentence) => expect(say(kind, more)).toBe(sentence));

  test("every kind has one, also where little is known", () => {
    for (const kind of FINDING_KINDS) {
      expect(say(kind), kind).toMatch(/^[A-Z].*[^.]$/);
      expect(say(kind), kind).not.toMatch(/undefined|NaN|null/);
    }
  });
});

test("what is found of the house", () => {
  const house = (finding: Parameters<typeof sayHouseFinding>[0]) => sayHouseFinding(finding, NOW, ZONE);
  expect(house({ kind: "ways", needs: "passkey", group: null, count: 1 })).toBe(
    "1 person has no passkey, which the house rules require.",
  );
  expect(house({ kind: "ways", needs: "second-step", group: "Finance", count: 3 })).toBe(
    "3 people in Finance have no second step, which the house rules require.",
  );
  expect(house({ kind: "backup", at: null })).toBe("No backup has been made yet.");
  expect(house({ kind: "backup", at: NOW - 3 * DAY })).toBe("The last backup was made Monday, 13:00.");
  expect(house({ kind: "mail", count: 2, since: NOW - DAY, wrong: "550 no such box" })).toBe(
    "2 emails could not be sent since yesterday, 13:00. The mail server said: 550 no such box",
  );
});

test("a Journal that was changed behind Galtry’s back", () => {
  expect(sayHouseFinding({ kind: "journal", at: NOW - DAY }, NOW, ZONE)).toMatch(/checkpoint of yesterday, 13:00 says/);
});

test("lines of the Journal that are not taken are not lost", () => {
  expect(sayHouseFinding({ kind: "forwarding", since: NOW - DAY }, NOW, ZONE)).toMatch(
    /have not been sent on since yesterday, 13:00: .*None is lost/,
  );
});

test("the address of the page says what is shown, and no more than that", () => {
  const all = { act: null, vaultId: null, find: "", most: FIRST_SHOWN };
  expect(addressOf(all)).toBe("/upkeep");
  expect(addressOf({ ...all, act: "change", find: "a & b", most: 600 })).toBe(
    "/upkeep?act=change&find=a+%26+b&most=600",
  );
});
