import { expect, test, vi } from "vitest";
import { hashPassword, verifyPassword } from "./password";

vi.stubEnv("WHOLE_HASHES", "1");

test("sign-in passwords are hashed as OWASP recommends, each with a salt of its own", async () => {
  const [one, other] = [await hashPassword("four quite good words"), await hashPassword("four quite good words")];
  expect(one).toMatch(/^\$argon2id\$v=19\$m=19456,t=2,p=1\$/);
  expect(one).not.toBe(other);
  expect(await verifyPassword(one, "four quite good words")).toBe(true);
  expect(await verifyPassword(one, "four quite good wordS")).toBe(false);
  expect(await verifyPassword(null, "four quite good words")).toBe(false);
});
