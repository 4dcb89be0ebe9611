/** House rules that want people to show anew that it is them: every door through which the act can be done. */
import { eq } from "drizzle-orm";
import { afterAll, afterEach, beforeAll, describe, expect, test } from "vitest";
import { type Fixture, type Kind, makeFixture, PASSWORD } from "../demo/fixture";
import { type InProcess, inProcess } from "../demo/inProcess";
import { type HouseRules, USUAL_RULES } from "../src/core/access/houseRules";
import { changeAccess, giveAccess } from "../src/server/access/grants";
import { createHandover } from "../src/server/access/handover/handover";
import { answerRequest, requestAccess } from "../src/server/access/requests/requests";
import { applySlip, discardSlip, draftSlip, ownSlip } from "../src/server/access/slip/slip";
import { takeStewardship } from "../src/server/access/stewardship";
import { sessions } from "../src/server/database/schema";
import { addPeople } from "../src/server/people/adding";
import { createGroup } from "../src/server/people/groups";
import { markLeaver } from "../src/server/people/leaving";
import { changeMembers, removeMember, setMember } from "../src/server/people/members";
import { changeRole, reinstate } from "../src/server/people/persons";
import { proveAgain, sessionCaller, signOut } from "../src/server/people/sessions";
import { signIn } from "../src/server/people/signIn";
import { changeRules, houseRules } from "../src/server/rules/rules";
import { earlierVersions, revealEarlier } from "../src/server/vaults/earlier";
import { addEntry, changeEntry } from "../src/server/vaults/entries";
import { entryPage } from "../src/server/vaults/entryPage";
import { revealField } from "../src/server/vaults/revealing";
import { createVault } from "../src/server/vaults/vaults";

let app: InProcess;
let f: Fixture;
const db = () => app.galtry;
const MINUTE = 60_000;

beforeAll(async () => {
  app = await inProcess();
  f = await makeFixture(app.galtry);
});
afterAll(() => app.close());
afterEach(() => rule([]));

/** Signed in so many minutes ago. */
const since = (kind: Kind, minutes: number) => ({ ...f.as(kind), provedAt: Date.now() - minutes * MINUTE });
const rule = async (acts: HouseRules["confirm"]["acts"], minutes = 5) => {
  const now = await houseRules.execute(db(), {}, f.as("owner"));
  if (JSON.stringify(now.confirm) !== JSON.stringify({ acts, minutes }))
    await changeRules.execute(db(), { ...USUAL_RULES, confirm: { acts, minutes } }, f.as("owner"));
};
const outcome = (promise: Promise<unknown>) =>
  promise.then(
    () => "done",
    (error) => error.code as string,
  );

/** Refused to somebody who signed in long ago, done for the same person once they have shown that it is them. */
async function confirmed(kind: Kind, act: (by: ReturnType<typeof since>) => Promise<unknown>, minutes = 5) {
  expect(await outcome(act(since(kind, minutes + 1)))).toBe("prove-again");
  expect(await outcome(act(since(kind, minutes - 1)))).toBe("done");
}

describe("seeing a value", () => {
  test("by every way that shows one, and nothing else of the entry", async () => {
    const values = { name: "Safe", signInPage: "https://safe.example/in", password: "canary-safe/41" };
    const by = f.as("steward");
    const { entryId } = await addEntry.execute(db(), { parentId: f.vaultId, captured: false, values }, by);
    const { reveal } = await entryPage.execute(db(), { entryId }, by);
    const next = { ...values, password: "canary-safe/42" };
    await changeEntry.execute(db(), { entryId, baseVersionId: reveal!.versionId, values: next }, by);
    await rule(["reveal"]);
    const see = (how: "revealed" | "copied") => (who: ReturnType<typeof since>) =>
      revealField.execute(db(), { entryId, field: "password", how }, who);
    await confirmed("steward", see("revealed"));
    await confirmed("steward", see("copied"));
    const { versions } = await earlierVersions.execute(db(), { entryId }, by);
    const first = versions.at(-1)!.id;
    await confirmed("steward", (who) =>
      revealEarlier.execute(db(), { entryId, versionId: first, field: "password", how: "revealed" }, who),
    );
    await confirmed("steward", (who) =>
      createHandover.execute(
        db(),
        { entryId, fields: ["password"], until: Date.now() + 60 * MINUTE, openings: 1, word: "" },
        who,
      ),
    );
    // Another page would get the password at the next sign-in.
    const elsewhere = { ...values, signInPage: "https://elsewhere.example/in" };
    expect(
      await outcome(
        changeEntry.execute(db(), { entryId, baseVersionId: versions[0]!.id, values: elsewhere }, since("steward", 6)),
      ),
    ).toBe("prove-again");
    expect(await outcome(createVault.execute(db(), { name: "Untouched" }, since("owner", 90)))).toBe("done");
  });

  test("as long as the rules say", async () => {
    await rule(["reveal"], 30);
    const input = { entryId: f.entryId, field: "password", how: "revealed" as const };
    await confirmed("reveal", (who) => revealField.execute(db(), input, who), 30);
  });
});

