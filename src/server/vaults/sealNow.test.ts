import fc from "fast-check";
import { expect, test } from "vitest";
import { fromUtf8, open, randomBytes, SealError } from "../../core/crypto";
import { sealNow } from "./sealNow";

const binding = ["entry version", "vault", "entry", "1"] as const;

test("what is sealed at once opens as what core seals does, and only so", async () => {
  await fc.assert(
    fc.asyncProperty(fc.string({ unit: "grapheme" }), async (text) => {
      const key = randomBytes(32);
      const blob = sealNow(key, text, binding);
      expect(fromUtf8(await open(key, blob, binding))).toBe(text);
      await expect(open(key, blob, ["entry version", "vault", "other", "1"])).rejects.toThrow(SealError);
      await expect(open(randomBytes(32), blob, binding)).rejects.toThrow(SealError);
      blob[blob.length - 1]! ^= 1;
      await expect(open(key, blob, binding)).rejects.toThrow(SealError);
    }),
    { numRuns: 30 },
  );
});

test("a nonce is never used twice; keys of another length and bindings with a separator are refused", () => {
  const key = randomBytes(32);
  expect(sealNow(key, "x", binding).equals(sealNow(key, "x", binding))).toBe(false);
  expect(() => sealNow(randomBytes(16), "x", binding)).toThrow(RangeError);
  expect(() => sealNow(key, "x", ["a", "b\u0000c"])).toThrow(RangeError);
});
