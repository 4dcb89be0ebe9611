/** A value that is kept is shown to nobody anew by a change of its class, its kind, or where it is sent. */
import { and, eq } from "drizzle-orm";
import { afterAll, beforeAll, beforeEach, describe, expect, test } from "vitest";
import { CANARY, type Fixture, give, makeFixture } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { setApproval } from "../src/server/access/requests/approvals";
import { entries, journal, sightings } from "../src/server/database/schema";
import { updatePassword } from "../src/server/lanyard/keys";
import { convertEntry } from "../src/server/vaults/convert";
import { earlierVersions, restoreVersion } from "../src/server/vaults/earlier";
import { addEntry, changeEntry } from "../src/server/vaults/entries";
import { entryPage } from "../src/server/vaults/entryPage";
import { changeKind, createKind, deleteKind, kindOf } from "../src/server/vaults/kinds";
import { setField, tagEntries } from "../src/server/vaults/several";
import { changeSigningIn, setPasswordOnReveal } from "../src/server/vaults/signingIn";
import { changeSteps } from "../src/server/vaults/steps";

let app: InProcess;
let f: Fixture;
let entryId: string;
const db = () => app.galtry;
const PAGE = "https://safe.example/in";
const AREA = "extra:area";

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
});
afterAll(() => app.close());

type Class = "open" | "identifier" | "secret";
const extra = (fieldClass: Class, value?: string) => ({
  id: "area",
  label: "Area code",
  class: fieldClass,
  ...(value !== undefined && { value }),
});
const base = { name: "Strongroom", signInPage: PAGE };

beforeEach(async () => {
  const by = f.as("steward");
  const values = { ...base, userName: "keeper", password: "kept/one two", extras: [extra("secret", CANARY)] };
  ({ entryId } = await addEntry.execute(db(), { parentId: f.vaultId, captured: false, values }, by));
  for (const level of ["use", "reveal", "edit"] as const) await give(db(), by, entryId, f.ids[level], level);
});

const versionOf = async (id = entryId) =>
  (await db().db.select({ id: entries.versionId }).from(entries).where(eq(entries.nodeId, id)))[0]!.id;
const change = async (values: Record<string, unknown>, who = f.as("edit")) =>
  changeEntry.execute(
    db(),
    { entryId, baseVersionId: await versionOf(), values: { ...base, ...values }, captured: false },
    who,
  );
const refusal = (promise: Promise<unknown>) =>
  promise.then(
    () => ({ code: "allowed", field: undefined, message: "" }),
    (error: { code: string; field?: string; message: string }) => error,
  );
const code = async (promise: Promise<unknown>) => (await refusal(promise)).code;
const seenOf = async (kind: "edit" | "reveal" | "use") =>
  db()
    .db.select()
    .from(sightings)
    .where(and(eq(sightings.entryId, entryId), eq(sightings.personId, f.ids[kind])));
const pageOf = async (kind: "edit" | "reveal" | "use") =>
  JSON.stringify(await entryPage.execute(db(), { entryId }, f.as(kind)));

describe("the class of an extra field", () => {
  test.each(["identifier", "open"] as const)("a secret that is kept does not become %s", async (fieldClass) => {
    expect(await refusal(change({ extras: [extra(fieldClass)] }))).toMatchObject({
      code: "bad-input",
      field: "values.extras.0.value",
      message: "More people would see Area code. Reveal it and enter it here again.",
    });
    for (const kind of ["edit", "reveal", "use"] as const) expect(await pageOf(kind)).not.toContain(CANARY);
    expect(await seenOf("edit")).toEqual([]);
  });

  test("it may become more secret, and what is entered anew may have any class", async () => {
    await change({ extras: [extra("identifier", "0171")] });
    expect(await pageOf("reveal")).toContain("0171");
    await change({ extras: [extra("secret")] });
    expect(await pageOf("reveal")).not.toContain("0171");
    await change({ extras: [extra("open", "0172")] });
    expect(await pageOf("use")).toContain("0172");
  });

  test("two fields of one id, each the other's class, are refused", async () => {
    expect(await code(change({ extras: [extra("secret"), extra("identifier")] }))).toBe("bad-input");
  });

  test("what has been made more secret since is so in earlier versions, and does not come back as it was", async () => {
    await change({ extras: [extra("identifier", "canary 0171")] });
    const then = await versionOf();
    await change({ extras: [extra("secret")] });
    const { versions } = await earlierVersions.execute(db(), { entryId }, f.as("edit"));
    expect(JSON.stringify(versions)).not.toContain("canary 0171");
    for (const fields of [null, [AREA]])
      expect(
        await code(
          restoreVersion.execute(
            db(),
            { items: [{ entryId, baseVersionId: await versionOf(), versionId: then }], fields },
            f.as("edit"),
          ),
        ),
      ).toBe("conflict");
    // Other fields of that version come back all the same.
    await restoreVersion.execute(
      db(),
      { items: [{ entryId, baseVersionId: await versionOf(), versionId: then }], fields: ["notes"] },
      f.as("edit"),
    );
    expect(await pageOf("reveal")).not.toContain("canary 0171");
  });
});

