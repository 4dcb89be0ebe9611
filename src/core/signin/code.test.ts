import { describe, expect, test } from "vitest";
import { codeAt, readCodeSettings } from "./code";

describe("one-time codes", () => {
  // RFC 6238 appendix B; the secret is the ASCII "12345678901234567890" in base32.
  const settings = { secret: "GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ", digits: 8, period: 30, algorithm: "SHA1" as const };
  test.each([
    [59, "94287082"],
    [1111111109, "07081804"],
    [1234567890, "89005924"],
    [20000000000, "65353130"],
  ])("at %i s: %s", (seconds, code) => expect(codeAt(settings, seconds * 1000).code).toBe(code));

  test("says how long it holds", () => expect(codeAt(settings, 59_000)).toMatchObject({ step: 1, leftMs: 1000 }));

  test("reads what people paste", () => {
    expect(readCodeSettings("jbsw y3dp-ehpk 3pxp")).toEqual({
      secret: "JBSWY3DPEHPK3PXP",
      digits: 6,
      period: 30,
      algorithm: "SHA1",
    });
    expect(
      readCodeSettings(
        "otpauth://totp/Pellam:box?secret=JBSWY3DPEHPK3PXP&issuer=Pellam&algorithm=SHA256&digits=8&period=60",
      ),
    ).toEqual({ secret: "JBSWY3DPEHPK3PXP", digits: 8, period: 60, algorithm: "SHA256" });
  });

  test.each(["", "not base32!", "otpauth://hotp/x?secret=JBSWY3DPEHPK3PXP&counter=1", "otpauth://totp/x", "ABC"])(
    "refuses %s with a sentence",
    (text) => expect(() => readCodeSettings(text)).toThrow(RangeError),
  );
});
