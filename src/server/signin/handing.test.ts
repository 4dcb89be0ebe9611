/** What is handed over after a sign-in: the session, only the entry's, and never the password in any form. */
import { expect, test } from "vitest";
import { tracesOf } from "../../core/signin/carries";
import type { Cloned, HandedCookie, SignedIn } from "./engine";
import type { SignInFailure } from "./guardedClient";
import { sessionFrom } from "./handing";

const PASSWORD = "canary-handing/29";
const cookie = (more: Partial<HandedCookie>): HandedCookie => ({
  ...{ name: "visit", value: "1", domain: "login.pellam.example", hostOnly: true, path: "/", secure: true },
  ...{ httpOnly: true, sameSite: "lax" as const, expires: null },
  ...more,
});
const allows = (address: string) => new URL(address).host === "login.pellam.example";
const hand = (session: Partial<SignedIn>) =>
  sessionFrom(
    { cookies: [], storage: [], landing: "https://login.pellam.example/today", ...session },
    tracesOf(PASSWORD, "ada"),
    allows,
  );
const refused = (session: Partial<SignedIn>): string => {
  try {
    hand(session);
    return "handed over";
  } catch (error) {
    return (error as SignInFailure).failure;
  }
};
const stored = (value: string, origin = "https://login.pellam.example") => ({
  storage: [{ origin, local: [["token", value]] as [string, string][], session: [], databases: [] }],
});

const inDatabase = (value: Cloned) => ({
  storage: [
    {
      ...{ origin: "https://login.pellam.example", local: [], session: [] },
      databases: [
        {
          ...{ name: "ledger", version: 1 },
          stores: [
            { name: "rows", keyPath: null, autoIncrement: false, indexes: [], rows: [[["v", 1], value]] as never },
          ],
        },
      ],
    },
  ],
});

test("cookies and storage of the entry go, those of others stay", () => {
  const given = hand({
    cookies: [cookie({}), cookie({ name: "other", domain: "tracker.example" })],
    storage: [...stored("t").storage, ...stored("t", "https://elsewhere.example").storage],
  });
  expect(given.cookies.map(({ name }) => name)).toEqual(["visit"]);
  expect(given.storage.map(({ origin }) => origin)).toEqual(["https://login.pellam.example"]);
});

test("a database goes as it is", () => {
  const session = inDatabase(["o", [["token", ["v", "t"]]]]);
  expect(hand(session).storage).toEqual(session.storage);
});

test("without either there is no session", () => expect(refused({})).toBe("session-elsewhere"));

test.each([
  ["in a cookie", { cookies: [cookie({ value: encodeURIComponent(PASSWORD) })] }],
  ["in storage, as base64 within more", stored(Buffer.from(`x:${PASSWORD}`).toString("base64"))],
  ["in a database, deep in a row", inDatabase(["o", [["a", ["a", [["v", `x${PASSWORD}`]]]]]])],
  ["in a database, as a name of a field", inDatabase(["o", [[PASSWORD, ["u"]]]])],
  ["in a database, in bytes", inDatabase(["b", Buffer.from(`..${PASSWORD}`).toString("base64"), "view"])],
  ["in storage, within JSON", stored(JSON.stringify({ p: PASSWORD }))],
  [
    "in the landing address",
    { cookies: [cookie({})], landing: `https://login.pellam.example/?p=${encodeURIComponent(PASSWORD)}` },
  ],
])("the password %s is refused", (_, session) => expect(refused(session)).toBe("gave-password-back"));
