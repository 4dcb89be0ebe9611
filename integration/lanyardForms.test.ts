/** Cards, addresses and contacts for the form of a page: sent field by field, past the gates of a reveal, and recorded. */
import { and, eq } from "drizzle-orm";
import { afterAll, beforeAll, describe, expect, test } from "vitest";
import { type Fixture, give, makeFixture } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { setApproval } from "../src/server/access/requests/approvals";
import { journal, sightings } from "../src/server/database/schema";
import { fillForm, formEntries } from "../src/server/lanyard/forms";
import { addEntry } from "../src/server/vaults/entries";
import { setPasswordOnReveal } from "../src/server/vaults/signingIn";

let app: InProcess;
let f: Fixture;
const db = () => app.galtry;
let cardId: string;
let addressId: string;
const NUMBER = "9999000000000004";
const CODE = "118";
const CARD_TOKENS = ["cc-name", "cc-number", "cc-exp", "cc-csc"];

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
  const add = async (kind: string, values: Record<string, unknown>) =>
    (await addEntry.execute(db(), { parentId: f.vaultId, kind, values }, f.as("steward"))).entryId;
  cardId = await add("card", {
    ...{ name: "Office card", holder: "PERSON STEWARD", number: NUMBER, expires: "2031-09" },
    ...{ "security-code": CODE, pin: "4029" },
  });
  addressId = await add("postal-address", {
    ...{ name: "Deliveries", addressee: "Loom House", lines: "4 Shuttle Row\nBack gate", postcode: "TR9 4LH" },
  });
  for (const id of [cardId, addressId])
    for (const level of ["use", "reveal", "edit"] as const) await give(db(), f.as("steward"), id, f.ids[level], level);
});
afterAll(() => app.close());

const offered = async (kind: "use" | "reveal" | "nothing") =>
  (
    await formEntries.execute(db(), { kinds: ["card", "postal-address", "contact", "identity-paper"] }, f.lanyard(kind))
  ).map(({ name }) => name);
const fill = (
  entryId: string,
  tokens: string[],
  as: "use" | "reveal" | "nothing" = "reveal",
  page = "https://shop.example/pay",
) => fillForm.execute(db(), { entryId, page, tokens }, f.lanyard(as));
const refusal = (work: Promise<unknown>) =>
  work.then(
    () => "done",
    (error: { code?: string }) => error.code ?? String(error),
  );
const seen = (field: string) =>
  db()
    .db.select()
    .from(sightings)
    .where(and(eq(sightings.entryId, cardId), eq(sightings.field, field), eq(sightings.personId, f.ids.reveal)));

describe("which entries there are", () => {
  test("cards from Reveal up, addresses from Use up, none for who has nothing", async () => {
    expect(await offered("reveal")).toEqual(["Deliveries", "Office card"]);
    expect(await offered("use")).toEqual(["Deliveries"]);
    expect(await offered("nothing")).toEqual([]);
  });
});

describe("a card", () => {
  test("fills only the fields that the form has; each secret among them is a sighting, the line names no value", async () => {
    expect((await fill(cardId, ["cc-name", "cc-exp"])).values).toEqual({
      "cc-name": "PERSON STEWARD",
      "cc-exp": "2031-09",
    });
    expect(await seen("number")).toEqual([]);
    const { values } = await fill(cardId, CARD_TOKENS);
    expect(values).toEqual({ "cc-name": "PERSON STEWARD", "cc-number": NUMBER, "cc-exp": "2031-09", "cc-csc": CODE });
    expect((await seen("number")).map(({ how }) => how)).toEqual(["filled in"]);
    expect((await seen("security-code")).length).toBe(1);
    expect(await seen("pin")).toEqual([]);
    const lines = await db().db.select().from(journal).where(eq(journal.act, "lanyard.fillForm"));
    expect(lines.at(-1)!.details).toContain("shop.example");
    for (const secret of [NUMBER, CODE, "2031-09", "4029"])
      expect(lines.map((line) => line.details).join()).not.toContain(secret);
  });

  test("gives nothing at Use, to nobody below, over http, or of fields that no form has", async () => {
    expect(await refusal(fill(cardId, CARD_TOKENS, "use"))).toBe("not-allowed");
    expect(await refusal(fill(cardId, CARD_TOKENS, "nothing"))).toBe("not-found");
    expect(await refusal(fill(cardId, CARD_TOKENS, "reveal", "http://shop.example/pay"))).toBe("not-allowed");
    expect(await refusal(fill(cardId, ["pin", "security-code", "__proto__"]))).toBe("not-allowed");
  });

  test("an entry that requires the sign-in password, or approval, gives its secrets to no form", async () => {
    await setPasswordOnReveal.execute(db(), { entryId: cardId, askAgain: true }, f.as("steward"));
    expect(await refusal(fill(cardId, CARD_TOKENS))).toBe("prove-again");
    expect((await fill(cardId, ["cc-name"])).values).toEqual({ "cc-name": "PERSON STEWARD" });
    await setPasswordOnReveal.execute(db(), { entryId: cardId, askAgain: false }, f.as("steward"));
    await setApproval.execute(db(), { entryId: cardId, stewards: 1, minutes: 30 }, f.as("steward"));
    expect(await refusal(fill(cardId, CARD_TOKENS))).toBe("ask-first");
  });
});

describe("an address", () => {
  test("at Use gives its open fields, over http too, and is no sighting", async () => {
    const tokens = ["organization", "address-line1", "address-line2", "postal-code", "country"];
    const { values } = await fill(addressId, tokens, "use", "http://shop.example/");
    expect(values).toEqual({
      ...{ organization: "Loom House", "address-line1": "4 Shuttle Row", "address-line2": "Back gate" },
      ...{ "postal-code": "TR9 4LH" },
    });
    expect(await db().db.select().from(sightings).where(eq(sightings.entryId, addressId))).toEqual([]);
  });

  test("a login goes into no form", async () => {
    expect(await refusal(fill(f.entryId, ["name", "email"]))).toBe("not-allowed");
  });
});
