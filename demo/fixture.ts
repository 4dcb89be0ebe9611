/** A small organisation with one person of every kind, for tests; made through the commands. */
import type { Level } from "../src/core/access";
import { giveAccess } from "../src/server/access/grants";
import type { Caller } from "../src/server/caller";
import type { Galtry } from "../src/server/galtry";
import { confirmPairing, startPairing, takeToken } from "../src/server/lanyard/pairing";
import { addPerson } from "../src/server/people/adding";
import { markLeaver } from "../src/server/people/leaving";
import { changeRole, suspendPerson } from "../src/server/people/persons";
import { acceptLink, setUp, setUpAddress } from "../src/server/people/setUp";
import { addEntry } from "../src/server/vaults/entries";
import { createFolder } from "../src/server/vaults/folders";
import { createVault } from "../src/server/vaults/vaults";

export const PASSWORD = "canary passphrase of tests";
export const CANARY = "canary/Zinnia+73 quay";
export const CANARY_USER = "canary-user-name@tarrowick.example";

export const KINDS = [
  "owner",
  "administrator",
  "steward",
  "edit",
  "reveal",
  "use",
  "nothing",
  "guest",
  "auditor",
  "suspended",
  "leaver",
] as const;
export type Kind = (typeof KINDS)[number];

export interface Fixture {
  ids: Record<Kind, string>;
  vaultId: string;
  entryId: string;
  otherEntryId: string;
  /** Empty, in the vault. */
  folderId: string;
  as: (kind: Kind, at?: number) => Extract<Caller, { kind: "person" }>;
  lanyard: (kind: Kind) => Extract<Caller, { kind: "lanyard" }>;
  nobody: Extract<Caller, { kind: "nobody" }>;
}

const nobody: Fixture["nobody"] = { kind: "nobody", address: "192.0.2.7", browser: "Chromium", knownBrowser: null };

/** @param signInPage of the entry that everybody has something on */
export async function makeFixture(app: Galtry, signInPage = "https://pellam.example/sign-in"): Promise<Fixture> {
  const ids = {} as Record<Kind, string>;
  const as: Fixture["as"] = (kind, at = Date.now()) => ({
    kind: "person",
    personId: ids[kind],
    sessionId: null,
    provedAt: at,
    address: "192.0.2.7",
    browser: "Chromium",
  });
  const token = new URL((await setUpAddress(app))!).hash.slice(1);
  ids.owner = (
    await setUp.execute(
      app,
      {
        token,
        organisation: "Tarrowick Museums Trust",
        timeZone: "Europe/London",
        name: "Hanna Owner",
        mail: "owner@tarrowick.example",
        password: PASSWORD,
      },
      nobody,
    )
  ).personId;
  for (const kind of KINDS) {
    if (kind === "owner") continue;
    const role = kind === "administrator" || kind === "guest" ? kind : "member";
    const { personId, link } = await addPerson.execute(
      app,
      { name: `Person ${kind}`, mail: `${kind}@tarrowick.example`, role },
      as("owner"),
    );
    ids[kind] = personId;
    await acceptLink.execute(app, { token: new URL(link!).hash.slice(1), password: PASSWORD }, nobody);
  }
  // What joined for them is no browser of theirs.
  await app.db.run("delete from known_browsers where last_used_at > 0");
  const { vaultId } = await createVault.execute(app, { name: "Shop & Tickets", description: "" }, as("administrator"));
  await give(app, as("administrator"), vaultId, ids.steward, "steward");
  const values = {
    name: "Pellam Tickets",
    signInPage,
    userName: CANARY_USER,
    password: CANARY,
    notes: "Ring before noon.",
  };
  const { entryId } = await addEntry.execute(app, { parentId: vaultId, captured: false, values }, as("steward"));
  const { entryId: otherEntryId } = await addEntry.execute(
    app,
    {
      parentId: vaultId,
      captured: false,
      values: { ...values, name: "Quillbrook Couriers", signInPage: "https://quillbrook.example/in" },
    },
    as("steward"),
  );
  const { folderId } = await createFolder.execute(app, { parentId: vaultId, name: "Drawer" }, as("steward"));
  for (const level of ["use", "reveal", "edit"] as const) await give(app, as("steward"), entryId, ids[level], level);
  await give(app, as("steward"), entryId, ids.guest, "use");
  await give(app, as("steward"), entryId, ids.suspended, "edit");
  await give(app, as("steward"), entryId, ids.leaver, "edit");
  // Had much before: a grant that is there gives an auditor nothing.
  await give(app, as("steward"), entryId, ids.auditor, "edit");
  await changeRole.execute(app, { personId: ids.auditor, role: "auditor" }, as("owner"));
  const lanyards = new Map<Kind, string>();
  for (const kind of ["steward", "edit", "reveal", "use", "nothing", "guest"] as const)
    lanyards.set(kind, await connect(app, as(kind), kind));
  await suspendPerson.execute(app, { personId: ids.suspended, why: "" }, as("owner"));
  await markLeaver.execute(app, { personId: ids.leaver, why: "" }, as("owner"));
  return {
    ids,
    vaultId,
    entryId,
    otherEntryId,
    folderId,
    as,
    nobody,
    lanyard: (kind) => ({
      kind: "lanyard",
      personId: ids[kind],
      lanyardId: lanyards.get(kind) ?? "none",
      address: "192.0.2.7",
      browser: "Mozilla/5.0 Test",
      language: "en-GB",
    }),
  };
}

export async function give(
  app: Galtry,
  by: Caller,
  nodeId: string,
  personId: string,
  level: Level | "blocked",
  until: number | null = null,
) {
  return giveAccess.execute(
    app,
    { nodeId, subject: { kind: "person", id: personId }, level, from: null, until, why: "daily work" },
    by,
  );
}

async function connect(app: Galtry, by: Caller, thumbprint: string): Promise<string> {
  const { deviceCode, userCode } = await startPairing.execute(
    app,
    { browser: "Chromium", version: "0.1.0", thumbprint },
    nobody,
  );
  await confirmPairing.execute(app, { userCode }, by);
  const taken = await takeToken.execute(app, { deviceCode, thumbprint }, nobody);
  if (taken.state !== "connected") throw new Error("not connected");
  return taken.lanyardId;
}

/** Somebody more, who has joined. */
export async function colleagueOf(
  app: Galtry,
  { as, nobody: from }: Pick<Fixture, "as" | "nobody">,
  name: string,
  role: "member" | "administrator" = "member",
): Promise<{ id: string; name: string; as: Extract<Caller, { kind: "person" }> }> {
  const mail = `${name.toLowerCase().replaceAll(" ", "-")}@tarrowick.example`;
  const { personId, link } = await addPerson.execute(app, { name, mail, role }, as("owner"));
  await acceptLink.execute(app, { token: new URL(link!).hash.slice(1), password: PASSWORD }, from);
  return { id: personId, name, as: { ...as("owner"), personId } };
}
