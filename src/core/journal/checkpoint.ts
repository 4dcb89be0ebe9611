/**
 * A checkpoint says how many lines the Journal had at a moment, and the root over all of them, signed. Its form is that
 * of C2SP's tlog-checkpoint: a signed note, whose text is the origin, the size and the root in base64, each on a line,
 * here with one more for the moment; signed with Ed25519 (RFC 8032). Noted outside of Galtry, it shows later whether
 * anything before it was changed.
 */
import { ed25519 } from "@noble/curves/ed25519.js";
import { type Bytes, concat, fromBase64, sha256, toBase64, toHex, utf8 } from "../crypto";

export interface Checkpoint {
  /** Whose Journal: the host of Galtry's public address, and “/journal”. */
  origin: string;
  /** Lines. */
  size: number;
  /** 32 bytes. */
  root: Uint8Array;
  /** When it was made, UTC milliseconds; to the second. */
  at: number;
}

const ALGORITHM = 1;
const MADE = "made ";

/** How a signature names its key: the first four bytes of SHA-256 over the name, a newline, the algorithm and the key. */
const keyMark = (name: string, key: Uint8Array): Bytes =>
  sha256(concat(utf8(`${name}\n`), Uint8Array.of(ALGORITHM), key)).slice(0, 4);

/** The key that checks, as notes have it: name, mark in hexadecimal and key in base64, with plus signs between. */
export function verifierOf(origin: string, secret: Bytes): string {
  const key = ed25519.getPublicKey(secret);
  return `${origin}+${toHex(keyMark(origin, key))}+${toBase64(concat(Uint8Array.of(ALGORITHM), key))}`;
}

const textOf = ({ origin, size, root, at }: Checkpoint): string =>
  `${origin}\n${size}\n${toBase64(root)}\n${MADE}${new Date(at).toISOString().replace(/\.\d+Z$/, "Z")}\n`;

/**
 * @param secret the 32 bytes of RFC 8032's private key
 * @returns the note: text, an empty line, and the line with the signature
 */
export function signCheckpoint(checkpoint: Checkpoint, secret: Bytes): string {
  const text = textOf(checkpoint);
  const signature = concat(keyMark(checkpoint.origin, ed25519.getPublicKey(secret)), ed25519.sign(utf8(text), secret));
  return `${text}\n— ${checkpoint.origin} ${toBase64(signature)}\n`;
}

export type CheckpointFault =
  /** It is no checkpoint at all. */
  | "form"
  /** It is that of another Journal. */
  | "origin"
  /** It was signed with another key, or not at all. */
  | "key"
  /** What it says is not what was signed. */
  | "signature";

const NOTE = /\n([^\n]+\n\d+\n[^\n]+\nmade [^\n]+\n)\n((?:— [^\n]+\n)+)/;

/**
 * Reads a note and checks its signature.
 * @param note also with the line ends of Windows, and with other text around it: a whole mail, as it was kept
 * @param verifier as `verifierOf` gives it
 */
export function openCheckpoint(note: string, verifier: string): Checkpoint | { fault: CheckpointFault } {
  const [, text, signatures] = NOTE.exec(`\n${note.replaceAll("\r\n", "\n")}\n`) ?? [];
  const read = text === undefined ? null : readText(text);
  if (!read || !text || !signatures) return { fault: "form" };
  const [, name, mark, encoded] = /^([^+\s]+)\+([0-9a-f]{8})\+(\S+)$/.exec(verifier) ?? [];
  if (!name || !encoded) return { fault: "key" };
  if (read.origin !== name) return { fault: "origin" };
  const key = fromBase64(encoded).slice(1);
  for (const line of signatures.trim().split("\n")) {
    const [, by, signed] = /^— (\S+) ([A-Za-z0-9+/=]+)$/.exec(line) ?? [];
    const bytes = by === name && signed ? orNothing(() => fromBase64(signed)) : null;
    if (bytes?.length !== 68 || toHex(bytes.slice(0, 4)) !== mark || toHex(keyMark(name, key)) !== mark) continue;
    const holds = orNothing(() => ed25519.verify(bytes.slice(4), utf8(text), key, { zip215: false }));
    return holds ? read : { fault: "signature" };
  }
  return { fault: "key" };
}

function readText(text: string): Checkpoint | null {
  const [origin, size, root, made, ...rest] = text.split("\n");
  if (!origin || !size || !root || rest.join("") !== "" || !made?.startsWith(MADE)) return null;
  if (!/^(0|[1-9]\d{0,14})$/.test(size)) return null;
  const at = Date.parse(made.slice(MADE.length));
  const bytes = orNothing(() => fromBase64(root));
  if (bytes?.length !== 32 || !Number.isFinite(at)) return null;
  return { origin, size: Number(size), root: bytes, at };
}

function orNothing<T>(work: () => T): T | null {
  try {
    return work();
  } catch {
    return null;
  }
}

/** Whether a text may be the hash of a line rather than a checkpoint. */
export const isLineHash = (text: string): boolean => /^[0-9a-f]{64}$/.test(text.trim());
