import { describe, expect, test } from "vitest";
import { CHANGE_OUTCOMES, nearness } from "./changing";
import { plain } from "./words";

describe("a link leads to where a password is changed", () => {
  test.each([
    ["Change password", 2],
    ["Kennwort ändern", 2],
    ["Modifier le mot de passe", 2],
    ["/admin/password_change/", 2],
    ["My account", 1],
    ["Sécurité", 1],
    ["Settings", 1],
    ["Orders", 0],
    ["Log out", 0],
    ["Forgot password?", 0],
    ["Delete my account", 0],
    ["/account/logout", 0],
    ["Reset password for all people", 0],
    ["Generate a new password", 0],
    ["Send me my password", 0],
    ["/users/7/password/regenerate", 0],
  ] as const)("%s: %i", (text, near) => expect(nearness(plain(text))).toBe(near));
});

test("every outcome says whether something has been changed, in whole sentences", () => {
  for (const { title, says } of Object.values(CHANGE_OUTCOMES)) {
    expect(title).toMatch(/^[A-Z].*[a-z]$/);
    expect(says).toMatch(/\.$/);
  }
});
