/** `/api/lanyard/*`: every request proves the key kept in that browser; with a token it speaks for a person. */

import { z } from "zod";
import type { Caller } from "../caller";
import { idSchema } from "../command";
import { type Galtry, galtry, upToDate } from "../galtry";
import { addressOf, answering, json, orRefused, readJson } from "../http";
import { liveStream } from "../live/stream";
import { unexpected } from "../log";
import { onceAMinute } from "../onceAMinute";
import { Refused } from "../refused";
import { registry } from "../registry";
import { REQUEST_ID } from "../requestId";
import { sealedSignIn } from "../signin/sealed";
import { lanyardFor, renewLanyard, startPairing, takeToken } from "./pairing";
import { checkProof } from "./proof";
import { http as t } from "./strings";

export function lanyardRequest(request: Request, path: string[]): Promise<Response> {
  return answering(request, async () => {
    const app = await galtry();
    const place = `/api/lanyard/${path.join("/")}`;
    const [head, name] = path;
    if (request.method === "GET" && head === "hello")
      return json({ galtry: 1, address: app.configuration.publicUrl.origin });
    await upToDate(app);
    if (head === "pair") return pair(app, request, place, name);
    const caller = await lanyardCaller(app, request, place);
    if (request.method === "GET" && head === "live") return live(app, request, caller);
    if (request.method !== "POST") throw new Refused("not-found", t.thereIsNothingAtThisAddress);
    if (head === "sign-in") return signInStream(app, request, caller);
    return json({ ok: true, result: await runForLanyard(app, caller, name ?? "", await readJson(request)) });
  });
}

async function pair(app: Galtry, request: Request, place: string, name: string | undefined): Promise<Response> {
  const thumbprint = await checkProof(app, request.headers.get("dpop"), { method: request.method, path: place }, null);
  const nobody: Caller = { kind: "nobody", address: addressOf(request, app), browser: "", knownBrowser: null };
  const input = (await readJson(request)) as object;
  if (name === "start")
    return json({ ok: true, result: await startPairing.execute(app, { ...input, thumbprint }, nobody) });
  if (name === "token")
    return json({ ok: true, result: await takeToken.execute(app, { ...input, thumbprint }, nobody) });
  throw new Refused("not-found", t.thereIsNothingAtThisAddress);
}

/** @throws Refused signed-out with how the connection ended, for Lanyard to show */
async function lanyardCaller(
  app: Galtry,
  request: Request,
  place: string,
): Promise<Extract<Caller, { kind: "lanyard" }>> {
  const token = /^DPoP (.+)$/.exec(request.headers.get("authorization") ?? "")?.[1];
  if (!token) throw new Refused("signed-out", t.lanyardIsNotConnected);
  const thumbprint = await checkProof(app, request.headers.get("dpop"), { method: request.method, path: place }, token);
  const nobody: Caller = { kind: "nobody", address: "", browser: "", knownBrowser: null };
  const { lanyard, why, endedAt, endedBy } = await lanyardFor.execute(app, { token }, nobody);
  if (!lanyard || lanyard.thumbprint !== thumbprint)
    throw new Refused("signed-out", t.thisLanyardIsNoLongerConnected, undefined, {
      ended: true,
      why,
      endedAt,
      endedBy,
    });
  const caller: Extract<Caller, { kind: "lanyard" }> = {
    kind: "lanyard",
    personId: lanyard.personId,
    lanyardId: lanyard.id,
    address: addressOf(request, app),
    browser: request.headers.get("user-agent") ?? "",
    language: request.headers.get("accept-language") ?? "en-GB",
  };
  void keepNow(app, caller);
  return caller;
}

const mayKeep = onceAMinute();

/** Writes "last used". */
async function keepNow(app: Galtry, caller: Extract<Caller, { kind: "lanyard" }>): Promise<void> {
  if (mayKeep(caller.lanyardId, Date.now()))
    await renewLanyard.execute(app, {}, caller).catch(orRefused("lanyard.renewLanyard"));
}

async function runForLanyard(app: Galtry, caller: Caller, name: string, input: unknown): Promise<unknown> {
  const found = registry.get(name);
  if (!found || found.internal || !found.by.includes("lanyard"))
    throw new Refused("not-found", t.thereIsNothingAtThisAddress);
  return (await found.execute(app, input, caller)) ?? null;
}

async function live(app: Galtry, request: Request, caller: Extract<Caller, { kind: "lanyard" }>): Promise<Response> {
  const token = /^DPoP (.+)$/.exec(request.headers.get("authorization") ?? "")![1]!;
  const nobody: Caller = { kind: "nobody", address: "", browser: "", knownBrowser: null };
  return liveStream(
    app,
    { personId: caller.personId, owner: caller.lanyardId },
    null,
    request.signal,
    async () => (await lanyardFor.execute(app, { token }, nobody)).lanyard !== null,
  );
}

/** Progress line by line, then the outcome: newline-delimited JSON. */
async function signInStream(
  app: Galtry,
  request: Request,
  caller: Extract<Caller, { kind: "lanyard" }>,
): Promise<Response> {
  const input = z.strictObject({ entryId: idSchema }).safeParse(await readJson(request));
  if (!input.success) throw new Refused("bad-input", t.thisDoesNotNameAnEntry, "entryId");
  const { entryId } = input.data;
  const encoder = new TextEncoder();
  const stream = new ReadableStream<Uint8Array>({
    async start(controller) {
      const say = (line: unknown) => controller.enqueue(encoder.encode(`${JSON.stringify(line)}\n`));
      try {
        say({
          answer: await sealedSignIn(
            app,
            caller,
            entryId,
            (progress, waitsFor) => say({ progress, waitsFor }),
            request.signal,
          ),
        });
      } catch (error) {
        const refused =
          error instanceof Refused
            ? error
            : {
                code: "unexpected",
                message: t.somethingWentWrongIfItHappens(
                  unexpected("signIn.sealed", error, request.headers.get(REQUEST_ID) ?? undefined),
                ),
              };
        try {
          say({ refused: { code: refused.code, message: refused.message } });
        } catch {
          // the browser went away
        }
      }
      try {
        controller.close();
      } catch {
        // closed by the other side
      }
    },
  });
  return new Response(stream, {
    headers: { "content-type": "application/x-ndjson", "cache-control": "no-store, no-transform" },
  });
}
