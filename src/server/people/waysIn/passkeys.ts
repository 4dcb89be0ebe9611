/** Passkeys (WebAuthn Level 3): added, named, removed, and used to sign in, as a second step and to prove oneself again. */
import { generateRegistrationOptions } from "@simplewebauthn/server";
import { and, eq } from "drizzle-orm";
import { z } from "zod";
import { utf8 } from "../../../core/crypto";
import { command, idSchema, nameSchema, none } from "../../command";
import type { Reader, Transaction } from "../../database/client";
import { passkeys, persons, sessions } from "../../database/schema";
import type { Galtry } from "../../galtry";
import { uuidv7 } from "../../ids";
import { loadHome } from "../../organisation";
import { notFound, Refused } from "../../refused";
import { attemptKey, countAttempt, giveBackAttempt, requireFewAttempts } from "../attempts";
import { enter } from "../entering";
import { waysIn as t } from "../strings";
import { addNotice } from "../telling";
import {
  askForPasskey,
  type CeremonyKind,
  keepCeremony,
  passkeyOf,
  relyingParty,
  responseSchema,
  takeCeremony,
  verifyKnown,
  verifyNew,
} from "./ceremonies";
import { liftLimit } from "./required";
import { loadWays, requireJustProved } from "./ways";

const MOST_PASSKEYS = 20;
/** Of one address in a quarter of an hour, besides those that ended in a sign-in: a whole office may share one. */
const MOST_BEGUN = 300;

/** What the browser is asked for when a passkey is made. */
export async function registrationOptions(
  tx: Transaction,
  app: Galtry,
  kind: CeremonyKind,
  personId: string,
  at: number,
) {
  const [person] = await tx.select().from(persons).where(eq(persons.id, personId));
  if (!person) throw notFound();
  const home = await loadHome(tx);
  const there = await tx.select().from(passkeys).where(eq(passkeys.personId, personId));
  const options = await generateRegistrationOptions({
    rpName: `Galtry, ${home.name}`,
    rpID: relyingParty(app).expectedRPID,
    userID: utf8(personId),
    userName: person.mail,
    userDisplayName: person.name,
    attestationType: "none",
    // The same authenticator twice would be one way in that looks like two.
    excludeCredentials: there.map(({ credentialId }) => ({ id: credentialId })),
    authenticatorSelection: { residentKey: "required", userVerification: "required" },
  });
  return { ceremonyId: await keepCeremony(tx, kind, options.challenge, personId, at), options };
}

export async function keepPasskey(
  tx: Transaction,
  app: Galtry,
  {
    personId,
    challenge,
    response,
    name,
    at,
  }: {
    personId: string;
    challenge: string;
    response: unknown;
    name: string;
    at: number;
  },
): Promise<string> {
  const { id: credentialId, publicKey, counter, transports } = await verifyNew(app, challenge, response);
  if (await passkeyOf(tx, credentialId)) throw new Refused("conflict", t.thisPasskeyIsHereAlready);
  const id = uuidv7();
  await tx.insert(passkeys).values({
    ...{ id, personId, credentialId, publicKey: Buffer.from(publicKey), counter, transports: transports ?? [] },
    ...{ name, createdAt: at },
  });
  return id;
}

export const beginPasskey = command({
  name: "people.beginPasskey",
  evenFor: ["limited", "auditor"],
  input: none,
  by: ["person"],
  allow: async (context) => {
    requireJustProved(context);
    const { passkeys: count } = await loadWays(context.tx, context.me.id);
    if (count >= MOST_PASSKEYS) throw new Refused("conflict", t.tooManyPasskeys(MOST_PASSKEYS));
  },
  run: ({ tx, me, at, app }) => registrationOptions(tx, app, "add", me.id, at),
  journal: null,
  tell: () => [],
});

export const addPasskey = command({
  name: "people.addPasskey",
  evenFor: ["limited", "auditor"],
  input: z.strictObject({ ceremonyId: idSchema, response: responseSchema, name: nameSchema.optional() }),
  by: ["person"],
  allow: requireJustProved,
  run: async ({ tx, me, caller, input, at, app }) => {
    const { challenge, personId } = await takeCeremony(tx, input.ceremonyId, "add", at);
    if (personId !== me.id) throw notFound();
    const { response, name = caller.browser } = input;
    const passkeyId = await keepPasskey(tx, app, { personId: me.id, challenge, response, name, at });
    await addNotice(tx, { to: me.id, at, sort: "security", text: t.aPasskeyWasAdded(name) });
    await liftLimit(tx, caller.sessionId, me.id, at);
    return { passkeyId, name };
  },
  journal: ({ result }) => ({ details: { name: result.name } }),
  says: ({ details }) => `added the passkey ${details.name}`,
  tell: () => [],
});

async function requireOwn(tx: Reader, personId: string, passkeyId: string) {
  const [row] = await tx
    .select()
    .from(passkeys)
    .where(and(eq(passkeys.id, passkeyId), eq(passkeys.personId, personId)));
  if (!row) throw notFound();
  return row;
}

export const renamePasskey = command({
  name: "people.renamePasskey",
  evenFor: ["auditor"],
  input: z.strictObject({ passkeyId: idSchema, name: nameSchema }),
  by: ["person"],
  allow: ({ tx, me, input }) => requireOwn(tx, me.id, input.passkeyId),
  run: async ({ tx, input }) => {
    await tx.update(passkeys).set({ name: input.name }).where(eq(passkeys.id, input.passkeyId));
  },
  journal: null,
  tell: () => [],
});

