import { armor, Encrypter } from "age-encryption";
import { describe, expect, test } from "vitest";
import { isAge, openAge, readSource } from "./source";

const bytes = (text: string) => new TextEncoder().encode(text);

describe("what a file is", () => {
  test.each([
    ["name,url\nPellam,https://pellam.example", "CSV"],
    ['\uFEFF[{"title":"Pellam","password":"x"}]', "JSON"],
    ["  <list><login name='a' password='b'/></list>", "XML"],
    ['{"version":{"major":1,"minor":0},"accounts":[]}', "credential exchange"],
    ["otpauth://totp/a?secret=JBSWY3DPEHPK3PXP", "one-time codes"],
    ["BEGIN:VCARD\nFN:Leontine\nEND:VCARD", "contacts"],
  ])("%s", (text, format) => expect(readSource(bytes(text)).format).toBe(format));

  test.each([
    ["PK\u0003\u0004 inside", "archive"],
    ["\u0000\u0001\u0002picture", "not a text file"],
    ["one line only", "The file is empty"],
  ])("%j is refused in words", (text, message) => expect(() => readSource(bytes(text))).toThrow(message));
});

describe("age", () => {
  test("opened by its passphrase, in both its forms, and by nothing else", async () => {
    const sealer = new Encrypter();
    sealer.setPassphrase("loom and lantern");
    sealer.setScryptWorkFactor(6);
    const sealed = await sealer.encrypt("name,url\nPellam,https://pellam.example");
    for (const form of [sealed, bytes(armor.encode(sealed))]) {
      expect(isAge(form)).toBe(true);
      const opened = await openAge(form, "loom and lantern");
      expect(readSource(opened).format).toBe("CSV");
      await expect(openAge(form, "another")).rejects.toThrow("does not open the file");
    }
    expect(isAge(bytes("name,url\n"))).toBe(false);
  });
});