describe("giving Steward", () => {
  const grant = (level: "use" | "steward", kind: Kind = "edit") => ({
    nodeId: f.entryId,
    subject: { kind: "person" as const, id: f.ids[kind] },
    level,
  });

  test("on its own, by a change, and no lower level", async () => {
    await rule(["steward"]);
    const who = since("steward", 90);
    const { grantId } = await giveAccess.execute(db(), grant("use", "nothing"), who);
    expect(await outcome(changeAccess.execute(db(), { grantId, level: "reveal" }, who))).toBe("done");
    await confirmed("steward", (by) => giveAccess.execute(db(), grant("steward"), by));
    const { grantId: other } = await giveAccess.execute(db(), grant("use", "reveal"), who);
    await confirmed("steward", (by) => changeAccess.execute(db(), { grantId: other, level: "steward" }, by));
  });

  test("by a slip", async () => {
    await rule(["steward"]);
    const by = f.as("steward");
    const { entryId } = await addEntry.execute(
      db(),
      {
        parentId: f.vaultId,
        captured: false,
        values: { name: "By slip", signInPage: "https://slip.example/in", password: "canary-slip/9" },
      },
      by,
    );
    const set = {
      ...{ type: "set" as const, nodeId: entryId, subject: { kind: "person" as const, id: f.ids.use } },
      grants: [{ level: "steward" as const, from: null, until: null }],
    };
    const before = (await ownSlip.execute(db(), {}, by)).draft;
    if (before) await discardSlip.execute(db(), { slipId: before.id }, by);
    await draftSlip.execute(db(), { changes: [set], revision: 0 }, by);
    const { id: slipId, revision, said } = (await ownSlip.execute(db(), {}, by)).draft!;
    await confirmed("steward", (who) => applySlip.execute(db(), { slipId, revision, ground: said.ground }, who));
  });

  test("by answering a request", async () => {
    await rule(["steward"]);
    const by = f.as("steward");
    const values = { name: "Asked for", signInPage: "https://asked.example/in", password: "canary-asked/3" };
    const { entryId } = await addEntry.execute(db(), { parentId: f.vaultId, captured: false, values }, by);
    const subject = { kind: "person" as const, id: f.ids.use };
    await giveAccess.execute(db(), { nodeId: entryId, subject, level: "use" }, by);
    const asked = { nodeId: entryId, level: "steward" as const, why: "I look after it" };
    const { askId } = await requestAccess.execute(db(), asked, f.as("use"));
    await confirmed("steward", (who) => answerRequest.execute(db(), { askId, yes: true }, who));
  });

  test("by a group that has it, on joining and not on leaving", async () => {
    const { groupId } = await createGroup.execute(db(), { name: "Keyholders" }, f.as("administrator"));
    const subject = { kind: "group" as const, id: groupId };
    await giveAccess.execute(db(), { nodeId: f.entryId, subject, level: "steward" }, f.as("steward"));
    await rule(["steward"]);
    const of = { groupId, personId: f.ids.use };
    await confirmed("administrator", (who) => setMember.execute(db(), of, who));
    const stale = since("administrator", 90);
    expect(await outcome(removeMember.execute(db(), of, stale))).toBe("done");
    await confirmed("administrator", (who) => changeMembers.execute(db(), { changes: [{ ...of, held: {} }] }, who));
  });

  test("by an owner who takes it, by leaving it to somebody, and by bringing it back", async () => {
    const { vaultId } = await createVault.execute(db(), { name: "Left" }, f.as("owner"));
    const subject = { kind: "person" as const, id: f.ids.use };
    const { grantId } = await giveAccess.execute(db(), { nodeId: vaultId, subject, level: "steward" }, f.as("owner"));
    await rule(["steward"]);
    await confirmed("owner", (who) => takeStewardship.execute(db(), { nodeId: f.entryId, why: "Nobody answers" }, who));
    const leave = (who: ReturnType<typeof since>) =>
      markLeaver.execute(db(), { personId: f.ids.use, why: "", successors: [] }, who);
    // With nothing to leave to anybody nothing is given.
    expect(await outcome(leave(since("owner", 90)))).toBe("done");
    await confirmed("owner", (who) =>
      reinstate.execute(db(), { personId: f.ids.use, why: "", grantIds: [grantId], membershipIds: [] }, who),
    );
  });
});

