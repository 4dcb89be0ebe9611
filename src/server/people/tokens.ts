/** Random texts that a browser presents; only their hashes are kept. */
import { randomBytes, sha256, toBase64Url, toHex, utf8 } from "../../core/crypto";

/** 256 bits, base64url. */
export const newToken = (): string => toBase64Url(randomBytes(32));
export const tokenHash = (token: string): string => toHex(sha256(utf8(token)));
