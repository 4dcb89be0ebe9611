import { createHash } from "node:crypto";
import fc from "fast-check";
import { describe, expect, test } from "vitest";
import { carriesSecret, tracesOf } from "./carries";

const SECRET = "canary/Größe+41 &<'\"=€";
const carries = async (text: string, secret = SECRET) => carriesSecret([text], tracesOf(secret, "somebody"));
const around = (text: string) => `before.${text}.after`;

describe("a password given back in disguise is found", () => {
  const bytes = Buffer.from(SECRET);
  const wide = Buffer.from(SECRET, "utf16le");
  const disguises: Record<string, string> = {
    raw: SECRET,
    "UTF-16": wide.toString("latin1"),
    "UTF-16 big-endian": Buffer.from(wide).swap16().toString("latin1"),
    percent: encodeURIComponent(SECRET),
    "percent, all": [...bytes].map((b) => `%${b.toString(16)}`).join(""),
    "percent twice": encodeURIComponent(encodeURIComponent(SECRET)),
    form: new URLSearchParams({ x: SECRET }).toString().slice(2),
    html: SECRET.replace(
      /[&<>"']/g,
      (c) => ({ "&": "&amp;", "<": "&lt;", ">": "&gt;", '"': "&quot;", "'": "&#39;" })[c]!,
    ),
    "html numbers": Array.from(SECRET, (c) => `&#${c.codePointAt(0)};`).join(""),
    json: JSON.stringify(SECRET),
    "json in \\u": SECRET.replace(/[\s\S]/g, (c) => `\\u${c.charCodeAt(0).toString(16).padStart(4, "0")}`),
    "quoted-printable": [...bytes]
      .map((b) =>
        b === 61 || b < 33 || b > 126 ? `=${b.toString(16).toUpperCase().padStart(2, "0")}` : String.fromCharCode(b),
      )
      .join(""),
    hex: bytes.toString("hex"),
    HEX: bytes.toString("hex").toUpperCase(),
    "UTF-16 hex": wide.toString("hex"),
    ...Object.fromEntries(
      ["md5", "sha1", "sha256"].flatMap((name) => [
        [`${name} hex`, createHash(name).update(SECRET).digest("hex")],
        [`${name} base64`, createHash(name).update(SECRET).digest("base64")],
        [`${name} base64url`, createHash(name).update(SECRET).digest("base64url")],
      ]),
    ),
  };
  test.each(Object.entries(disguises))("%s", async (_, text) => expect(await carries(around(text))).toBe(true));

  test.each([0, 1, 2, 3, 4, 5])("base64 and base64url at offset %i", async (offset) => {
    const inside = Buffer.concat([Buffer.alloc(offset, 0x2e), bytes, Buffer.from("tail")]);
    expect(await carries(inside.toString("base64"))).toBe(true);
    expect(await carries(inside.toString("base64url"))).toBe(true);
    expect(await carries(encodeURIComponent(inside.toString("base64")))).toBe(true);
  });

  test("any password of eight or more, in base64 at any offset", async () => {
    await fc.assert(
      fc.asyncProperty(
        fc.string({ minLength: 8, maxLength: 40 }),
        fc.nat(5),
        fc.nat(5),
        async (secret, before, after) => {
          fc.pre(secret !== "somebody");
          const text = Buffer.concat([
            Buffer.alloc(before, 120),
            Buffer.from(secret),
            Buffer.alloc(after, 121),
          ]).toString("base64");
          expect(await carries(text, secret)).toBe(true);
        },
      ),
      { numRuns: 300 },
    );
  });
});

test("what does not hold it is not suspected", async () => {
  expect(await carries("session=5f2c9b7a0e; path=/; theme=canary")).toBe(false);
  await fc.assert(
    fc.asyncProperty(fc.base64String({ maxLength: 200 }), async (text) => {
      expect(await carries(text)).toBe(false);
    }),
    { numRuns: 200 },
  );
});

test("short ones, and those equal to the user name, count as whole values only", async () => {
  expect(carriesSecret(["1234567"], tracesOf("1234567", ""))).toBe(true);
  expect(carriesSecret(["a1234567b"], tracesOf("1234567", ""))).toBe(false);
  expect(carriesSecret(["visit-of-somebody-long"], tracesOf("somebody-long", "somebody-long"))).toBe(false);
  expect(carriesSecret(["%31234567"], tracesOf("1234567", ""))).toBe(true);
});
