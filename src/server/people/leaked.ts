/**
 * Sign-in passwords that are on a list of leaked ones are not taken (NIST SP 800-63B-4, section 3.1.1.2). Of the password
 * only the first five digits of its SHA-1 are sent (k-anonymity); the answer lists the other digits of all that begin so.
 */
import { createHash } from "node:crypto";
import { z } from "zod";
import type { Galtry } from "../galtry";
import { failed } from "../log";
import { outgoingFetch } from "../outgoingFetch";
import { Refused } from "../refused";
import { hashPassword } from "./password";
import { password as t } from "./strings";

const TIMEOUT_MS = 3_000;
const SENT_DIGITS = 5;
const lineSchema = z.string().regex(/^[0-9A-F]{35}:\d+$/i);

/**
 * Where no list is set up, or it does not answer, the password is taken: nobody is shut out because of it.
 * @throws Refused bad-input at `field` for a password on the list
 */
export async function refuseLeaked(
  app: Pick<Galtry, "configuration">,
  password: string,
  field = "password",
): Promise<void> {
  const list = app.configuration.leakedPasswords;
  if (!list) return;
  const hash = createHash("sha1").update(password, "utf8").digest("hex").toUpperCase();
  const [sent, rest] = [hash.slice(0, SENT_DIGITS), hash.slice(SENT_DIGITS)];
  let lines: string[];
  try {
    lines = await linesOf(new URL(`${list.href.replace(/\/$/, "")}/${sent}`));
  } catch (error) {
    failed("leaked-passwords", error);
    return;
  }
  // Lines that pad the answer say that they were seen 0 times.
  if (lines.some((line) => line.toUpperCase().startsWith(`${rest}:`) && !line.endsWith(":0")))
    throw new Refused("bad-input", t.itIsOnAList, field);
}

/** The hash of a sign-in password that may be taken. @throws Refused bad-input */
export async function newPassword(app: Pick<Galtry, "configuration">, password: string): Promise<string> {
  await refuseLeaked(app, password);
  return hashPassword(password);
}

async function linesOf(address: URL): Promise<string[]> {
  const headers = { "add-padding": "true", "user-agent": "Galtry" };
  const answer = await outgoingFetch(address, { headers }, TIMEOUT_MS);
  if (!answer.ok) throw new Error(`the list of leaked passwords answered ${answer.status}`);
  return (await answer.text()).split(/\r?\n/).filter((line) => lineSchema.safeParse(line).success);
}