describe("a confirmation", () => {
  const from = { address: "192.0.2.7", browser: "Chromium" };
  const session = async (kind: Kind) => {
    const nobody = { ...from, kind: "nobody" as const, knownBrowser: null };
    const entered = await signIn.execute(db(), { mail: `${kind}@tarrowick.example`, password: PASSWORD }, nobody);
    if (!entered.signedIn) throw new Error("not signed in");
    // Long enough ago.
    await db().writer.write((tx) =>
      tx
        .update(sessions)
        .set({ provedAt: Date.now() - 20 * MINUTE })
        .where(eq(sessions.personId, f.ids[kind])),
    );
    return async () => (await sessionCaller(db().db, entered.token, Date.now(), from))!;
  };
  const see = (who: Awaited<ReturnType<Awaited<ReturnType<typeof session>>>>) =>
    outcome(revealField.execute(db(), { entryId: f.entryId, field: "password", how: "revealed" }, who));

  test("counts for the session in which it was given, and for no other of the same person", async () => {
    await rule(["reveal"]);
    const [here, elsewhere] = [await session("reveal"), await session("reveal")];
    expect(await see(await here())).toBe("prove-again");
    expect(await proveAgain.execute(db(), { password: PASSWORD }, await here())).toEqual({ right: true });
    expect(await see(await here())).toBe("done");
    expect(await see(await elsewhere())).toBe("prove-again");
  });

  test("is no way to guess a password: a wrong one opens nothing, and too many of them rest", async () => {
    await rule(["reveal"]);
    const here = await session("edit");
    const tries: string[] = [];
    for (let i = 0; i < 12; i++)
      tries.push(await outcome(proveAgain.execute(db(), { password: `guess ${i}` }, await here())));
    expect(tries[0]).toBe("done");
    expect(tries.at(-1)).toBe("too-many");
    expect(await outcome(proveAgain.execute(db(), { password: PASSWORD }, await here()))).toBe("too-many");
    expect(await see(await here())).toBe("prove-again");
  });

  test("ends with its session", async () => {
    await rule(["reveal"]);
    const here = await session("steward");
    await proveAgain.execute(db(), { password: PASSWORD }, await here());
    const who = await here();
    expect(await see(who)).toBe("done");
    await signOut.execute(db(), {}, who);
    expect(await see(who)).toBe("signed-out");
  });
});

test("giving a role: to somebody who is here, and to somebody new", async () => {
  await rule(["role"]);
  await confirmed("owner", (who) => changeRole.execute(db(), { personId: f.ids.nothing, role: "administrator" }, who));
  const add = (role: "administrator" | "member", mail: string) => (who: ReturnType<typeof since>) =>
    addPeople.execute(db(), { people: [{ name: "Nia Rowe", mail, role, groupIds: [], until: null }] }, who);
  await confirmed("owner", add("administrator", "nia@tarrowick.example"));
  expect(await outcome(add("member", "nia.two@tarrowick.example")(since("owner", 90)))).toBe("done");
});

describe("the rules", () => {
  const change =
    (confirm: HouseRules["confirm"], more: Partial<HouseRules> = {}) =>
    (who: ReturnType<typeof since>) =>
      changeRules.execute(db(), { ...USUAL_RULES, ...more, confirm }, who);

  test("are changed without it where they do not ask", async () => {
    expect(await outcome(change({ acts: [], minutes: 5 }, { emergency: true })(since("owner", 90)))).toBe("done");
  });

  test("ask before they are changed, where they say so", async () => {
    await rule(["rules"]);
    await confirmed("owner", change({ acts: ["rules"], minutes: 5 }, { emergency: true }));
  });

  test("never let an open session take a guard away, nor lengthen it", async () => {
    await rule(["reveal", "steward"], 5);
    const stale = since("owner", 6);
    expect(await outcome(change({ acts: ["steward"], minutes: 5 })(stale))).toBe("prove-again");
    expect(await outcome(change({ acts: ["reveal", "steward"], minutes: 60 })(stale))).toBe("prove-again");
    expect(await outcome(change({ acts: ["reveal", "steward", "role"], minutes: 5 })(stale))).toBe("done");
    await confirmed("owner", change({ acts: ["role"], minutes: 5 }));
  });
});
