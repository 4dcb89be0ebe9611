/** House rules about giving, at every door through which access is given. */
import { afterAll, afterEach, beforeAll, beforeEach, describe, expect, test } from "vitest";
import { type Fixture, give, type Kind, makeFixture } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { type HouseRules, USUAL_RULES } from "../src/core/access/houseRules";
import { changeAccess, giveAccess } from "../src/server/access/grants";
import { createHandover, handoverList } from "../src/server/access/handover/handover";
import { answerRequest, requestAccess } from "../src/server/access/requests/requests";
import { answerSlip, applySlip, discardSlip, draftSlip, ownSlip, waitingSlips } from "../src/server/access/slip/slip";
import { whoCanDoWhat } from "../src/server/access/who";
import { journalPage } from "../src/server/journal/page";
import { groupList } from "../src/server/people/groupPage";
import { createGroup } from "../src/server/people/groups";
import { setMember } from "../src/server/people/members";
import { changeRules, houseRules } from "../src/server/rules/rules";
import { addEntry } from "../src/server/vaults/entries";
import { createVault } from "../src/server/vaults/vaults";

let app: InProcess;
let f: Fixture;
let entryId: string;
const db = () => app.galtry;
const DAY = 86_400_000;

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
});
afterAll(() => app.close());
beforeEach(async () => {
  const values = { name: "Kiosk", signInPage: "https://kiosk.example/in", password: "canary-kiosk/73" };
  ({ entryId } = await addEntry.execute(db(), { parentId: f.vaultId, captured: false, values }, f.as("steward")));
});
afterEach(() => rule({}).catch(() => undefined));

const rule = (more: Partial<HouseRules>) => changeRules.execute(db(), { ...USUAL_RULES, ...more }, f.as("owner"));
const outcome = (promise: Promise<unknown>) =>
  promise.then(
    () => "given",
    (error) => `${error.code} ${error.field ?? ""}`.trim(),
  );
type To = Kind | "everyone" | { groupId: string };
const subjectOf = (to: To) =>
  to === "everyone"
    ? { kind: "everyone" as const }
    : typeof to === "object"
      ? { kind: "group" as const, id: to.groupId }
      : { kind: "person" as const, id: f.ids[to] };
const to = (who: To, level: string, more: object = {}) =>
  outcome(
    giveAccess.execute(
      db(),
      { nodeId: entryId, subject: subjectOf(who), level: level as "use", ...more },
      f.as("steward"),
    ),
  );
const grantOf = async (name: string) =>
  (await whoCanDoWhat.execute(db(), { nodeId: entryId }, f.as("steward"))).lines.find(
    (line) => line.name === name && line.here,
  )!;
const draft = async (kind: Kind, level: string, until: number | null) => {
  const { draft: before } = await ownSlip.execute(db(), {}, f.as("steward"));
  const changes = [{ type: "set", nodeId: entryId, subject: subjectOf(kind), grants: [{ level, from: null, until }] }];
  await draftSlip.execute(db(), { changes, revision: before?.revision ?? 0 }, f.as("steward"));
  return (await ownSlip.execute(db(), {}, f.as("steward"))).draft!;
};
const apply = ({ id, revision, said }: Awaited<ReturnType<typeof draft>>, why = "") =>
  applySlip.execute(db(), { slipId: id, revision, ground: said.ground, why }, f.as("steward"));

describe("the rules themselves", () => {
  test("are read by staff, changed by owners, and each change stands in the Journal as a sentence", async () => {
    expect(await houseRules.execute(db(), {}, f.as("use"))).toEqual(USUAL_RULES);
    for (const kind of ["administrator", "steward"] as const)
      expect(await outcome(changeRules.execute(db(), USUAL_RULES, f.as(kind)))).toBe("not-allowed");
    await rule({ reasonFrom: "edit" });
    const { lines } = await journalPage.execute(db(), {}, f.as("owner"));
    expect(lines[0]!.says).toBe("changed the house rules: A reason is required when giving Edit or more.");
    expect(await outcome(rule({ reasonFrom: "edit" }))).toBe("conflict");
  });
});

describe("what may be given", () => {
  test("by whom it goes to and up to which level; taking away and blocking always", async () => {
    await rule({ highest: { staff: "reveal", groups: "steward", everyone: "none", guests: "use" } });
    expect(await to("nothing", "edit")).toBe("bad-input level");
    expect(await to("nothing", "reveal")).toBe("given");
    expect(await to("guest", "reveal")).toBe("bad-input level");
    expect(await to("everyone", "use")).toBe("bad-input subject");
    expect(await to("everyone", "blocked")).toBe("given");
    // On a slip the preview says it, before anything is applied; what is allowed is not held up.
    const slip = await draft("guest", "edit", null);
    expect(slip.refused).toEqual(["The house rules allow a guest up to Use."]);
    expect(await outcome(apply(slip, "said"))).toBe("bad-input level");
    expect((await draft("guest", "use", null)).refused).toEqual([]);
    const after = await ownSlip.execute(db(), {}, f.as("steward"));
    await discardSlip.execute(db(), { slipId: after.draft!.id }, f.as("steward"));
  });

  test("only to one's own groups, where the rules say so", async () => {
    const { groupId } = await createGroup.execute(db(), { name: "Own and other" }, f.as("owner"));
    await rule({ ownGroups: true });
    expect(await to({ groupId }, "use")).toBe("bad-input subject");
    await setMember.execute(db(), { groupId, personId: f.ids.steward }, f.as("owner"));
    expect(await to({ groupId }, "use")).toBe("given");
  });

  test("with a reason, where one is asked for: on an entry, on a slip, and when a request is answered", async () => {
    await rule({ reasonFrom: "reveal" });
    expect(await to("nothing", "use")).toBe("given");
    const { grantId } = await grantOf("Person nothing");
    const raise = (why: string) =>
      outcome(changeAccess.execute(db(), { grantId, level: "edit", why }, f.as("steward")));
    expect(await raise("")).toBe("bad-input why");
    const slip = await draft("guest", "reveal", null);
    expect(slip).toMatchObject({ reason: true, second: false });
    expect(await outcome(apply(slip))).toBe("bad-input why");
    await apply(slip, "the summer fair");
    expect(await raise("stands in for Ines")).toBe("given");
    // A request brings its own reason.
    await give(db(), f.as("steward"), entryId, f.ids.use, "use");
    const asked = { nodeId: entryId, level: "reveal" as const, why: "Stocktaking" };
    const { askId } = await requestAccess.execute(db(), asked, f.as("use"));
    expect(await outcome(answerRequest.execute(db(), { askId, yes: true }, f.as("steward")))).toBe("given");
  });

  test("lowering and shortening are against no rule", async () => {
    expect(await to("nothing", "steward")).toBe("given");
    await rule({
      highest: { ...USUAL_RULES.highest, staff: "use" },
      longest: { staff: 1, guests: 1 },
      reasonFrom: "use",
    });
    const { grantId } = await grantOf("Person nothing");
    expect(await outcome(changeAccess.execute(db(), { grantId, level: "edit" }, f.as("steward")))).toBe("given");
    const lower = await grantOf("Person nothing");
    const more = { grantId: lower.grantId, level: "steward" as const };
    expect(await outcome(changeAccess.execute(db(), more, f.as("steward")))).toBe("bad-input level");
  });
});

