/**
 * Lists of what has leaked, of passwords or of email addresses, as the operator has set them up. Of what is looked up only
 * the first five digits of its SHA-1 are sent (k-anonymity); the answer lists the other digits of all that begin so, and
 * some that pad it.
 */
import { createHash } from "node:crypto";
import { z } from "zod";
import { outgoingFetch } from "./outgoingFetch";

const TIMEOUT_MS = 3_000;
const SENT_DIGITS = 5;
const lineSchema = z.string().regex(/^[0-9A-F]{35}:\d+$/i);

/**
 * How often something stands in the list; 0 where it does not.
 * @throws where the list does not answer
 */
export async function timesLeaked(list: URL, text: string): Promise<number> {
  const hash = createHash("sha1").update(text, "utf8").digest("hex").toUpperCase();
  const [sent, rest] = [hash.slice(0, SENT_DIGITS), hash.slice(SENT_DIGITS)];
  const lines = await linesOf(new URL(`${list.href.replace(/\/$/, "")}/${sent}`));
  const line = lines.find((one) => one.toUpperCase().startsWith(`${rest}:`));
  // Lines that pad the answer say that they were seen 0 times.
  return line === undefined ? 0 : Math.min(Number(line.slice(line.indexOf(":") + 1)), Number.MAX_SAFE_INTEGER);
}

async function linesOf(address: URL): Promise<string[]> {
  const headers = { "add-padding": "true", "user-agent": "Galtry" };
  const answer = await outgoingFetch(address, { headers }, TIMEOUT_MS);
  if (!answer.ok) throw new Error(`a list of what has leaked answered ${answer.status}`);
  return (await answer.text()).split(/\r?\n/).filter((line) => lineSchema.safeParse(line).success);
}
