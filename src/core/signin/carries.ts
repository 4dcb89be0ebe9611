/**
 * Whether something that is about to be handed over holds a password in a form that could be turned back or
 * compared: raw, UTF-16, escaped (percent, form, HTML, JSON, quoted-printable), base64 and base64url at any
 * offset, hex, and the hex or base64 MD5, SHA-1 and SHA-256 of it.
 */
import { md5, sha1 } from "@noble/hashes/legacy.js";
import { sha256 } from "@noble/hashes/sha2.js";
import { concat, toHex, utf8 } from "../crypto";

/** Passwords shorter than this, or equal to the user name, count only as a whole value. */
const SHORTEST_PART = 8;

export interface SecretTraces {
  /** Searched for without regard to case. */
  anyCase: string[];
  exact: string[];
  /** Compared with whole cookie and parameter values only. */
  wholeOnly: string | null;
}

export function tracesOf(password: string, userName: string): SecretTraces {
  if (password === "") return { anyCase: [], exact: [], wholeOnly: null };
  const whole = password.length < SHORTEST_PART || password === userName;
  if (whole) return { anyCase: [], exact: [], wholeOnly: password };

  const bytes = utf8(password);
  const wide = utf16(password);
  const digests = [md5, sha1, sha256].map((digest) => digest(bytes));
  const binary = [bytes, wide.little, wide.big, latin1(password)].filter((form) => form !== null);
  return {
    anyCase: [...binary.map(toHex), ...digests.map(toHex), percentAll(bytes)],
    exact: [
      password,
      ...binary.map(rawText),
      ...escaped(password),
      ...binary.flatMap(base64Parts),
      ...digests.flatMap((digest) => bothAlphabets(base64(digest).replace(/=+$/, ""))),
    ].filter((trace) => trace.length >= 6),
    wholeOnly: null,
  };
}

/** The first trace found in any of the values, or null. Each value is also tried with its escapes undone. */
export function carriesSecret(values: readonly string[], traces: SecretTraces): boolean {
  return values.flatMap(readings).some((value) => {
    if (traces.wholeOnly !== null) return value === traces.wholeOnly;
    const lower = value.toLowerCase();
    return (
      traces.exact.some((trace) => value.includes(trace)) ||
      traces.anyCase.some((trace) => lower.includes(trace.toLowerCase()))
    );
  });
}

/** A value as it stands and with percent and form escapes undone, once and twice. */
function readings(value: string): string[] {
  const seen = new Set([value]);
  let now = value;
  for (let round = 0; round < 2; round++) {
    now = tolerant(now.replaceAll("+", " "));
    seen.add(now);
  }
  seen.add(tolerant(value));
  return [...seen];
}

function tolerant(value: string): string {
  return value.replace(/(?:%[0-9a-f]{2})+/gi, (run) => {
    try {
      return decodeURIComponent(run);
    } catch {
      return run;
    }
  });
}

function utf16(text: string): { little: Uint8Array; big: Uint8Array } {
  const little = new Uint8Array(text.length * 2);
  for (let i = 0; i < text.length; i++) {
    const unit = text.charCodeAt(i);
    little[i * 2] = unit & 0xff;
    little[i * 2 + 1] = unit >> 8;
  }
  const big = little.slice();
  for (let i = 0; i < big.length; i += 2) [big[i], big[i + 1]] = [little[i + 1]!, little[i]!];
  return { little, big };
}

const latin1 = (text: string): Uint8Array | null =>
  /^[\u0000-\u00ff]*$/.test(text) && /[\u0080-\u00ff]/.test(text)
    ? Uint8Array.from(text, (c) => c.charCodeAt(0))
    : null;
const rawText = (bytes: Uint8Array) => String.fromCharCode(...bytes);
const base64 = (bytes: Uint8Array) => btoa(rawText(bytes));
const bothAlphabets = (text: string) => [text, text.replaceAll("+", "-").replaceAll("/", "_")];

/** The characters of the base64 form that depend on these bytes alone, at each of the three offsets. */
function base64Parts(bytes: Uint8Array): string[] {
  return [0, 1, 2].flatMap((offset) => {
    const text = base64(concat(new Uint8Array(offset), bytes)).replace(/=+$/, "");
    const from = offset === 0 ? 0 : offset + 1;
    const spare = ((offset + bytes.length) * 8) % 6 === 0 ? 0 : 1;
    return bothAlphabets(text.slice(from, text.length - spare));
  });
}

const percentAll = (bytes: Uint8Array) =>
  Array.from(bytes, (byte) => `%${byte.toString(16).padStart(2, "0")}`).join("");

function escaped(text: string): string[] {
  const html = text.replace(
    /[&<>"']/g,
    (c) => ({ "&": "&amp;", "<": "&lt;", ">": "&gt;", '"': "&quot;", "'": "&#39;" })[c] ?? c,
  );
  const json = JSON.stringify(text).slice(1, -1);
  const unicode = Array.from(
    { length: text.length },
    (_, i) => `\\u${text.charCodeAt(i).toString(16).padStart(4, "0")}`,
  ).join("");
  const numeric = Array.from(text, (c) => `&#${c.codePointAt(0)};`).join("");
  const numericHex = Array.from(text, (c) => `&#x${c.codePointAt(0)!.toString(16)};`).join("");
  const quoted = Array.from(utf8(text), (b) =>
    b === 61 || b < 33 || b > 126 ? `=${b.toString(16).toUpperCase().padStart(2, "0")}` : String.fromCharCode(b),
  ).join("");
  const mixedJson = json.replace(/[^\u0020-\u007e]/g, (c) => `\\u${c.charCodeAt(0).toString(16).padStart(4, "0")}`);
  const slashed = json.replaceAll("/", "\\/");
  return [
    encodeURIComponent(text),
    encodeURIComponent(text).replaceAll("%20", "+"),
    new URLSearchParams({ p: text }).toString().slice(2),
    html,
    html.replaceAll("&#39;", "&#x27;"),
    json,
    unicode,
    numeric,
    numericHex,
    quoted,
    mixedJson,
    slashed,
  ];
}
