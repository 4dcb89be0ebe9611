import { describe, expect, test } from "vitest";
import { isDatabaseAway, isUnreachable, Unreachable } from "./unreachable";

const refused = Object.assign(new Error("connect ECONNREFUSED 192.0.2.1:443"), { code: "ECONNREFUSED" });
const failed = new TypeError("fetch failed", { cause: refused });

describe("a server that does not answer", () => {
  test("is known by what the database's client says of it", () => {
    for (const error of [
      failed,
      Object.assign(new Error("x"), { code: "UND_ERR_SOCKET" }),
      Object.assign(new Error("The operation was aborted due to timeout"), { name: "TimeoutError" }),
      new Error("Server returned HTTP status 503"),
      new Error("Server returned HTTP status 400: Received an invalid baton"),
      new Error("Failed query", { cause: new Unreachable() }),
    ])
      expect(isUnreachable(error)).toBe(true);
    for (const error of [
      new Error("UNIQUE constraint failed: persons.mail"),
      Object.assign(new Error("database is locked"), { code: "SQLITE_BUSY" }),
      new Error("Server returned HTTP status 401"),
      "ECONNREFUSED",
      null,
    ])
      expect(isUnreachable(error)).toBe(false);
  });

  test("is the database only where what asked the database says so: a site that is away is none of it", () => {
    expect(isDatabaseAway(failed)).toBe(false);
    expect(isDatabaseAway(new Unreachable(failed))).toBe(true);
    expect(isDatabaseAway(new Error("the page could not be made", { cause: new Unreachable() }))).toBe(true);
    // Of a class of another bundle.
    expect(isDatabaseAway(Object.assign(new Error("x"), { name: "Unreachable" }))).toBe(true);
  });
});
