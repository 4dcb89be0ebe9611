/** An OpenID provider for tests, that answers exactly what it is told to: also what no provider should. */
import { createServer, type IncomingMessage } from "node:http";
import type { AddressInfo } from "node:net";
import { exportJWK, generateKeyPair, type JWTPayload, SignJWT } from "jose";

export interface TestProvider {
  issuer: string;
  clientId: string;
  secret: string;
  /** Claims of the next ID tokens, besides what the protocol asks for. */
  person: { sub: string } & Record<string, unknown>;
  /** What the next answers do otherwise. */
  wrong: {
    claims?: (claims: JWTPayload) => JWTPayload;
    /** The whole ID token. */
    token?: (claims: JWTPayload) => Promise<string>;
    metadata?: (metadata: Record<string, unknown>) => Record<string, unknown>;
    endpoint?: { status: number; body: object };
  };
  /** How often a code was exchanged. */
  exchanged: number;
  /** What a browser brings back from the address it was sent to. */
  answer: (address: string, more?: Record<string, string>) => URL;
  sign: (claims: JWTPayload, header?: { alg?: string; typ?: string }) => Promise<string>;
  rotate: () => Promise<void>;
  /** Of a key that is not the provider's, under its name. */
  forge: (claims: JWTPayload) => Promise<string>;
  close: () => Promise<void>;
}

export async function startTestProvider(
  clientId = "galtry-tests",
  secret = "canary client secret",
): Promise<TestProvider> {
  let { privateKey, publicKey } = await generateKeyPair("RS256", { extractable: true });
  const stranger = await generateKeyPair("RS256");
  let kid = "one";
  const codes = new Map<string, { nonce: string; challenge: string; used: boolean; again: boolean }>();
  const text = async (request: IncomingMessage): Promise<string> => {
    let all = "";
    for await (const part of request) all += String(part);
    return all;
  };
  const server = createServer(async (request, response) => {
    const send = (status: number, body: object) => {
      response.writeHead(status, { "content-type": "application/json" });
      response.end(JSON.stringify(body));
    };
    const { pathname } = new URL(request.url ?? "/", provider.issuer);
    if (pathname === "/.well-known/openid-configuration") {
      const { issuer } = provider;
      const metadata = {
        issuer,
        ...{ authorization_endpoint: `${issuer}/in`, token_endpoint: `${issuer}/token`, jwks_uri: `${issuer}/keys` },
        ...{ response_types_supported: ["code"], subject_types_supported: ["public"] },
        ...{ id_token_signing_alg_values_supported: ["RS256"], code_challenge_methods_supported: ["S256"] },
      };
      return send(200, provider.wrong.metadata?.(metadata) ?? metadata);
    }
    if (pathname === "/keys")
      return send(200, { keys: [{ ...(await exportJWK(publicKey)), kid, use: "sig", alg: "RS256" }] });
    if (pathname === "/token") {
      provider.exchanged += 1;
      const form = new URLSearchParams(await text(request));
      if (provider.wrong.endpoint) return send(provider.wrong.endpoint.status, provider.wrong.endpoint.body);
      // RFC 6749, 2.3.1: both parts are form-encoded first.
      const [, given = ""] = (request.headers.authorization ?? "").split(" ");
      const plain = (text = "") => decodeURIComponent(text.replaceAll("+", " "));
      const [id, ...rest] = Buffer.from(given, "base64").toString("utf8").split(":");
      if (plain(id) !== clientId || plain(rest.join(":")) !== secret)
        return send(401, { error: "invalid_client", error_description: "not like this" });
      const code = codes.get(form.get("code") ?? "");
      if (!code || code.used) return send(400, { error: "invalid_grant", error_description: "used or unknown" });
      code.used = true;
      const digest = await crypto.subtle.digest("SHA-256", new TextEncoder().encode(form.get("code_verifier") ?? ""));
      if (Buffer.from(digest).toString("base64url") !== code.challenge) return send(400, { error: "invalid_grant" });
      const now = Math.floor(Date.now() / 1000);
      const usual: JWTPayload = {
        ...{ iss: provider.issuer, aud: clientId, exp: now + 300, iat: now, auth_time: now, nonce: code.nonce },
        ...provider.person,
      };
      const claims = provider.wrong.claims?.(usual) ?? usual;
      const token = await (provider.wrong.token?.(claims) ?? provider.sign(claims));
      return send(200, { access_token: "canary-access", token_type: "Bearer", id_token: token });
    }
    send(404, {});
  });
  await new Promise<void>((resolve) => server.listen(0, "127.0.0.1", resolve));
  const provider: TestProvider = {
    issuer: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    clientId,
    secret,
    person: { sub: "248289761001" },
    wrong: {},
    exchanged: 0,
    answer: (address, more = {}) => {
      const asked = new URL(address).searchParams;
      const code = `code-${codes.size}-${Math.random()}`;
      codes.set(code, {
        nonce: asked.get("nonce")!,
        challenge: asked.get("code_challenge")!,
        used: false,
        again: asked.get("prompt") === "login",
      });
      const back = new URL(asked.get("redirect_uri")!);
      for (const [name, value] of Object.entries({ code, state: asked.get("state")!, ...more }))
        back.searchParams.set(name, value);
      return back;
    },
    sign: (claims, header = {}) =>
      new SignJWT(claims).setProtectedHeader({ alg: "RS256", kid, ...header }).sign(privateKey),
    forge: (claims) => new SignJWT(claims).setProtectedHeader({ alg: "RS256", kid }).sign(stranger.privateKey),
    rotate: async () => {
      ({ privateKey, publicKey } = await generateKeyPair("RS256", { extractable: true }));
      kid = "two";
    },
    close: async () => {
      server.closeAllConnections();
      await new Promise<void>((resolve) => server.close(() => resolve()));
    },
  };
  return provider;
}
