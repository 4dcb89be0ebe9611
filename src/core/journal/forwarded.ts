/** Lines of the Journal as they are sent on: to a syslog (RFC 5424, framed as RFC 6587 has it) or to a webhook (Standard Webhooks). */
import { hmac, toBase64, utf8 } from "../crypto";
import type { JournalLine } from "./chain";

export interface ForwardedLine extends JournalLine {
  hash: string;
  previous: string;
  /** What was called how when the line was written, by id; without what has been erased. */
  called: Record<string, string>;
}

/** What is sent of a line, with its details as what they are. */
export const plainLine = ({ at, details, names: _, ...line }: ForwardedLine): Record<string, unknown> => ({
  ...{ at: new Date(at).toISOString(), ...line, details: JSON.parse(details) },
});

/** “log audit”, and how much it matters: what was refused is a warning. */
const AUDIT = 13;
const SEVERITY = { done: 6, refused: 4 } as const;

/** Printable ASCII without spaces, of at most so many characters; “-” where nothing is left. */
const headerPart = (text: string, most: number): string => text.replace(/[^!-~]/g, "").slice(0, most) || "-";

const parameter = (text: string): string => text.replace(/["\\\]]/g, "\\$&");

/**
 * One line as a message of RFC 5424. The structured data stand under Galtry's own name with the number that RFC 5612 has
 * for those without one; the message is JSON.
 * @param host as whom it is sent
 */
export function syslogMessage(line: ForwardedLine, host: string): string {
  const { seq, at, act, outcome, person, hash } = line;
  const said: [string, string][] = [
    ["seq", String(seq)],
    ["outcome", outcome],
    ["person", person ?? ""],
    ["hash", hash],
  ];
  const data = said.map(([name, value]) => `${name}="${parameter(value)}"`).join(" ");
  const header = `<${AUDIT * 8 + SEVERITY[outcome]}>1 ${new Date(at).toISOString()} ${headerPart(host, 255)} galtry - ${headerPart(act, 32)}`;
  // The byte order mark says that what follows is UTF-8.
  return `${header} [galtry@32473 ${data}] \uFEFF${JSON.stringify(plainLine(line))}`;
}

/** Messages one after the other, each after its length in octets. */
export const framed = (messages: readonly string[]): string =>
  messages.map((message) => `${utf8(message).length} ${message}`).join("");

/**
 * What proves to a webhook who sends it.
 * @param id the same whenever the same is sent again
 * @param at UTC milliseconds
 */
export function webhookHeaders(id: string, at: number, body: string, secret: string): Record<string, string> {
  const seconds = String(Math.floor(at / 1000));
  const signature = toBase64(hmac(utf8(secret), utf8(`${id}.${seconds}.${body}`)));
  return { "webhook-id": id, "webhook-timestamp": seconds, "webhook-signature": `v1,${signature}` };
}
