/** Which engine is asked, and when another is. */
import { describe, expect, test } from "vitest";
import type { Failure } from "../../core/signin/outcome";
import type { SignedIn, SignInEngine, SignInTask } from "./engine";
import { Engines } from "./engines";
import { SignInFailure } from "./guardedClient";

const SESSION: SignedIn = { cookies: [], storage: [], landing: "https://site.example/" };

/** An engine that gets in, or fails by a name; and how often it was asked. */
function engine(failure: Failure | null, afterPassword = false): SignInEngine & { asked: number } {
  const made = {
    asked: 0,
    signIn: async () => {
      made.asked++;
      if (failure === null) return SESSION;
      const error = new SignInFailure(failure, "because");
      error.afterPassword = afterPassword;
      throw error;
    },
  };
  return made;
}

const ask = async (http: SignInEngine, browser: SignInEngine | null, worked: SignInTask["worked"] = null) =>
  new Engines(http, browser).signIn({ worked } as SignInTask).then(
    ({ by }) => by,
    (error: SignInFailure) => `${error.failure}: ${error.detail}`,
  );

describe("engines in turn", () => {
  test("plain HTTP alone where it works; the browser where the page needs one", async () => {
    const browser = engine(null);
    expect(await ask(engine(null), browser)).toBe("http");
    expect(browser.asked).toBe(0);
    expect(await ask(engine("drawn-by-scripts"), browser)).toBe("browser");
    expect(await ask(engine("session-elsewhere", true), browser)).toBe("browser");
    expect(await ask(engine("came-back", true), browser)).toBe("browser");
  });

  test("the one that got in last time first, the other when it fails", async () => {
    const http = engine(null);
    expect(await ask(http, engine(null), "browser")).toBe("browser");
    expect(http.asked).toBe(0);
    expect(await ask(http, engine("not-understood"), "browser")).toBe("http");
  });

  test.each<Failure>(["wrong-password", "challenge", "code-refused", "address-not-allowed", "plain-http", "site-down"])(
    "%s is final: nothing is sent a second time",
    async (failure) => {
      const browser = engine(null);
      expect(await ask(engine(failure, true), browser)).toBe(`${failure}: because`);
      expect(browser.asked).toBe(0);
    },
  );

  test("a page not understood is tried again only while the password has not been sent", async () => {
    expect(await ask(engine("not-understood"), engine(null))).toBe("browser");
    expect(await ask(engine("not-understood", true), engine(null))).toBe("not-understood: because");
  });

  test("without a browser, or with one that does not start, what the page was stays said", async () => {
    expect(await ask(engine("drawn-by-scripts"), null)).toBe(
      "drawn-by-scripts: because; this Galtry has no browser of its own",
    );
    expect(await ask(engine("drawn-by-scripts"), engine("browser-missing"))).toBe("drawn-by-scripts: because");
    expect(await ask(engine(null), engine("browser-missing"), "browser")).toBe("http");
  });
});
