/**
 * The identity provider of the sample organisation: OpenID Connect with the sample staff, a page of applications, and a
 * page where one plays its administrator: groups, deactivation, SCIM, sign-out, keys, being down, answering wrongly.
 */
import { randomUUID } from "node:crypto";
import type { IncomingMessage, ServerResponse } from "node:http";
import { decodeJwt, exportJWK, generateKeyPair, importJWK, type JWK, SignJWT } from "jose";
import type { Configuration, Interaction, Provider as OidcProvider } from "oidc-provider";
import { makeScimClient, type ScimClient } from "./scimClient";

export const PROVIDER_HOST = "id.localhost";
export const PROVIDER_CLIENT = "galtry";
export const PROVIDER_SECRET = "heron and sextant 42";

export interface StaffAccount {
  sub: string;
  name: string;
  mail: string;
  groups: string[];
  active: boolean;
}

export type WrongAnswer = "none" | "signature" | "audience" | "expired" | "nonce";

export interface ProviderStandin {
  issuer: string;
  staff: StaffAccount[];
  /** Applications beside Galtry itself: an address there each. */
  applications: { name: string; address: string }[];
  wrong: WrongAnswer;
  down: boolean;
  /** Where Galtry is told of people and groups; null while it is not. */
  scim: ScimClient | null;
  handle: (request: IncomingMessage & { rawBody?: Buffer }, response: ServerResponse) => Promise<void>;
  logOut: (sub: string, address: string) => Promise<number>;
  rotate: () => Promise<void>;
}

