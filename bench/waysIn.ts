/**
 * Signing in to Galtry with a passkey and through a provider, each beside its floor; and SCIM beside another's work. The
 * floors are bare: writes without the counting of attempts, the Journal and what is told, which each sign-in has.
 */
import { verifyAuthenticationResponse } from "@simplewebauthn/server";
import { eq } from "drizzle-orm";
import { request } from "undici";
import { type Fixture, makeFixture } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { makeAuthenticator } from "../integration/authenticator";
import { startTestProvider } from "../integration/testProvider";
import { passkeys, sessions } from "../src/server/database/schema";
import { dismissNotices } from "../src/server/people/notices";
import { openSession } from "../src/server/people/sessions";
import { addPasskey, beginPasskey, beginPasskeySignIn, signInWithPasskey } from "../src/server/people/waysIn/passkeys";
import { beginSignIn, finishSignIn } from "../src/server/provider/flows";
import {
  addDomain,
  addProvider,
  chooseJoins,
  enableProvider,
  newScimToken,
  proveDomain,
  testProvider,
} from "../src/server/provider/providers";
import { scimAt } from "../src/server/provider/scim/http";
import { sideBySide, tell } from "./measure";

const TURNS = 40;
const PEOPLE = Number(process.env.BENCH_SCIM_PEOPLE ?? 5_000);
const GROUPS = 300;
const IN_GROUP = 50;

export async function benchWaysIn(): Promise<void> {
  const app = await inProcess();
  try {
    const fixture = await makeFixture(app.galtry);
    await passkey(app, fixture);
    await provider(app, fixture);
    await scim(app, fixture);
  } finally {
    await app.close();
  }
}

let comers = 0;
const nobody = () => {
  comers += 1;
  const address = `198.51.${Math.floor(comers / 250) % 250}.${comers % 250}`;
  return { kind: "nobody" as const, address, browser: "Chromium on Linux", knownBrowser: null };
};

/** What no sign-in can be without: a session that is written. */
const bareSession = ({ galtry }: InProcess, personId: string) =>
  galtry.writer.write((tx) => openSession(tx, personId, nobody(), Date.now()));

async function passkey(app: InProcess, fixture: Fixture): Promise<void> {
  const { galtry, url } = app;
  const own = { ...fixture.as("reveal"), provedAt: Date.now() };
  const authenticator = makeAuthenticator(url);
  const { ceremonyId, options } = await beginPasskey.execute(galtry, {}, own);
  await addPasskey.execute(galtry, { ceremonyId, response: authenticator.create(options) }, own);
  const [key] = await galtry.db.select().from(passkeys).where(eq(passkeys.personId, fixture.ids.reveal));
  const { origin, hostname } = new URL(url);
  const floor = async () => {
    const challenge = Buffer.from(crypto.getRandomValues(new Uint8Array(32))).toString("base64url");
    const { verified } = await verifyAuthenticationResponse({
      response: authenticator.get({ challenge }, { counter: 1_000_000 + comers }) as never,
      ...{ expectedChallenge: challenge, expectedOrigin: origin, expectedRPID: hostname },
      credential: { id: key!.credentialId, publicKey: new Uint8Array(key!.publicKey), counter: 0 },
    });
    if (!verified) throw new Error("not verified");
    // A challenge and a session are written.
    await bareSession(app, fixture.ids.reveal);
    await bareSession(app, fixture.ids.reveal);
  };
  const work = async () => {
    const by = nobody();
    const begun = await beginPasskeySignIn.execute(galtry, {}, by);
    const response = authenticator.get(begun.options);
    const { signedIn } = await signInWithPasskey.execute(galtry, { ceremonyId: begun.ceremonyId, response }, by);
    if (!signedIn) throw new Error("not signed in");
  };
  const found = await sideBySide(TURNS, floor, work);
  tell(
    "a sign-in with a passkey, beside the library's check and two bare writes",
    found.taken / found.floor,
    4,
    "×",
    `${found.floor.toFixed(1)} ms and ${found.taken.toFixed(1)} ms`,
  );
}

