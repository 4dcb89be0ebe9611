import fc from "fast-check";
import { expect, test } from "vitest";
import { fromUtf8, open, randomBytes, SealError, seal, utf8 } from "../../core/crypto";
import { openNow, sealNow } from "./sealNow";

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

test("what core seals opens at once, and only with its key and binding, whole and unaltered", async () => {
  await fc.assert(
    fc.asyncProperty(fc.string({ unit: "grapheme" }), fc.nat(), async (text, at) => {
      const key = randomBytes(32);
      const blob = await seal(key, utf8(text), binding);
      expect(openNow(key, blob, binding)).toBe(text);
      expect(() => openNow(key, blob, ["entry version", "vault", "other", "1"])).toThrow(SealError);
      expect(() => openNow(randomBytes(32), blob, binding)).toThrow(SealError);
      // Cut anywhere: a shorter tag would be a weaker one.
      expect(() => openNow(key, blob.subarray(0, at % blob.length), binding)).toThrow(SealError);
      const altered = blob.slice();
      altered[at % blob.length]! ^= 1 << (at % 8);
      expect(() => openNow(key, altered, binding)).toThrow(SealError);
    }),
    { numRuns: 60 },
  );
});

test("a nonce is never used twice; keys of another length and bindings with a separator are refused", () => {
  const key = randomBytes(32);
  expect(sealNow(key, "x", binding).equals(sealNow(key, "x", binding))).toBe(false);
  expect(() => sealNow(randomBytes(16), "x", binding)).toThrow(RangeError);
  expect(() => sealNow(key, "x", ["a", "b\u0000c"])).toThrow(RangeError);
});
