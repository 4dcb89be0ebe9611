/** Sign-in passwords: Argon2id at OWASP's second recommendation (19 MiB, two passes, one lane). */
import { type Algorithm, hash, verify } from "@node-rs/argon2";
import { z } from "zod";
import { SHORTEST_SIGN_IN_PASSWORD } from "../../core/people/signInPassword";
import { Refused } from "../refused";
import { password as t } from "./strings";

const PARAMETERS = { algorithm: 2 as Algorithm.Argon2id, memoryCost: 19_456, timeCost: 2, parallelism: 1 };

export const signInPasswordSchema = z
  .string()
  .min(SHORTEST_SIGN_IN_PASSWORD, t.aSignInPasswordHasAtLeast)
  .max(200, t.aSignInPasswordHasAtMost);

/** Each takes 19 MiB and a twentieth of a second of a core: so many at once, and so many that wait. */
const MOST_AT_ONCE = 2;
const MOST_WAITING = 60;

const waiting: (() => void)[] = [];
let running = 0;

/** @throws Refused too-many where more people wait than would be served within seconds */
async function inTurn<T>(work: () => Promise<T>): Promise<T> {
  if (running >= MOST_AT_ONCE) {
    if (waiting.length >= MOST_WAITING) throw new Refused("too-many", t.tooManyPeopleAreSigningInAt);
    await new Promise<void>((go) => waiting.push(go));
  } else running++;
  try {
    return await work();
  } finally {
    // Whoever is next takes this place over.
    const next = waiting.shift();
    if (next) next();
    else running--;
  }
}

export const hashPassword = (password: string): Promise<string> => inTurn(() => hash(password, PARAMETERS));

/** Takes the same time whether or not there is a hash to compare with. */
export async function verifyPassword(stored: string | null, password: string): Promise<boolean> {
  if (stored === null) {
    const stranger = await nobody();
    await inTurn(() => verify(stranger, password));
    return false;
  }
  return inTurn(() => verify(stored, password));
}

let made: Promise<string> | undefined;
const nobody = () => (made ??= hashPassword(crypto.randomUUID()));