export const removePasskey = command({
  name: "people.removePasskey",
  evenFor: ["auditor"],
  input: z.strictObject({ passkeyId: idSchema }),
  by: ["person"],
  allow: async (context) => {
    requireJustProved(context);
    const row = await requireOwn(context.tx, context.me.id, context.input.passkeyId);
    const ways = await loadWays(context.tx, context.me.id);
    if (!ways.password && ways.passkeys === 1) throw new Refused("conflict", t.theLastWayIn);
    return row;
  },
  run: async ({ tx, me, at, input, allowed }) => {
    await tx.delete(passkeys).where(eq(passkeys.id, input.passkeyId));
    await addNotice(tx, { to: me.id, at, sort: "security", text: t.aPasskeyWasRemoved(allowed.name) });
  },
  journal: ({ allowed }) => ({ details: { name: allowed.name } }),
  says: ({ details }) => `removed the passkey ${details.name}`,
  tell: () => [],
});

/** A challenge for whatever passkey the browser has for this Galtry: nothing is said of who has one. */
export const beginPasskeySignIn = command({
  name: "people.beginPasskeySignIn",
  input: none,
  by: ["nobody"],
  allow: ({ tx, caller, at, app }) =>
    requireFewAttempts(tx, attemptKey(app.keys, "passkey", caller.address), MOST_BEGUN, at),
  run: async ({ tx, caller, at, app }) => {
    await countAttempt(tx, attemptKey(app.keys, "passkey", caller.address), at);
    return askForPasskey(tx, app, "sign-in", null, at);
  },
  journal: null,
  tell: () => [],
});

interface Verified {
  personId: string;
  /** The count went back: there is a copy of it. */
  copied: string | null;
}

/**
 * Takes the challenge and verifies what was signed.
 * @param of only a passkey of this person counts
 * @returns null where there is no such passkey, or it does not verify
 */
export async function takePasskey(
  tx: Transaction,
  app: Galtry,
  {
    ceremonyId,
    response,
    kind,
    of,
    at,
  }: {
    ceremonyId: string;
    response: z.output<typeof responseSchema>;
    kind: CeremonyKind;
    of: string | null;
    at: number;
  },
): Promise<Verified | null> {
  const ceremony = await takeCeremony(tx, ceremonyId, kind, at);
  if (ceremony.personId !== of) return null;
  const known = await passkeyOf(tx, response.id);
  if (!known || (of !== null && known.personId !== of)) return null;
  const count = await verifyKnown(app, ceremony.challenge, known, response);
  if (count === null) return null;
  if (count === "copied") return { personId: known.personId, copied: known.name };
  await tx.update(passkeys).set({ counter: count, lastUsedAt: at }).where(eq(passkeys.id, known.id));
  return { personId: known.personId, copied: null };
}

/** Signs in with a passkey alone: it is had, and its owner was verified by it. */
export const signInWithPasskey = command({
  name: "people.signInWithPasskey",
  input: z.strictObject({ ceremonyId: idSchema, response: responseSchema }),
  by: ["nobody"],
  allow: () => undefined,
  run: async ({ tx, caller, input, at, app }) => {
    const found = await takePasskey(tx, app, { ...input, kind: "sign-in", of: null, at });
    if (found?.copied) {
      await addNotice(tx, { to: found.personId, at, sort: "security", text: t.aPasskeyWasCopied(found.copied) });
      return { signedIn: false as const, copiedOf: found.personId, message: t.passkeyNotRecognised };
    }
    const entered = found && (await enter(tx, app, found.personId, caller, at));
    if (entered) await giveBackAttempt(tx, attemptKey(app.keys, "passkey", caller.address), at);
    return entered ?? { signedIn: false as const, message: t.passkeyNotRecognised };
  },
  journal: ({ result }) =>
    result.signedIn
      ? { person: result.personId, names: { [result.personId]: result.name } }
      : "copiedOf" in result
        ? { person: result.copiedOf, details: { copied: true } }
        : null,
  says: ({ details }) =>
    details.copied
      ? "was refused a passkey whose count went back: there may be a copy of it"
      : "signed in to Galtry with a passkey",
  tell: ({ result }) => (result.signedIn ? [`person:${result.personId}`] : []),
});

/** The same for somebody who is signed in and is to show that it is them. */
export const beginPasskeyProof = command({
  name: "people.beginPasskeyProof",
  evenFor: ["limited", "auditor"],
  input: none,
  by: ["person"],
  allow: () => undefined,
  run: ({ tx, me, at, app }) => askForPasskey(tx, app, "prove", me.id, at),
  journal: null,
  tell: () => [],
});

export const proveWithPasskey = command({
  name: "people.proveWithPasskey",
  evenFor: ["limited", "auditor"],
  input: z.strictObject({ ceremonyId: idSchema, response: responseSchema }),
  by: ["person"],
  allow: () => undefined,
  run: async ({ tx, me, caller, input, at, app }) => {
    const found = await takePasskey(tx, app, { ...input, kind: "prove", of: me.id, at });
    if (!found || found.copied) return { right: false };
    if (caller.sessionId) await tx.update(sessions).set({ provedAt: at }).where(eq(sessions.id, caller.sessionId));
    return { right: true };
  },
  journal: ({ result }) => ({ details: { right: result.right } }),
  says: ({ details }) => (details.right ? "confirmed with a passkey" : "tried to confirm with a passkey"),
  tell: () => [],
});
