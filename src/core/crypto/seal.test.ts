import { describe, expect, test } from "vitest";
import { deriveKey, fromHex, hmac, open, randomBytes, SealError, seal, toHex, utf8 } from "./index";

describe("seal", () => {
  const key = randomBytes(32);
  const binding = ["entry version", "vault", "entry", "1"] as const;

  test("opens with the same key and binding", async () => {
    const blob = await seal(key, utf8("canary"), binding);
    expect(await open(key, blob, binding)).toEqual(utf8("canary"));
    expect(Buffer.from(blob).includes("canary")).toBe(false);
  });

  test("does not open in another row, with another key, or with any bit changed", async () => {
    const blob = await seal(key, utf8("canary"), binding);
    await expect(open(key, blob, ["entry version", "vault", "other", "1"])).rejects.toThrow(SealError);
    await expect(open(key, blob, ["entry version", "vault", "entry1", ""])).rejects.toThrow(SealError);
    await expect(open(randomBytes(32), blob, binding)).rejects.toThrow(SealError);
    for (let at = 0; at < blob.length; at++) {
      const changed = blob.slice();
      changed[at]! ^= 1;
      await expect(open(key, changed, binding)).rejects.toThrow(SealError);
    }
  });

  test("never gives the same blob twice", async () =>
    expect(toHex(await seal(key, utf8("x"), binding))).not.toBe(toHex(await seal(key, utf8("x"), binding))));
  test("refuses keys of another length and bindings that could be read two ways", async () => {
    await expect(seal(randomBytes(16), utf8("x"), binding)).rejects.toThrow(RangeError);
    await expect(seal(key, utf8("x"), ["a", "b\u0000c"])).rejects.toThrow(RangeError);
  });
});

test("HKDF-SHA-256, RFC 5869 appendix A.3 (no salt, no info), first 32 bytes", async () => {
  expect(toHex(await deriveKey(fromHex("0b".repeat(22)), ""))).toBe(
    "8da4e775a563c18f715f802a063c5a31b8a11f5c5ee1879ec3454e5f3c738d2d",
  );
});

test("HMAC-SHA-256, RFC 4231 test case 2", async () => {
  expect(toHex(hmac(utf8("Jefe"), utf8("what do ya want for nothing?")))).toBe(
    "5bdcc146bf60754e6a042426089575c75a003f089d2739839dec58b964ec3843",
  );
});
