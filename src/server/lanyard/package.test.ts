import { describe, expect, test } from "vitest";
import { lanyardBrowser } from "./package";

const FIREFOX = "Mozilla/5.0 (X11; Linux x86_64; rv:153.0) Gecko/20100101 Firefox/153.0";
const CHROME = "Mozilla/5.0 (X11; Linux x86_64) AppleWebKit/537.36 (KHTML, like Gecko) Chrome/156.0.0.0 Safari/537.36";

describe("which Lanyard is offered", () => {
  test.each([
    [undefined, FIREFOX, "firefox"],
    [undefined, CHROME, "chromium"],
    [undefined, "", "chromium"],
    // For a browser on another machine, or one that says nothing true of itself.
    ["chromium", FIREFOX, "chromium"],
    ["firefox", CHROME, "firefox"],
    ["../../etc/passwd", CHROME, "chromium"],
    [["firefox", "firefox"], CHROME, "chromium"],
  ])("asked for %s in %s: %s", (asked, userAgent, browser) => {
    expect(lanyardBrowser(asked, userAgent)).toBe(browser);
  });
});
