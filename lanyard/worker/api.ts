/** Calls to Galtry: every request proves the key of this browser. */
import type { Connection } from "../shared/messages";
import { proofFor } from "./key";
import { disk, setMemory } from "./store";
import { api as t } from "./strings";

export class Refusal extends Error {
  constructor(
    readonly code: string,
    message: string,
    readonly data: Record<string, unknown> = {},
  ) {
    super(message);
  }
}

/** Galtry does not answer. */
export class Unreachable extends Error {}

type Connected = Extract<Connection, { state: "connected" }>;

export async function connected(): Promise<Connected> {
  const connection = await disk("connection");
  if (connection.state !== "connected") throw new Refusal("signed-out", t.lanyardIsNotConnectedToGaltry);
  return connection;
}

/** @throws Unreachable */
export async function send(
  address: string,
  place: string,
  body: unknown,
  token: string | null,
  method = "POST",
  headers: Record<string, string> = {},
  signal?: AbortSignal,
): Promise<Response> {
  const url = new URL(`/api/lanyard/${place}`, address).href;
  const proof = await proofFor(method, url, token);
  try {
    const response = await fetch(url, {
      method,
      credentials: "omit",
      cache: "no-store",
      redirect: "error",
      signal: signal ?? null,
      headers: {
        dpop: proof,
        ...(token ? { authorization: `DPoP ${token}` } : {}),
        ...(body === undefined ? {} : { "content-type": "application/json" }),
        ...headers,
      },
      ...(body === undefined ? {} : { body: JSON.stringify(body) }),
    });
    await setMemory({ reachable: true, lastReached: Date.now() });
    return response;
  } catch {
    await setMemory({ reachable: false });
    throw new Unreachable(t.galtryIsNotResponding);
  }
}

/** @throws Refusal, Unreachable */
export async function answerOf<R>(response: Response): Promise<R> {
  const answer = (await response.json().catch(() => null)) as
    | { ok: true; result: R }
    | { ok: false; refused: { code: string; message: string; data?: Record<string, unknown> } }
    | null;
  if (!answer) throw new Unreachable(t.galtrysResponseCouldNotBe);
  if (!answer.ok) throw new Refusal(answer.refused.code, answer.refused.message, answer.refused.data);
  return answer.result;
}

/** Runs a command or query for the connected person. */
export async function ask<R>(name: string, input: unknown): Promise<R> {
  const { address, token } = await connected();
  return answerOf<R>(await send(address, `run/${name}`, input, token));
}
