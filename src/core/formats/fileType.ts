/** What a file is by its first bytes, never by its name or what its sender says. */

export type FileType = "PNG" | "JPEG" | "WebP" | "GIF" | "PDF" | "text" | "other";

const starts = (bytes: Uint8Array, at: number, text: string) =>
  [...text].every((character, index) => bytes[at + index] === character.charCodeAt(0));

/** @param bytes the beginning of the file, at least its first 512 bytes or all of it */
export function fileTypeOf(bytes: Uint8Array): FileType {
  if (starts(bytes, 0, "\x89PNG\r\n\x1a\n")) return "PNG";
  if (starts(bytes, 0, "\xff\xd8\xff")) return "JPEG";
  if (starts(bytes, 0, "RIFF") && starts(bytes, 8, "WEBP")) return "WebP";
  if (starts(bytes, 0, "GIF87a") || starts(bytes, 0, "GIF89a")) return "GIF";
  if (starts(bytes, 0, "%PDF-")) return "PDF";
  return isText(bytes.subarray(0, 65_536)) ? "text" : "other";
}

/** UTF-8 without control characters other than tab and line ends. An end cut within a character is no mistake. */
function isText(bytes: Uint8Array): boolean {
  if (bytes.some((byte) => byte < 0x20 && byte !== 9 && byte !== 10 && byte !== 13)) return false;
  try {
    new TextDecoder("utf-8", { fatal: true }).decode(bytes, { stream: true });
    return true;
  } catch {
    return false;
  }
}

/** The picture types that a page shows. */
export const PICTURE_TYPES: Partial<Record<FileType, string>> = {
  PNG: "image/png",
  JPEG: "image/jpeg",
  WebP: "image/webp",
  GIF: "image/gif",
};

/**
 * A name for a file that is safe to keep and to save under: one line, no path, no leading dots, at most 200
 * characters. What reads right to left stays; characters that turn the reading order around do not.
 */
export function safeFileName(name: string): string {
  const last = name.split(/[/\\]/).at(-1) ?? "";
  const clean = last
    .replace(/[\u0000-\u001f\u007f\u200e\u200f\u202a-\u202e\u2066-\u2069]/g, "")
    .replace(/[<>:"|?*]/g, "_")
    .replace(/^[\s.]+/, "")
    .trim();
  if (clean === "") return "file";
  if (clean.length <= 200) return clean;
  const ending = /\.[^.]{1,10}$/.exec(clean)?.[0] ?? "";
  return clean.slice(0, 200 - ending.length) + ending;
}