async function provider(app: InProcess, fixture: Fixture): Promise<void> {
  const { galtry } = app;
  const there = await startTestProvider();
  const by = { ...fixture.as("owner"), provedAt: Date.now() };
  const { providerId } = await addProvider.execute(
    galtry,
    {
      ...{ protocol: "oidc", name: "Bench accounts", issuer: there.issuer, clientId: there.clientId },
      ...{ secret: there.secret, secretIn: "header", scopes: "email profile" },
    },
    by,
  );
  const come = async (who: typeof by | ReturnType<typeof nobody>, purpose: "sign-in" | "test" | "link") => {
    const { address, browser } = await beginSignIn(galtry, who, { providerId, purpose, next: "/", browser: null });
    return finishSignIn(galtry, who, { providerId, address: there.answer(address), saml: null, browser });
  };
  there.person = { sub: "bench", email: "use@tarrowick.example", email_verified: true, name: "Person use" };
  await testProvider.execute(galtry, { providerId }, by).catch(() => undefined);
  await come(by, "test");
  await enableProvider.execute(galtry, { providerId, enabled: true }, by);
  await come({ ...fixture.as("use"), provedAt: Date.now() }, "link");
  let exchange: { code: string; verifier: string } = { code: "", verifier: "" };
  const floor = async () => {
    // The exchange of a code and the keys, asked for by hand; a flow, and a session, are written.
    exchange = { code: crypto.randomUUID(), verifier: crypto.randomUUID() };
    const answer = await request(`${there.issuer}/token`, {
      method: "POST",
      headers: {
        "content-type": "application/x-www-form-urlencoded",
        authorization: `Basic ${Buffer.from(`${there.clientId}:${encodeURIComponent(there.secret)}`).toString("base64")}`,
      },
      body: new URLSearchParams({ grant_type: "authorization_code", code: exchange.code }).toString(),
    });
    await answer.body.text();
    await (await request(`${there.issuer}/keys`)).body.text();
    for (let write = 0; write < 3; write++) await bareSession(app, fixture.ids.use);
  };
  const work = async () => {
    const arrived = await come(nobody(), "sign-in");
    if (!("session" in arrived) || arrived.session === null) throw new Error(JSON.stringify(arrived));
  };
  const found = await sideBySide(TURNS, floor, work);
  tell(
    "a sign-in through a provider, beside the same requests and three bare writes",
    found.taken / found.floor,
    7,
    "×",
    `${found.floor.toFixed(1)} ms and ${found.taken.toFixed(1)} ms`,
  );
  await there.close();
}

/** A whole directory comes in, while somebody else works. */
async function scim(app: InProcess, fixture: Fixture): Promise<void> {
  const { galtry, url } = app;
  await galtry.db.update(sessions).set({ endedAt: Date.now() });
  const by = { ...fixture.as("owner"), provedAt: Date.now() };
  const { providerId } = await addProvider.execute(
    galtry,
    { protocol: "oidc", name: "Directory", issuer: "https://directory.tarrowick.example", clientId: "galtry" },
    by,
  );
  const domain = { providerId, domain: "staff.tarrowick.example" };
  await addDomain.execute(galtry, domain, by);
  await proveDomain.execute(galtry, { ...domain, statement: "Registered in 2004." }, by);
  await chooseJoins.execute(galtry, { providerId, joins: "themselves" }, by);
  const { scimToken: token } = await newScimToken.execute(galtry, { providerId }, by);
  const send = async (path: "Users" | "Groups", body: object): Promise<{ id: string }> => {
    const answer = await scimAt(
      new Request(new URL(`${url}/scim/v2/${path}`), {
        method: "POST",
        headers: { authorization: `Bearer ${token}`, "content-type": "application/scim+json" },
        body: JSON.stringify(body),
      }),
      [path],
      galtry,
    );
    if (answer.status !== 201) throw new Error(`${answer.status} ${await answer.text()}`);
    return (await answer.json()) as { id: string };
  };
  let over = false;
  const taken: number[] = [];
  const other = (async () => {
    while (!over) {
      const start = performance.now();
      await dismissNotices.execute(galtry, { ids: [] }, fixture.as("steward"));
      taken.push(performance.now() - start);
      await new Promise((resolve) => setTimeout(resolve, 20));
    }
  })();
  const start = performance.now();
  const ids: string[] = [];
  for (let i = 0; i < PEOPLE; i++) {
    const mail = `person-${i}@staff.tarrowick.example`;
    const { id } = await send("Users", {
      schemas: ["urn:ietf:params:scim:schemas:core:2.0:User"],
      ...{ userName: mail, externalId: `e${i}`, active: true, name: { givenName: "Person", familyName: `${i}` } },
      emails: [{ value: mail, primary: true }],
    });
    ids.push(id);
  }
  for (let i = 0; i < GROUPS; i++)
    await send("Groups", {
      schemas: ["urn:ietf:params:scim:schemas:core:2.0:Group"],
      displayName: `Directory group ${i}`,
      members: Array.from({ length: IN_GROUP }, (_, k) => ({ value: ids[(i * 17 + k) % ids.length] })),
    });
  const seconds = (performance.now() - start) / 1000;
  over = true;
  await other;
  tell(`SCIM: ${PEOPLE.toLocaleString("en-GB")} people and ${GROUPS} groups`, seconds, 60, " s");
  const at95 = taken.sort((a, b) => a - b)[Math.floor(taken.length * 0.95)] ?? 0;
  tell("another person's command meanwhile, at 95 of 100", at95, 100, " ms");
}
