import { expect, test } from "vitest";
import { type KeptLogin, keptAlready, userMarkOf } from "./keptAlready";

const key = new Uint8Array(32).fill(3);
const mark = (userName: string) => userMarkOf(key, userName);
const PAGE = "https://shop.pellam.example/sign-in";
const login = (more: Partial<KeptLogin> = {}): KeptLogin => ({
  id: "a",
  signInPage: "https://pellam.example/sign-in",
  reach: "site",
  userMark: mark("box-office"),
  comparable: true,
  ...more,
});

test("a password goes to be compared only where site and user name are those of a login that may be revealed", () => {
  expect(keptAlready([login()], PAGE, mark("box-office"))).toEqual({ answer: "compare", ids: ["a"] });
  expect(keptAlready([login()], PAGE, mark("box-Office"))).toEqual({ answer: "new" });
  expect(keptAlready([login()], "https://elsewhere.example/", mark("box-office"))).toEqual({ answer: "new" });
  expect(keptAlready([login({ reach: "host" })], PAGE, mark("box-office"))).toEqual({ answer: "new" });
  expect(keptAlready([login({ comparable: false })], PAGE, mark("box-office"))).toEqual({ answer: "kept" });
});

test("at Use any user name counts as kept, unless it may be seen", () => {
  const use = login({ comparable: false, userMark: null });
  for (const name of ["box-office", "someone else", ""])
    expect(keptAlready([use], PAGE, mark(name))).toEqual({ answer: "kept" });
  expect(keptAlready([login({ comparable: false })], PAGE, mark("someone else"))).toEqual({ answer: "new" });
  // Beside one that may be revealed and is meant, the password is compared with that one.
  expect(keptAlready([use, login({ id: "b" })], PAGE, mark("box-office"))).toEqual({ answer: "compare", ids: ["b"] });
  expect(keptAlready([use, login({ id: "b" })], PAGE, mark("another"))).toEqual({ answer: "kept" });
});

test("a page that asked for no user name is compared with logins that have none", () => {
  expect(keptAlready([login()], PAGE, mark(""))).toEqual({ answer: "new" });
  expect(keptAlready([login({ userMark: "" })], PAGE, mark(""))).toEqual({ answer: "compare", ids: ["a"] });
});

test("a mark is no user name, and another key's is another", () => {
  expect(mark("box-office")).toMatch(/^[0-9a-f]{64}$/);
  expect(userMarkOf(new Uint8Array(32), "box-office")).not.toBe(mark("box-office"));
});
