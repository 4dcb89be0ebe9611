/** Sign-in passwords: Argon2id at OWASP's second recommendation (19 MiB, two passes, one lane). */
import { type Algorithm, hash, verify } from "@node-rs/argon2";
import { z } from "zod";

const PARAMETERS = { algorithm: 2 as Algorithm.Argon2id, memoryCost: 19_456, timeCost: 2, parallelism: 1 };

export const signInPasswordSchema = z
  .string()
  .min(12, "A sign-in password has at least 12 characters: three or four words do well.")
  .max(200, "A sign-in password has at most 200 characters.");

export const hashPassword = (password: string): Promise<string> => hash(password, PARAMETERS);

/** Takes the same time whether or not there is a hash to compare with. */
export async function verifyPassword(stored: string | null, password: string): Promise<boolean> {
  if (stored === null) {
    await verify(await nobody(), password);
    return false;
  }
  return verify(stored, password);
}

let made: Promise<string> | undefined;
const nobody = () => (made ??= hashPassword(crypto.randomUUID()));
