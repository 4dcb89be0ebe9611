/** A draft shown to somebody else; what ends within a week, seen by whoever gave it; what is set at a place. */
import { eq } from "drizzle-orm";
import { afterAll, beforeAll, expect, test } from "vitest";
import { type Fixture, give, type Kind, makeFixture } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { accessCells } from "../src/server/access/cells";
import { endingSoon } from "../src/server/access/endingSoon";
import { changeAccess, giveAccess } from "../src/server/access/grants";
import { askSecondOpinion, giveSecondOpinion, secondOpinions } from "../src/server/access/slip/secondOpinions";
import { discardSlip, draftSlip, ownSlip } from "../src/server/access/slip/slip";
import { notices } from "../src/server/database/schema";

let app: InProcess;
let f: Fixture;
const db = () => app.galtry;
const DAY = 86_400_000;

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
});
afterAll(() => app.close());

const code = (promise: Promise<unknown>) =>
  promise.then(
    () => "allowed",
    (error) => error.code as string,
  );
const subject = (kind: Kind) => ({ kind: "person" as const, id: f.ids[kind] });

test("a draft is shown to another, who reads what they are steward of and says a word; nothing changes by it", async () => {
  const show = (to: Kind) => askSecondOpinion.execute(db(), { personId: f.ids[to] }, f.as("steward"));
  expect(await code(show("administrator"))).toBe("not-found");
  const grants = [{ level: "reveal", from: null, until: null }];
  const changes = [{ type: "set", nodeId: f.entryId, subject: subject("nothing"), grants }];
  await draftSlip.execute(db(), { changes, revision: 0 }, f.as("steward"));
  for (const kind of ["guest", "leaver", "steward"] as const) expect(await code(show(kind))).toBe("bad-input");
  await show("administrator");
  await show("use");
  expect(await code(show("use"))).toBe("conflict");
  const [seen] = await secondOpinions.execute(db(), {}, f.as("administrator"));
  expect(seen).toMatchObject({ by: "Person steward", said: { lines: [{ people: [{ name: "Person nothing" }] }] } });
  // Whoever is steward of nothing of it reads no name and no number.
  const [other] = await secondOpinions.execute(db(), {}, f.as("use"));
  expect(other!.said).toMatchObject({ lines: [], beyond: true });
  expect(await secondOpinions.execute(db(), {}, f.as("edit"))).toEqual([]);
  const say = (kind: Kind, word: string) => giveSecondOpinion.execute(db(), { slipId: seen!.id, word }, f.as(kind));
  expect(await code(say("edit", "Looks right"))).toBe("not-found");
  await say("administrator", "Not before Monday");
  expect(await code(say("administrator", "Or Tuesday"))).toBe("not-found");
  const told = await db().db.select().from(notices).where(eq(notices.personId, f.ids.steward));
  expect(told.at(-1)?.text).toBe("Person administrator commented on your change slip: “Not before Monday”");
  const { draft } = await ownSlip.execute(db(), {}, f.as("steward"));
  expect(draft?.changes).toHaveLength(1);
  await discardSlip.execute(db(), { slipId: draft!.id }, f.as("steward"));
  expect(await secondOpinions.execute(db(), {}, f.as("use"))).toEqual([]);
  expect(await code(say("use", "Too late"))).toBe("conflict");
});

test("what one gave that ends within a week is listed, extended in one act, and listed no more", async () => {
  const until = Date.now() + 3 * DAY;
  const terms = { level: "use" as const, from: null, why: "the fair" };
  const to = (kind: Kind, end: number | null, by: Kind = "steward") =>
    giveAccess.execute(db(), { nodeId: f.entryId, subject: subject(kind), ...terms, until: end }, f.as(by));
  const { grantId } = await to("nothing", until);
  await to("owner", Date.now() + 30 * DAY);
  await to("administrator", until, "administrator");
  const ending = (kind: Kind) => endingSoon.execute(db(), {}, f.as(kind));
  expect(await ending("steward")).toMatchObject([
    { grantId, who: "Person nothing", what: "Pellam Tickets", level: "use", until, entry: true },
  ]);
  await changeAccess.execute(db(), { grantId, ...terms, until: until + 14 * DAY }, f.as("steward"));
  expect(await ending("steward")).toEqual([]);
  // Of what they are no steward of any more they learn nothing.
  await give(db(), f.as("steward"), f.entryId, f.ids.administrator, "use");
  expect(await ending("administrator")).toEqual([]);
});

test("what is set at places is told to their stewards alone", async () => {
  const ask = (kind: Kind) =>
    accessCells.execute(db(), { nodeIds: [f.entryId, f.vaultId], subject: subject("use") }, f.as(kind));
  const cells = await ask("steward");
  expect(cells).toMatchObject([
    { nodeId: f.entryId, grants: [{ level: "use" }] },
    { nodeId: f.vaultId, grants: [] },
  ]);
  expect(await code(ask("edit"))).toBe("not-allowed");
  expect(await code(ask("guest"))).toBe("not-allowed");
});
