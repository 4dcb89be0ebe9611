/**
 * The way out to what an administrator or the operator names: identity providers, the list of leaked passwords. Over
 * https, but for this machine; time and size are limited, redirects are not followed. `*.localhost` is this machine (RFC 6761), which Node does not know by itself.
 */
import { lookup as dnsLookup } from "node:dns";
import type { LookupFunction } from "node:net";
import { Agent, fetch as undiciFetch } from "undici";
import { isLoopbackHost } from "./configuration";

const ANSWER_MS = 8_000;
const MOST_BYTES = 1024 * 1024;

const lookup: LookupFunction = (host, options, found) => {
  if (host !== "localhost" && host.endsWith(".localhost")) dnsLookup("localhost", options, found);
  else dnsLookup(host, options, found);
};

const agent = new Agent({
  connect: { timeout: ANSWER_MS, lookup },
  headersTimeout: ANSWER_MS,
  bodyTimeout: ANSWER_MS,
  maxResponseSize: MOST_BYTES,
});

/** Whether Galtry may call there: https, or this machine. */
export const mayCall = (address: URL): boolean =>
  address.protocol === "https:" || (address.protocol === "http:" && isLoopbackHost(address.hostname));

/** @throws TypeError where it may not call, or nobody answers in time */
export const outgoingFetch = async (
  address: string | URL,
  options: object = {},
  timeoutMs = 2 * ANSWER_MS,
): Promise<Response> => {
  if (!mayCall(new URL(address))) throw new TypeError("only https is called");
  const answer = await undiciFetch(address, {
    ...options,
    redirect: "manual",
    dispatcher: agent,
    signal: AbortSignal.timeout(timeoutMs),
  });
  return answer as unknown as Response;
};
