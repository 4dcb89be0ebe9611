/**
 * Sign-in passwords of tests are hashed with less work: each file makes a dozen people. What the product takes is
 * looked at in `password.test.ts`, which has them whole.
 */
import { vi } from "vitest";

vi.mock("@node-rs/argon2", async (original) => {
  const argon = await original<typeof import("@node-rs/argon2")>();
  return {
    ...argon,
    hash: (password: string, options: object) =>
      argon.hash(password, process.env.WHOLE_HASHES ? options : { ...options, memoryCost: 64, timeCost: 1 }),
  };
});