const escaped = (text: string) => text.replace(/[&<>"']/g, (character) => `&#${character.charCodeAt(0)};`);

const page = (title: string, body: string): string =>
  `<!doctype html><html lang="en"><head><meta charset="utf-8"><meta name="viewport" content="width=device-width">
<title>${escaped(title)}</title><style>
body{font:16px/24px system-ui,sans-serif;max-width:960px;margin:32px auto;padding:0 16px;color:#222}
table{border-collapse:collapse;width:100%}td,th{padding:6px 8px;border-bottom:1px solid #ccc;text-align:left;vertical-align:top}
button{font:inherit;padding:3px 12px}form{display:inline}ul.staff{columns:2;list-style:none;padding:0}.staff button{width:100%;text-align:left;margin:2px 0}
</style></head><body><h1>${escaped(title)}</h1>${body}</body></html>`;

async function newKey(): Promise<JWK> {
  const { privateKey } = await generateKeyPair("RS256", { extractable: true });
  return { ...(await exportJWK(privateKey)), kid: randomUUID(), use: "sig", alg: "RS256" };
}

let first: Promise<JWK> | undefined;
/** The one that every provider of this process begins with: making one takes a second. */
const firstKey = (): Promise<JWK> => (first ??= newKey());

/** The library warns those who run it in earnest; here it is a stand-in. */
function withoutItsWarnings(): void {
  const { warn } = console;
  console.warn = (...said: unknown[]) => {
    if (!String(said[0]).includes("oidc-provider WARNING")) warn(...said);
  };
}

/** @param galtry its public address: return addresses lie there */
export async function makeProvider(port: number, galtry: string, staff: StaffAccount[]): Promise<ProviderStandin> {
  const issuer = `http://${PROVIDER_HOST}:${port}`;
  withoutItsWarnings();
  const { default: Provider } = await import("oidc-provider");
  let key = await firstKey();
  const make = (): OidcProvider => {
    const configuration: Configuration = {
      clients: [
        {
          client_id: PROVIDER_CLIENT,
          client_secret: PROVIDER_SECRET,
          redirect_uris: [`${galtry}/sso/return`],
          response_types: ["code"],
          grant_types: ["authorization_code"],
          token_endpoint_auth_method: "client_secret_basic",
        },
      ],
      jwks: { keys: [key] } as Configuration["jwks"],
      cookies: { keys: [randomUUID()] },
      claims: {
        openid: ["sub", "auth_time"],
        email: ["email", "email_verified"],
        profile: ["name"],
        groups: ["groups"],
      },
      scopes: ["openid", "email", "profile", "groups"],
      conformIdTokenClaims: false,
      features: { devInteractions: { enabled: false } },
      interactions: { url: (_context, interaction) => `/interaction/${interaction.uid}` },
      ttl: { Session: 3600, Interaction: 600, Grant: 3600, AccessToken: 600, IdToken: 600, AuthorizationCode: 60 },
      findAccount: (_context, sub) => {
        const found = standin.staff.find((one) => one.sub === sub && one.active);
        return found
          ? {
              accountId: sub,
              claims: () => ({ sub, email: found.mail, email_verified: true, name: found.name, groups: found.groups }),
            }
          : undefined;
      },
      // Nobody is asked whether Galtry may know who they are: the organisation has said so.
      loadExistingGrant: async (context) => {
        const grant = new context.oidc.provider.Grant({
          clientId: context.oidc.client!.clientId,
          accountId: context.oidc.session!.accountId,
        });
        grant.addOIDCScope("openid email profile groups");
        await grant.save();
        return grant;
      },
    };
    const made = new Provider(issuer, configuration);
    const { Client } = made as unknown as {
      Client: { prototype: { redirectUriAllowed: (address: string) => boolean } };
    };
    Client.prototype.redirectUriAllowed = (address) => new RegExp(`^${galtry}/sso/[\\w-]+/return$`).test(address);
    made.use(async (context, next) => {
      await next();
      const answer = context.body as { id_token?: string } | undefined;
      if (context.oidc?.route === "token" && answer?.id_token && standin.wrong !== "none")
        answer.id_token = await spoiled(answer.id_token, standin.wrong);
    });
    return made;
  };
  const sign = async (claims: Record<string, unknown>, header: object = {}, by = key): Promise<string> =>
    new SignJWT(claims)
      .setProtectedHeader({ alg: "RS256", kid: key.kid!, ...header })
      .sign(await importJWK(by, "RS256"));
  const spoiled = async (token: string, wrong: WrongAnswer): Promise<string> => {
    const claims = decodeJwt(token);
    if (wrong === "signature") return sign(claims, {}, await newKey());
    if (wrong === "audience") return sign({ ...claims, aud: "another-application" });
    if (wrong === "expired") return sign({ ...claims, exp: Math.floor(Date.now() / 1000) - 3600 });
    return sign({ ...claims, nonce: "of another sign-in" });
  };
  const standin: ProviderStandin = {
    ...{ issuer, staff, applications: [], wrong: "none", down: false, scim: null },
    rotate: async () => {
      key = await newKey();
      provider = make();
      answer = provider.callback();
    },
    logOut: async (sub, address) => {
      const now = Math.floor(Date.now() / 1000);
      const token = await sign(
        {
          ...{ iss: issuer, aud: PROVIDER_CLIENT, iat: now, exp: now + 120, jti: randomUUID(), sub },
          events: { "http://schemas.openid.net/event/backchannel-logout": {} },
        },
        { typ: "logout+jwt" },
      );
      const sent = await fetch(address, { method: "POST", body: new URLSearchParams({ logout_token: token }) });
      return sent.status;
    },
    handle: async (request, response) => {
      const url = new URL(request.url ?? "/", issuer);
      const form = new URLSearchParams(request.rawBody?.toString("utf8") ?? "");
      const send = (status: number, body: string) => {
        response.writeHead(status, { "content-type": "text/html; charset=utf-8" });
        response.end(body);
      };
      if (url.pathname === "/administration") return administer(form, request.method ?? "GET", response, send);
      if (standin.down) return send(503, page("Out of order", "<p>This provider is down.</p>"));
      if (url.pathname === "/") return send(200, page("Your applications", applications(standin, galtry)));
      if (url.pathname.startsWith("/interaction/")) return interact(provider, standin, form, request, response, send);
      // The body has been read already, for all practice sites alike.
      Object.assign(request, { body: Object.fromEntries(form) });
      await answer(request, response);
    },
  };
  async function administer(
    form: URLSearchParams,
    method: string,
    response: ServerResponse,
    send: (status: number, body: string) => void,
  ): Promise<void> {
    if (method !== "POST") return send(200, page("Administration of the provider", administration(standin)));
    const account = standin.staff.find(({ sub }) => sub === form.get("sub"));
    const does = form.get("do");
    if (does === "groups" && account)
      account.groups = (form.get("groups") ?? "")
        .split(",")
        .map((one) => one.trim())
        .filter(Boolean);
    if (does === "active" && account) account.active = !account.active;
    if (does === "delete") standin.staff = standin.staff.filter(({ sub }) => sub !== form.get("sub"));
    if (does === "scim") {
      standin.scim = makeScimClient(form.get("address") ?? "", form.get("token") ?? "");
      await standin.scim.sendAll(standin.staff);
    }
    if (does === "no scim") standin.scim = null;
    // A directory tells of each change as it is made.
    if (standin.scim && account) {
      if (does === "active") await standin.scim.sendPerson(account);
      if (does === "groups") await standin.scim.sendGroups(standin.staff);
      if (does === "delete") await standin.scim.deletePerson(account.sub);
    }
    if (does === "log out" && account) await standin.logOut(account.sub, form.get("address") ?? "");
    if (does === "rotate") await standin.rotate();
    if (does === "down") standin.down = !standin.down;
    if (does === "wrong") standin.wrong = (form.get("wrong") ?? "none") as WrongAnswer;
    response.writeHead(303, { location: "/administration" });
    response.end();
  }
  let provider = make();
  let answer = provider.callback();
  return standin;
}

const applications = (standin: ProviderStandin, galtry: string): string =>
  `<ul>${[{ name: "Galtry", address: galtry }, ...standin.applications]
    .map(({ name, address }) => `<li><a href="${escaped(address)}">${escaped(name)}</a></li>`)
    .join("")}</ul><p><a href="/administration">Administration</a></p>`;

async function interact(
  provider: OidcProvider,
  standin: ProviderStandin,
  form: URLSearchParams,
  request: IncomingMessage,
  response: ServerResponse,
  send: (status: number, body: string) => void,
): Promise<void> {
  let asked: Interaction;
  try {
    asked = await provider.interactionDetails(request, response);
  } catch {
    return send(400, page("This sign-in has ended", "<p>Start again.</p>"));
  }
  if (request.method === "POST") {
    const accountId = form.get("sub") ?? "";
    await provider.interactionFinished(
      request,
      response,
      accountId === ""
        ? { error: "access_denied", error_description: "the person did not want to" }
        : { login: { accountId, remember: true } },
    );
    return;
  }
  const people = standin.staff
    .filter(({ active }) => active)
    .map(
      ({ sub, name }) =>
        `<li><form method="post"><input type="hidden" name="sub" value="${escaped(sub)}"><button>${escaped(name)}</button></form></li>`,
    )
    .join("");
  send(
    200,
    page(
      "Sign in to Tarrowick accounts",
      `<p>For ${escaped(String(asked.params.client_id))}. In this stand-in nobody has a password: press a name.</p><ul class="staff">${people}</ul>
<form method="post"><button>Do not sign in</button></form>`,
    ),
  );
}

function administration(standin: ProviderStandin): string {
  const act = (does: string, word: string, more = "") =>
    `<form method="post"><input type="hidden" name="do" value="${does}">${more}<button>${word}</button></form>`;
  const rows = standin.staff
    .map(({ sub, name, groups, active }) => {
      const who = `<input type="hidden" name="sub" value="${escaped(sub)}">`;
      return `<tr><td>${escaped(name)}${active ? "" : " (deactivated)"}</td>
<td>${act("groups", "Save", `${who}<input name="groups" aria-label="Groups of ${escaped(name)}" value="${escaped(groups.join(", "))}" size="36"> `)}</td>
<td>${act("active", active ? "Deactivate" : "Activate", who)} ${act("delete", "Delete", who)}</td></tr>`;
    })
    .join("");
  const answers = ["none", "signature", "audience", "expired", "nonce"]
    .map((one) => `<option${one === standin.wrong ? " selected" : ""}>${one}</option>`)
    .join("");
  return `<p>${act("rotate", "Change the keys")} ${act("down", standin.down ? "Come back" : "Go down")}
${act("wrong", "Answer wrongly", `<select name="wrong" aria-label="Wrong answer">${answers}</select> `)}</p>
<h2>SCIM</h2>${
    standin.scim
      ? `<p>Galtry is told at ${escaped(standin.scim.address)}. ${act("no scim", "Stop")}</p><ul>${standin.scim.said
          .map((line) => `<li>${escaped(line)}</li>`)
          .join("")}</ul>`
      : `<p>${act(
          "scim",
          "Connect and send all",
          `<input name="address" aria-label="SCIM address" placeholder="SCIM address" size="36"> <input name="token" aria-label="SCIM token" placeholder="Token" size="36"> `,
        )}</p>`
  }
<table><thead><tr><th>Person</th><th>Groups</th><th></th></tr></thead><tbody>${rows}</tbody></table>`;
}
