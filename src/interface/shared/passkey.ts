"use client";

/** Passkeys in the browser (WebAuthn): asked for by Galtry's challenges, loaded only when they are wanted. */
import type {
  PublicKeyCredentialCreationOptionsJSON,
  PublicKeyCredentialRequestOptionsJSON,
} from "@simplewebauthn/browser";
import type { Answer, Refusal } from "./ask";
import { GIVEN_UP } from "./proving";
import { passkey as t } from "./strings";

/** What goes back to Galtry, as the browser gives it. */
export interface Signed {
  id: string;
  response: Record<string, unknown>;
  [part: string]: unknown;
}

interface Begun<O> {
  ceremonyId: string;
  options: O;
}

type Given = { ok: true; result: { ceremonyId: string; response: Signed } } | { ok: false; refused: Refusal };

const cancelled = (): Given => ({ ok: false, refused: { code: GIVEN_UP, message: t.noPasskeyWasUsed } });

/** Uses a passkey for a challenge. */
export async function givePasskey(begun: Answer<Begun<PublicKeyCredentialRequestOptionsJSON>>): Promise<Given> {
  if (!begun.ok) return begun;
  const { startAuthentication } = await import("@simplewebauthn/browser");
  const { ceremonyId, options } = begun.result;
  return startAuthentication({ optionsJSON: options }).then(
    (response): Given => ({ ok: true, result: { ceremonyId, response: response as unknown as Signed } }),
    cancelled,
  );
}

/** Makes a new one for a challenge. */
export async function makePasskey(begun: Answer<Begun<PublicKeyCredentialCreationOptionsJSON>>): Promise<Given> {
  if (!begun.ok) return begun;
  const { startRegistration } = await import("@simplewebauthn/browser");
  const { ceremonyId, options } = begun.result;
  return startRegistration({ optionsJSON: options }).then(
    (response): Given => ({ ok: true, result: { ceremonyId, response: response as unknown as Signed } }),
    (error: Error) =>
      error.name === "InvalidStateError"
        ? { ok: false, refused: { code: "conflict", message: t.alreadyHere } }
        : cancelled(),
  );
}