describe("the kind", () => {
  const kindWith = (fieldClass: Class, id?: string) => ({
    name: `Case ${Math.random()}`,
    purpose: "get-in" as const,
    fields: [{ label: "Number", class: fieldClass, ...(id && { id }) }],
  });

  test("a kind that only earlier versions are of keeps its classes and is not deleted", async () => {
    const owner = f.as("owner");
    const draft = kindWith("secret");
    const { kindId } = await createKind.execute(db(), { kind: draft } as never, owner);
    const [field] = (await kindOf(db().db, kindId)).fields;
    const made = await addEntry.execute(
      db(),
      { parentId: f.vaultId, captured: false, kind: kindId, values: { name: "Case", [field!.id]: CANARY } },
      f.as("steward"),
    );
    await give(db(), f.as("steward"), made.entryId, f.ids.edit, "edit");
    await convertEntry.execute(
      db(),
      { entryId: made.entryId, baseVersionId: made.versionId, kind: "note", signInPage: "" },
      f.as("edit"),
    );
    const lowered = { ...draft, fields: [{ label: "Number", class: "identifier" as const, id: field!.id }] };
    expect(await code(changeKind.execute(db(), { kindId, kind: lowered } as never, owner))).toBe("conflict");
    expect(await code(deleteKind.execute(db(), { kindId }, owner))).toBe("conflict");
    const earlier = await earlierVersions.execute(db(), { entryId: made.entryId }, f.as("edit"));
    expect(JSON.stringify(earlier)).not.toContain(CANARY);
    expect(earlier.versions.length).toBe(2);
  });

  test("a card's number and date do not come back into a membership, which shows its own", async () => {
    const values = { name: "Card", number: "5500 0000 0000 0004", expires: "2031-07", pin: "8264" };
    const card = { parentId: f.vaultId, captured: false, kind: "card", values };
    const { entryId: id, versionId } = await addEntry.execute(db(), card, f.as("steward"));
    await give(db(), f.as("steward"), id, f.ids.use, "use");
    await give(db(), f.as("steward"), id, f.ids.reveal, "reveal");
    const convert = { entryId: id, baseVersionId: versionId, kind: "membership", signInPage: "" };
    await convertEntry.execute(db(), convert, f.as("steward"));
    for (const field of ["number", "expires"]) {
      const items = [{ entryId: id, baseVersionId: await versionOf(id), versionId }];
      expect(await code(restoreVersion.execute(db(), { items, fields: [field] }, f.as("steward")))).toBe("conflict");
    }
    const shownTo = async (kind: "use" | "reveal") =>
      JSON.stringify(await entryPage.execute(db(), { entryId: id }, f.as(kind)));
    expect(await shownTo("reveal")).not.toContain("5500");
    expect(await shownTo("use")).not.toContain("2031-07");
    // All of it at once makes it a card again, with a card's classes.
    const items = [{ entryId: id, baseVersionId: await versionOf(id), versionId }];
    await restoreVersion.execute(db(), { items, fields: null }, f.as("steward"));
    expect(await shownTo("reveal")).not.toContain("5500");
  });
});

describe("where the password is sent", () => {
  const STEPS = { hosts: ["elsewhere.example"], choices: {}, signOutPage: null };
  /** Each way by which the next sign-in would send the password elsewhere. */
  const WAYS: Record<string, () => Promise<unknown>> = {
    "the sign-in page, in the form": () => change({ signInPage: "https://elsewhere.example/in" }),
    "the sign-in page, of several entries": () =>
      setField.execute(
        db(),
        { entryIds: [entryId], field: "signInPage", value: "https://elsewhere.example/in" },
        f.as("edit"),
      ),
    "the hosts of its steps": () => changeSteps.execute(db(), { entryId, steps: STEPS }, f.as("edit")),
    "plain http": () =>
      changeSigningIn.execute(db(), { entryId, guardedFill: false, plainHttp: true }, f.as("steward")),
    "guarded fill": () =>
      changeSigningIn.execute(db(), { entryId, guardedFill: true, plainHttp: false }, f.as("steward")),
    "a version with another page": async () => {
      const page = await versionOf();
      return restoreVersion.execute(
        db(),
        { items: [{ entryId, baseVersionId: page, versionId: first }], fields: ["signInPage"] },
        f.as("edit"),
      );
    },
  };
  let first = "";

  test.each(Object.keys(WAYS))("%s takes what a reveal takes", async (way) => {
    first = await versionOf();
    await change({ signInPage: "https://other.example/in" });
    await setApproval.execute(db(), { entryId, stewards: 1, minutes: 30 }, f.as("steward"));
    expect(await code(WAYS[way]!())).toBe("ask-first");
  });

  test("and the sign-in password again, where the entry asks for it", async () => {
    await setPasswordOnReveal.execute(db(), { entryId, askAgain: true }, f.as("steward"));
    const longAgo = { ...f.as("edit"), provedAt: Date.now() - 600_000 };
    expect(await code(change({ signInPage: "https://elsewhere.example/in" }, longAgo))).toBe("prove-again");
    expect(await code(changeSteps.execute(db(), { entryId, steps: STEPS }, longAgo))).toBe("prove-again");
  });

  test("a change that leaves the page alone is as free as before", async () => {
    await setApproval.execute(db(), { entryId, stewards: 1, minutes: 30 }, f.as("steward"));
    await change({ notes: "the door sticks" });
    await tagEntries.execute(db(), { entryIds: [entryId], add: ["winter"], remove: [] }, f.as("edit"));
    await updatePassword.execute(
      db(),
      { entryId, versionId: await versionOf(), password: "typed by hand" },
      f.lanyard("edit"),
    );
    expect(await pageOf("use")).toContain("winter");
  });

  test("what is refused is a line of the Journal", async () => {
    await setApproval.execute(db(), { entryId, stewards: 1, minutes: 30 }, f.as("steward"));
    await code(change({ signInPage: "https://elsewhere.example/in" }));
    const lines = await db()
      .db.select()
      .from(journal)
      .where(and(eq(journal.node, entryId), eq(journal.outcome, "refused")));
    expect(lines.map(({ act, person }) => [act, person])).toEqual([["vaults.changeEntry", f.ids.edit]]);
  });
});