describe("longer than one steward may give", () => {
  test("goes on a slip to a second one, who reads what it does, and is applied with their yes", async () => {
    await rule({ longest: { staff: null, guests: 30 } });
    const until = Date.now() + 200 * DAY;
    expect(await to("nothing", "use", { until })).toBe("given");
    expect(await to("guest", "use", { until: Date.now() + 29 * DAY })).toBe("given");
    expect(await to("guest", "edit", { until })).toBe("second-yes until");
    const slip = await draft("guest", "edit", until);
    expect(slip.second).toBe(true);
    expect(await apply(slip)).toMatchObject({ waiting: true });
    expect((await grantOf("Person guest")).level).toBe("use");
    const [waits] = await waitingSlips.execute(db(), {}, f.as("administrator"));
    // Now, and from the day on which the first grant would have ended.
    expect(waits?.said.lines.map(({ before, after }) => [before, after])).toEqual([
      ["use", "edit"],
      ["none", "edit"],
    ]);
    expect(await waitingSlips.execute(db(), {}, f.as("steward"))).toEqual([]);
    const answer = { slipId: slip.id, yes: true, ground: waits!.said.ground };
    expect(await outcome(answerSlip.execute(db(), answer, f.as("steward")))).toBe("not-found");
    await answerSlip.execute(db(), answer, f.as("administrator"));
    expect(await grantOf("Person guest")).toMatchObject({ level: "edit", until });
  });

  test("is refused where there is no second steward to ask", async () => {
    await rule({ longest: { staff: 7, guests: 7 } });
    const { vaultId } = await createVault.execute(db(), { name: "Alone" }, f.as("owner"));
    const changes = [
      { type: "set", nodeId: vaultId, subject: subjectOf("use"), grants: [{ level: "use", from: null, until: null }] },
    ];
    await draftSlip.execute(db(), { changes, revision: 0 }, f.as("owner"));
    const { draft: slip } = await ownSlip.execute(db(), {}, f.as("owner"));
    const { id: slipId, revision, said } = slip!;
    const input = { slipId, revision, ground: said.ground };
    expect(await outcome(applySlip.execute(db(), input, f.as("owner")))).toBe("second-yes");
    await discardSlip.execute(db(), { slipId }, f.as("owner"));
  });
});

describe("who makes what", () => {
  test("vaults and groups; whoever of the staff makes a group keeps it", async () => {
    const vault = (kind: Kind) => outcome(createVault.execute(db(), { name: `Vault of ${kind}` }, f.as(kind)));
    const group = (kind: Kind) => outcome(createGroup.execute(db(), { name: `Team of ${kind}` }, f.as(kind)));
    await rule({ makes: { ...USUAL_RULES.makes, vaults: "owners", groups: "staff" } });
    expect([await vault("administrator"), await vault("owner")]).toEqual(["not-allowed", "given"]);
    expect([await group("use"), await group("guest")]).toEqual(["given", "not-allowed"]);
    expect((await groupList.execute(db(), {}, f.as("use"))).groups.map(({ name }) => name)).toEqual(["Team of use"]);
  });

  test("handover links: nobody, stewards, or whoever may reveal, who then sees their own", async () => {
    const link = (kind: Kind) =>
      outcome(
        createHandover.execute(
          db(),
          { entryId: f.entryId, fields: ["password"], until: Date.now() + DAY, openings: 1 },
          f.as(kind),
        ),
      );
    expect([await link("reveal"), await link("steward")]).toEqual(["not-allowed", "given"]);
    await rule({ makes: { ...USUAL_RULES.makes, handovers: "reveal" } });
    expect([await link("use"), await link("reveal")]).toEqual(["not-allowed", "given"]);
    const links = async (kind: Kind) =>
      (await handoverList.execute(db(), { entryId: f.entryId }, f.as(kind))).links.map(({ by }) => by);
    expect(await links("reveal")).toEqual(["Person reveal"]);
    expect(await links("steward")).toHaveLength(2);
    await rule({ makes: { ...USUAL_RULES.makes, handovers: "nobody" } });
    expect(await link("steward")).toBe("not-allowed");
  });
});
