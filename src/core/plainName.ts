/**
 * Names as they are seen. Characters that show nothing and change what is read beside them are left out: two names that
 * look the same are the same, and no name turns around what stands after it (Unicode Technical Report 36, section 2).
 */

/** Controls of direction (UAX 9), zero-width and filling characters, tags, and everything that is no text at all. */
const UNSEEN = new RegExp(
  [
    // Control characters, and what is no character.
    "[\\p{Cc}\\p{Cs}\\p{Noncharacter_Code_Point}]",
    // Soft hyphen; marks, embeddings, overrides and isolates of direction.
    "\\u{ad}|\\u{61c}|[\\u{200e}\\u{200f}\\u{202a}-\\u{202e}\\u{2066}-\\u{2069}]",
    // Of no width, joining, filling, separating.
    "\\u{34f}|[\\u{200b}\\u{2028}\\u{2029}\\u{2060}-\\u{2065}\\u{206a}-\\u{206f}\\u{feff}]|[\\u{115f}\\u{1160}\\u{3164}\\u{ffa0}]",
    // Vowels of Khmer and variants of Mongolian that show nothing; tags.
    "\\u{17b4}|\\u{17b5}|[\\u{180b}-\\u{180f}]|[\\u{e0000}-\\u{e0fff}]|[\\u{fff0}-\\u{fffb}]",
  ].join("|"),
  "gu",
);

const SHAPED = "(?:\\p{L}|\\p{M}|\\p{Extended_Pictographic}|\\p{Emoji_Modifier}|\\u{fe0f})";
const UNSHAPED = "(?:\\p{Script=Latin}|\\p{Script=Greek}|\\p{Script=Cyrillic})";
const JOINERS = "(?:\\u{200c}|\\u{200d})+";

/** Joiners shape letters of some scripts and join emoji; anywhere else they are unseen like the others. */
const JOINER = new RegExp(`(?<!${SHAPED})${JOINERS}|${JOINERS}(?!${SHAPED})|(?<=${UNSHAPED})${JOINERS}`, "gu");

/** A text of one line without what is not seen, and with its accents as one character each (NFC, UAX 15). */
export const plainName = (text: string): string =>
  text
    .replace(/[\t\n\r\u2028\u2029]+/g, " ")
    .replace(UNSEEN, "")
    .replace(JOINER, "")
    .normalize("NFC")
    .trim();
