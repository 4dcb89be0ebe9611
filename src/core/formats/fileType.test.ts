import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { fileTypeOf, PICTURE_TYPES, safeFileName } from "./fileType";

const bytes = (text: string) => Uint8Array.from(text, (one) => one.charCodeAt(0));

describe("what a file is, by its first bytes", () => {
  test.each([
    ["\x89PNG\r\n\x1a\n....", "PNG"],
    ["\xff\xd8\xff\xe0..JFIF", "JPEG"],
    ["RIFF\x10\0\0\0WEBPVP8 ", "WebP"],
    ["RIFF\x10\0\0\0WAVEfmt ", "other"],
    ["GIF89a..", "GIF"],
    ["%PDF-1.7", "PDF"],
    ["<svg onload=alert(1)>", "text"],
    ["<html><script>", "text"],
    ["", "text"],
    ["MZ\x90\0", "other"],
    ["PK\x03\x04", "other"],
    ["\xff\xfe\0", "other"],
  ])("%j is %s", (start, type) => expect(fileTypeOf(bytes(start))).toBe(type));

  test("text in any script, also where the end is cut within a character", () => {
    const whole = new TextEncoder().encode("Öffnungszeiten: 朝から ".repeat(100));
    for (let cut = 0; cut < 4; cut++) expect(fileTypeOf(whole.subarray(0, whole.length - cut))).toBe("text");
  });

  test("nothing that a browser would run is shown as a picture", () =>
    expect(Object.values(PICTURE_TYPES)).not.toContain("image/svg+xml"));
});

describe("a name to save under", () => {
  test.each([
    ["plan.pdf", "plan.pdf"],
    ["../../etc/passwd", "passwd"],
    ["C:\\Users\\x\\plan.pdf", "plan.pdf"],
    [".htaccess", "htaccess"],
    ["...", "file"],
    ["", "file"],
    ["a\u202egpj.exe", "agpj.exe"],
    ["what? <really>.txt", "what_ _really_.txt"],
    ["مفتاح.txt", "مفتاح.txt"],
  ])("%j becomes %j", (name, safe) => expect(safeFileName(name)).toBe(safe));

  test("any name becomes one line, in its folder, of at most 200 characters; and stays as it is from then on", () =>
    fc.assert(
      fc.property(fc.string({ unit: "binary", maxLength: 400 }), (name) => {
        const safe = safeFileName(name);
        expect(safe).not.toMatch(/[/\\\u0000-\u001f\u202a-\u202e\u2066-\u2069]/);
        expect(safe.startsWith(".")).toBe(false);
        expect(safe.length).toBeGreaterThan(0);
        expect(safe.length).toBeLessThanOrEqual(200);
      }),
    ));

  test("a long one keeps its ending", () => expect(safeFileName(`${"n".repeat(300)}.jpeg`)).toMatch(/^n{195}\.jpeg$/));
});
