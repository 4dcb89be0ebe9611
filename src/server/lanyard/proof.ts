/** Proof of possession of the key kept in a Lanyard's browser: DPoP, RFC 9449 section 4.3. */

import { lt } from "drizzle-orm";
import { calculateJwkThumbprint, EmbeddedJWK, type JWK, jwtVerify } from "jose";
import { sha256, toBase64Url, utf8 } from "../../core/crypto";
import { proofs } from "../database/schema";
import type { Galtry } from "../galtry";
import { Refused } from "../refused";
import { proof as t } from "./strings";

const PROOF_MS = 60_000;

const bad = (why: string) => new Refused("signed-out", t.lanyardsProofWasNotAccepted(why));

/**
 * Checks a proof in the order of section 4.3 and remembers its `jti`.
 * @param token bound by `ath` when the request carries one
 * @returns the RFC 7638 thumbprint of the key
 */
export async function checkProof(
  app: Galtry,
  proof: string | null,
  request: { method: string; path: string },
  token: string | null,
  at = Date.now(),
): Promise<string> {
  if (!proof) throw bad("there is none");
  let verified: Awaited<ReturnType<typeof jwtVerify>>;
  try {
    verified = await jwtVerify(proof, EmbeddedJWK, { typ: "dpop+jwt", algorithms: ["ES256"] });
  } catch {
    throw bad("its signature does not hold");
  }
  const { payload, protectedHeader } = verified;
  const jwk = protectedHeader.jwk as JWK | undefined;
  if (!jwk || "d" in jwk) throw bad("it names no public key");
  if (payload.htm !== request.method) throw bad("it is for another method");
  if (payload.htu !== new URL(request.path, app.configuration.publicUrl).href) throw bad("it is for another address");
  if (typeof payload.iat !== "number" || Math.abs(at - payload.iat * 1000) > PROOF_MS)
    throw bad("it is too old, or a clock is wrong");
  if (typeof payload.jti !== "string" || payload.jti.length < 16 || payload.jti.length > 64) throw bad("it has no id");
  if (token !== null && payload.ath !== toBase64Url(sha256(utf8(token)))) throw bad("it is for another token");
  await requireFirstUse(app, payload.jti, at);
  return calculateJwkThumbprint(jwk, "sha256");
}

async function requireFirstUse(app: Galtry, jti: string, at: number): Promise<void> {
  const fresh = await app.writer.write(async (tx) => {
    await tx.delete(proofs).where(lt(proofs.expiresAt, at));
    return tx
      .insert(proofs)
      .values({ jti, expiresAt: at + 2 * PROOF_MS })
      .onConflictDoNothing()
      .returning();
  });
  if (fresh.length === 0) throw bad("it was used before");
}
