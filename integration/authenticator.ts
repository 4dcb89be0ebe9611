/** An authenticator in software (WebAuthn Level 3): a P-256 key that signs as a phone would, for any site it is told. */
import { createHash, generateKeyPairSync, randomBytes, sign } from "node:crypto";

const base64url = (bytes: Uint8Array): string => Buffer.from(bytes).toString("base64url");
const sha256 = (bytes: Uint8Array | string): Buffer => createHash("sha256").update(bytes).digest();

/** Just what an attestation needs of CBOR (RFC 8949). */
function cbor(value: unknown): Buffer {
  const head = (major: number, n: number): Buffer =>
    n < 24
      ? Buffer.from([(major << 5) | n])
      : n < 256
        ? Buffer.from([(major << 5) | 24, n])
        : Buffer.from([(major << 5) | 25, n >> 8, n & 255]);
  if (typeof value === "number") return value >= 0 ? head(0, value) : head(1, -1 - value);
  if (typeof value === "string") return Buffer.concat([head(3, Buffer.byteLength(value)), Buffer.from(value)]);
  if (value instanceof Uint8Array) return Buffer.concat([head(2, value.length), value]);
  const pairs = [...(value as Map<unknown, unknown>)];
  return Buffer.concat([head(5, pairs.length), ...pairs.flatMap(([key, one]) => [cbor(key), cbor(one)])]);
}

interface Said {
  origin?: string;
  rpId?: string;
  /** The owner was verified, by a finger or a PIN. */
  verified?: boolean;
  counter?: number;
  challenge?: string;
  userHandle?: string;
}

export function makeAuthenticator(publicUrl: string) {
  const { publicKey, privateKey } = generateKeyPairSync("ec", { namedCurve: "P-256" });
  const jwk = publicKey.export({ format: "jwk" });
  const id = randomBytes(32);
  let count = 0;
  let user = "";
  const { origin, hostname } = new URL(publicUrl);
  const dataOf = ({ rpId = hostname, verified = true, counter }: Said, more: Buffer = Buffer.alloc(0)): Buffer => {
    const counted = Buffer.alloc(4);
    counted.writeUInt32BE(counter ?? ++count);
    const flags = 0x01 | (verified ? 0x04 : 0) | (more.length > 0 ? 0x40 : 0);
    return Buffer.concat([sha256(rpId), Buffer.from([flags]), counted, more]);
  };
  const clientData = (type: string, challenge: string, said: Said): Buffer =>
    Buffer.from(JSON.stringify({ type, challenge: said.challenge ?? challenge, origin: said.origin ?? origin }));
  return {
    id: base64url(id),
    create(options: { challenge: string; user: { id: string } }, said: Said = {}) {
      user = options.user.id;
      const key = new Map<unknown, unknown>([
        [1, 2],
        [3, -7],
        [-1, 1],
        [-2, Buffer.from(jwk.x!, "base64url")],
        [-3, Buffer.from(jwk.y!, "base64url")],
      ]);
      const credential = Buffer.concat([Buffer.alloc(16), Buffer.from([0, id.length]), id, cbor(key)]);
      const attestation = new Map<string, unknown>([
        ["fmt", "none"],
        ["attStmt", new Map()],
        ["authData", dataOf(said, credential)],
      ]);
      return {
        ...{ id: base64url(id), rawId: base64url(id), type: "public-key", clientExtensionResults: {} },
        response: {
          clientDataJSON: base64url(clientData("webauthn.create", options.challenge, said)),
          attestationObject: base64url(cbor(attestation)),
          transports: ["internal"],
        },
      };
    },
    get(options: { challenge: string }, said: Said = {}) {
      const data = dataOf(said);
      const client = clientData("webauthn.get", options.challenge, said);
      return {
        ...{ id: base64url(id), rawId: base64url(id), type: "public-key", clientExtensionResults: {} },
        response: {
          clientDataJSON: base64url(client),
          authenticatorData: base64url(data),
          signature: base64url(sign("sha256", Buffer.concat([data, sha256(client)]), privateKey)),
          userHandle: said.userHandle ?? user,
        },
      };
    },
  };
}
