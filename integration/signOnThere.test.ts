/** Against a provider that keeps to the standard by a library of its own: the one of the sample organisation. */
import { eq } from "drizzle-orm";
import { afterAll, beforeAll, expect, test } from "vitest";
import { type Fixture, makeFixture } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { setUpProvider, signInThere } from "../demo/provider";
import { persons, sessions } from "../src/server/database/schema";
import { addPerson } from "../src/server/people/adding";
import { beginSignIn, finishSignIn } from "../src/server/provider/flows";
import { changeProvider, providerList, testProvider } from "../src/server/provider/providers";
import type { WrongAnswer } from "../standins/provider";

let app: InProcess;
let f: Fixture;
let providerId: string;
const there = () => app.standins.provider;

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
  providerId = await setUpProvider(app.galtry, there(), f.as("owner"), "tm-hanna");
});
afterAll(() => app.close());

async function come(sub: string) {
  const begin = { providerId, purpose: "sign-in" as const, next: "/", browser: null };
  const { address, browser } = await beginSignIn(app.galtry, f.nobody, begin);
  const back = await signInThere(address, sub);
  return finishSignIn(app.galtry, f.nobody, { providerId, address: back, saml: null, browser });
}

test("it is set up by a test in which every step works", async () => {
  const [provider] = (await providerList.execute(app.galtry, {}, f.as("owner"))).providers;
  expect(provider).toMatchObject({ passed: true, enabled: true });
  expect(provider!.lastTest!.steps.map(({ step }) => step)).toEqual([
    ...["discovery", "keys", "sign-in", "exchange", "token", "person"],
  ]);
  expect(provider!.lastTest!.claims).toMatchObject({ name: "Hanna Quist", groups: "tm-all-staff, tm-digital" });
});

test("somebody who was added signs in with the account there, and keeps no secret here", async () => {
  const mail = "priya.venkat@tarrowick.example";
  const added = { name: "Priya Venkat", mail, role: "member" as const };
  const { personId } = await addPerson.execute(app.galtry, added, f.as("administrator"));
  expect(await come("tm-priya")).toMatchObject({ session: { token: expect.any(String) } });
  const [person] = await app.galtry.db.select().from(persons).where(eq(persons.id, personId));
  expect(person!.passwordHash).toBeNull();
  const open = await app.galtry.db.select().from(sessions).where(eq(sessions.personId, personId));
  expect(open).toMatchObject([{ providerId, endedAt: null }]);
});

test.each<WrongAnswer>(["signature", "audience", "expired", "nonce"])(
  "with a wrong %s nobody comes in",
  async (wrong) => {
    there().wrong = wrong;
    expect(await come("tm-priya")).toEqual({ refused: "failed", next: "/" });
    there().wrong = "none";
  },
);

test("its keys can change between two sign-ins, and it can be down", async () => {
  await there().rotate();
  expect(await come("tm-priya")).toMatchObject({ session: { token: expect.any(String) } });
  there().down = true;
  await expect(come("tm-priya")).rejects.toThrow();
  there().down = false;
});

test("a secret that the provider does not take is told in the provider’s own words", async () => {
  const by = f.as("owner");
  const [provider] = (await providerList.execute(app.galtry, {}, by)).providers;
  const { settings, name, issuer } = provider!;
  if (settings.protocol !== "oidc") throw new Error("not OpenID Connect");
  await changeProvider.execute(
    app.galtry,
    { providerId, settings: { ...settings, name, issuer, secret: "not this one" } },
    by,
  );
  await testProvider.execute(app.galtry, { providerId }, by);
  const begin = { providerId, purpose: "test" as const, next: "/", browser: null };
  const { address, browser } = await beginSignIn(app.galtry, by, begin);
  const back = await signInThere(address, "tm-hanna");
  await finishSignIn(app.galtry, by, { providerId, address: back, saml: null, browser });
  const { steps } = (await providerList.execute(app.galtry, {}, by)).providers[0]!.lastTest!;
  expect(steps.at(-1)).toMatchObject({
    step: "exchange",
    ok: false,
    said: expect.stringMatching(/^with status 40[01]: invalid_client/),
  });
});
