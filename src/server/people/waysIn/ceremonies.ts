/** Challenges for authenticators (WebAuthn Level 3): made, given back once, and what comes back verified. */
import {
  type AuthenticationResponseJSON,
  generateAuthenticationOptions,
  type RegistrationResponseJSON,
  verifyAuthenticationResponse,
  verifyRegistrationResponse,
} from "@simplewebauthn/server";
import { and, eq, gt, isNull } from "drizzle-orm";
import { z } from "zod";
import type { Reader, Transaction } from "../../database/client";
import { ceremonies, passkeys } from "../../database/schema";
import type { Galtry } from "../../galtry";
import { uuidv7 } from "../../ids";
import { Refused } from "../../refused";
import { waysIn as t } from "../strings";

const CEREMONY_MS = 5 * 60_000;
export type CeremonyKind = (typeof ceremonies.$inferSelect)["kind"];

/** What authenticators bind passkeys to: this Galtry's own host, and no other. */
export const relyingParty = (app: Galtry) => ({
  expectedOrigin: app.configuration.publicUrl.origin,
  expectedRPID: app.configuration.publicUrl.hostname,
});

/** What a browser gives back; the library reads it strictly. */
export const responseSchema = z.looseObject({ id: z.string().min(1).max(2000), response: z.looseObject({}) });

export async function keepCeremony(
  tx: Transaction,
  kind: CeremonyKind,
  challenge: string,
  personId: string | null,
  at: number,
): Promise<string> {
  const id = uuidv7();
  await tx.insert(ceremonies).values({ id, kind, challenge, personId, expiresAt: at + CEREMONY_MS });
  return id;
}

/** A challenge for one of a person's own passkeys, or, where nobody is named, for whichever the browser has. */
export async function askForPasskey(
  tx: Transaction,
  app: Galtry,
  kind: CeremonyKind,
  personId: string | null,
  at: number,
) {
  const own = personId === null ? [] : await tx.select().from(passkeys).where(eq(passkeys.personId, personId));
  const options = await generateAuthenticationOptions({
    rpID: relyingParty(app).expectedRPID,
    userVerification: "required",
    allowCredentials: own.map(({ credentialId }) => ({ id: credentialId })),
  });
  return { ceremonyId: await keepCeremony(tx, kind, options.challenge, personId, at), options };
}

/** Takes a challenge for good: whatever comes of it, it is answered no second time. */
export async function takeCeremony(tx: Transaction, ceremonyId: string, kind: CeremonyKind, at: number) {
  const [row] = await tx
    .update(ceremonies)
    .set({ usedAt: at })
    .where(
      and(
        eq(ceremonies.id, ceremonyId),
        eq(ceremonies.kind, kind),
        isNull(ceremonies.usedAt),
        gt(ceremonies.expiresAt, at),
      ),
    )
    .returning();
  if (!row) throw new Refused("ended", t.thatTookTooLong);
  return row;
}

const notVerified = () => new Refused("bad-input", t.passkeyCouldNotBeVerified);

/** @throws Refused bad-input for another site, another challenge, a wrong signature or nobody verified */
export async function verifyNew(app: Galtry, challenge: string, response: unknown) {
  const found = await verifyRegistrationResponse({
    response: response as RegistrationResponseJSON,
    expectedChallenge: challenge,
    ...relyingParty(app),
    requireUserVerification: true,
  }).catch(() => null);
  if (!found?.verified) throw notVerified();
  return found.registrationInfo.credential;
}

type PasskeyRow = typeof passkeys.$inferSelect;

export const passkeyOf = async (tx: Reader, credentialId: string): Promise<PasskeyRow | null> =>
  (await tx.select().from(passkeys).where(eq(passkeys.credentialId, credentialId)))[0] ?? null;

/**
 * Verifies what a passkey signed.
 * @returns its new count; "copied" where the count went back; null where it does not verify
 */
export async function verifyKnown(
  app: Galtry,
  challenge: string,
  known: PasskeyRow,
  response: unknown,
): Promise<number | "copied" | null> {
  const { userHandle } = (response as AuthenticationResponseJSON).response;
  if (userHandle && Buffer.from(userHandle, "base64url").toString("utf8") !== known.personId) return null;
  // The count is looked at here, so that one that goes back is told from a wrong signature.
  const found = await verifyAuthenticationResponse({
    response: response as AuthenticationResponseJSON,
    expectedChallenge: challenge,
    ...relyingParty(app),
    credential: { id: known.credentialId, publicKey: new Uint8Array(known.publicKey), counter: 0 },
    requireUserVerification: true,
  }).catch(() => null);
  if (!found?.verified) return null;
  const { newCounter } = found.authenticationInfo;
  return (newCounter > 0 || known.counter > 0) && newCounter <= known.counter ? "copied" : newCounter;
}
