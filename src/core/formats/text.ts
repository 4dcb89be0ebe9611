/** Bytes of a file as text, whatever wrote it. */

export interface Decoded {
  text: string;
  encoding: "UTF-8" | "UTF-16LE" | "UTF-16BE" | "windows-1252";
}

/** Of windows-1252, 0x80 to 0x9F. */
const SIGNS =
  "\u20ac\u0081\u201a\u0192\u201e\u2026\u2020\u2021\u02c6\u2030\u0160\u2039\u0152\u008d\u017d\u008f" +
  "\u0090\u2018\u2019\u201c\u201d\u2022\u2013\u2014\u02dc\u2122\u0161\u203a\u0153\u009d\u017e\u0178";

/** Of every hundred bytes at even or odd places so many are nought in UTF-16 of European text. */
const NOUGHTS = 0.4;

function looksWide(bytes: Uint8Array): "UTF-16LE" | "UTF-16BE" | null {
  const some = bytes.subarray(0, 2000);
  const pairs = Math.floor(some.length / 2);
  if (pairs < 4) return null;
  let [even, odd] = [0, 0];
  for (let i = 0; i < pairs * 2; i += 2) {
    if (some[i] === 0) even++;
    if (some[i + 1] === 0) odd++;
  }
  const wide =
    odd > pairs * NOUGHTS && even === 0 ? "UTF-16LE" : even > pairs * NOUGHTS && odd === 0 ? "UTF-16BE" : null;
  if (wide === null) return null;
  // An archive has noughts too, but as text it would be full of control characters.
  return /[\u0000-\u0008\u000e-\u001f]/.test(new TextDecoder(wide).decode(some.subarray(0, pairs * 2))) ? null : wide;
}

/**
 * By its byte order mark, else by how it looks, else UTF-8 where it is valid, else what older programs of the West write.
 * @throws RangeError for what is no text
 */
export function decodeText(bytes: Uint8Array): Decoded {
  const wide =
    bytes[0] === 0xff && bytes[1] === 0xfe
      ? "UTF-16LE"
      : bytes[0] === 0xfe && bytes[1] === 0xff
        ? "UTF-16BE"
        : looksWide(bytes);
  if (wide) return { text: new TextDecoder(wide).decode(bytes), encoding: wide };
  if (isBinary(bytes)) throw new RangeError("This is not a text file.");
  try {
    return { text: new TextDecoder("utf-8", { fatal: true }).decode(bytes), encoding: "UTF-8" };
  } catch {
    // Some versions of Node take this for ISO 8859-1, where the signs of 0x80 to 0x9F are controls.
    const text = new TextDecoder("windows-1252")
      .decode(bytes)
      .replace(/[\u0080-\u009f]/g, (one) => SIGNS[one.charCodeAt(0) - 0x80]!);
    return { text, encoding: "windows-1252" };
  }
}

/** Archives, pictures and programs have control bytes that no text file has. */
function isBinary(bytes: Uint8Array): boolean {
  const some = bytes.subarray(0, 8000);
  return some.some((byte) => byte < 9 || (byte > 13 && byte < 27) || (byte > 27 && byte < 32));
}
