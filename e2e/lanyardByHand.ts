/** A Lanyard without a browser: pairs, proves its key and signs in over HTTP, for tests of the server alone. */
import { calculateJwkThumbprint, exportJWK, generateKeyPair, type JWK, SignJWT } from "jose";
import { sha256, toBase64Url, utf8 } from "../src/core/crypto";
import { confirmPairing, startPairing, takeToken } from "../src/server/lanyard/pairing";
import type { App } from "./house";

export interface ByHand {
  token: string;
  /** A proof for one request; `change` makes it a wrong one. */
  prove: (method: string, place: string, change?: ProofChange) => Promise<string>;
  post: (place: string, body: unknown, proof?: string, token?: string | null) => Promise<Response>;
  /** What its stream says until it ends. */
  live: () => Promise<string>;
  /** The last line of a sealed sign-in's answer. */
  signIn: (entryId: string) => Promise<{ answer?: { outcome: string }; refused?: { code: string } }>;
}

interface ProofChange {
  at?: number;
  jti?: string;
  forToken?: string;
  key?: Awaited<ReturnType<typeof generateKeyPair>>;
}

/** @param address from which it is paired: of one, only so many are */
export async function lanyardByHand(app: App, personId: string, url = app.url, address = "127.0.0.1"): Promise<ByHand> {
  const key = await generateKeyPair("ES256");
  const nobody = { kind: "nobody" as const, address, browser: "", knownBrowser: null };
  const thumbprint = await calculateJwkThumbprint(await exportJWK(key.publicKey), "sha256");
  const started = await startPairing.execute(app.galtry, { browser: "By hand", version: "0.1.0", thumbprint }, nobody);
  await confirmPairing.execute(
    app.galtry,
    { userCode: started.userCode },
    { kind: "person", personId, sessionId: null, provedAt: Date.now(), address: "", browser: "" },
  );
  const taken = await takeToken.execute(app.galtry, { deviceCode: started.deviceCode, thumbprint }, nobody);
  if (taken.state !== "connected") throw new Error("not connected");
  const { token } = taken;

  const prove: ByHand["prove"] = async (method, place, change = {}) => {
    const { publicKey, privateKey } = change.key ?? key;
    const jwk: JWK = await exportJWK(publicKey);
    return new SignJWT({
      htm: method,
      htu: `${app.url}/api/lanyard/${place}`,
      jti: change.jti ?? crypto.randomUUID(),
      ath: toBase64Url(sha256(utf8(change.forToken ?? token))),
    })
      .setProtectedHeader({ typ: "dpop+jwt", alg: "ES256", jwk })
      .setIssuedAt(Math.floor((change.at ?? Date.now()) / 1000))
      .sign(privateKey);
  };
  const post: ByHand["post"] = async (place, body, proof, presented = token) =>
    fetch(`${url}/api/lanyard/${place}`, {
      method: "POST",
      headers: {
        "content-type": "application/json",
        dpop: proof ?? (await prove("POST", place)),
        ...(presented === null ? {} : { authorization: `DPoP ${presented}` }),
      },
      body: JSON.stringify(body),
    });
  return {
    token,
    prove,
    post,
    live: async () => {
      const headers = { dpop: await prove("GET", "live"), authorization: `DPoP ${token}` };
      return (await fetch(`${url}/api/lanyard/live`, { headers, signal: AbortSignal.timeout(20_000) })).text();
    },
    signIn: async (entryId) => {
      const lines = (await (await post("sign-in", { entryId })).text()).trim().split("\n");
      return JSON.parse(lines.at(-1)!);
    },
  };
}
