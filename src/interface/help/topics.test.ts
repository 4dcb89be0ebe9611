import { readdirSync } from "node:fs";
import sharp from "sharp";
import { describe, expect, test } from "vitest";
import { PICTURE, PUBLIC_TOPICS, READERS, TOPICS } from "./strings";
import { findHelp, readerOf, topicAt, topicsFor, whatFor } from "./topics";

const ID = "0190a000-0000-7000-8000-000000000000";

test("every topic with a picture has it, of the size that is said, and there is no other", async () => {
  const pictured = [...PUBLIC_TOPICS, ...TOPICS].filter(({ picture }) => picture).map(({ id }) => `${id}.webp`);
  expect(readdirSync("public/help").sort()).toEqual(pictured.sort());
  for (const file of pictured) {
    const { width, height, format } = await sharp(`public/help/${file}`).metadata();
    expect({ width, height, format }).toEqual({ ...PICTURE, format: "webp" });
  }
});

describe("the topic of a page", () => {
  test.each([
    ["/", "front-desk"],
    ["/vaults", "vaults"],
    [`/vaults/${ID}`, "vault"],
    [`/entry/${ID}/edit`, "entry"],
    [`/entry/${ID}/steps`, "sign-in-steps"],
    [`/access/${ID}`, "access"],
    [`/access/${ID}/rounds`, "rounds"],
    ["/upkeep", "upkeep"],
    ["/people", "people"],
    ["/people/add", "add-people"],
    [`/people/${ID}`, "person"],
    [`/people/${ID}/leave`, "person"],
    [`/people/${ID}/known`, "seen"],
    [`/people/groups/${ID}`, "group"],
    ["/people/sign-on", "single-sign-on"],
    ["/rules", "house-rules"],
    ["/journal", "journal"],
    ["/reports/who", "reports"],
    ["/account", "account"],
    ["/lanyard/connect", "connect-lanyard"],
  ])("%s is %s", (path, id) => {
    expect(topicAt(path, "administrator")?.id).toBe(id);
  });

  test("none of a page that the reader does not have", () => {
    expect(topicAt("/rules", "guest")).toBeNull();
    expect(topicAt("/nowhere", "administrator")).toBeNull();
  });
});

test("each topic has three things, and says what it is for to everybody who has it", () => {
  for (const topic of [...PUBLIC_TOPICS, ...TOPICS]) {
    expect(topic.things).toHaveLength(3);
    for (const reader of READERS) expect(whatFor(topic, reader).length).toBeGreaterThan(10);
  }
  expect(new Set([...PUBLIC_TOPICS, ...TOPICS].map(({ id }) => id)).size).toBe(PUBLIC_TOPICS.length + TOPICS.length);
});

test("readers are told in their own role", () => {
  expect(readerOf({ role: "owner", steward: false })).toBe("administrator");
  expect(readerOf({ role: "member", steward: true })).toBe("steward");
  expect(readerOf({ role: "member", steward: false })).toBe("colleague");
  expect(topicsFor("guest").map(({ id }) => id)).not.toContain("access");
});

test("the finder finds it by words in any order, and nothing for a letter or two", () => {
  expect(findHelp("lost phone", "colleague").map(({ id }) => id)).toContain("locked-out");
  expect(findHelp("teams change", "administrator").map(({ id }) => id)).toContain("person");
  expect(findHelp("journal", "steward")[0]?.id).toBe("journal");
  expect(findHelp("a", "steward")).toEqual([]);
  expect(findHelp("zebra crossing", "steward")).toEqual([]);
});
