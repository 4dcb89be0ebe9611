/** The key kept in this browser: made once a connection, not extractable, in IndexedDB. */
import { exportJWK, SignJWT } from "jose";
import { sha256, toBase64Url, utf8 } from "../../src/core/crypto/bytes";

const NAME = "lanyard";

function store(mode: IDBTransactionMode): Promise<IDBObjectStore> {
  return new Promise((resolve, reject) => {
    const request = indexedDB.open(NAME, 1);
    request.onupgradeneeded = () => request.result.createObjectStore("keys");
    request.onerror = () => reject(request.error);
    request.onsuccess = () => resolve(request.result.transaction("keys", mode).objectStore("keys"));
  });
}

const done = <T>(request: IDBRequest<T>): Promise<T> =>
  new Promise((resolve, reject) => {
    request.onsuccess = () => resolve(request.result);
    request.onerror = () => reject(request.error);
  });

export async function newKey(): Promise<void> {
  const pair = await crypto.subtle.generateKey({ name: "ECDSA", namedCurve: "P-256" }, false, ["sign", "verify"]);
  await done((await store("readwrite")).put(pair, "proof"));
}

export async function forgetKey(): Promise<void> {
  await done((await store("readwrite")).delete("proof"));
}

/** A proof of possession for one request: DPoP, RFC 9449 section 4.2. */
export async function proofFor(method: string, address: string, token: string | null): Promise<string> {
  const pair = (await done((await store("readonly")).get("proof"))) as CryptoKeyPair | undefined;
  if (!pair) throw new Error("no key");
  const { kty, crv, x, y } = await exportJWK(pair.publicKey);
  const ath = token === null ? {} : { ath: toBase64Url(sha256(utf8(token))) };
  return new SignJWT({ htm: method, htu: address, jti: crypto.randomUUID(), ...ath })
    .setProtectedHeader({ typ: "dpop+jwt", alg: "ES256", jwk: { kty: kty!, crv: crv!, x: x!, y: y! } as never })
    .setIssuedAt()
    .sign(pair.privateKey);
}
