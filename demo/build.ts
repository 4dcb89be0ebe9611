/** Builds the sample organisation through the same commands that a person's clicks use, with weeks behind it. */

import { USUAL_RULES } from "../src/core/access/houseRules";
import type { SignInOutcome } from "../src/core/signin/outcome";
import { giveAccess } from "../src/server/access/grants";
import { setApproval } from "../src/server/access/requests/approvals";
import { setListed } from "../src/server/access/requests/requests";
import { answerInRound, finishRound, roundPage, setRounds, startRound } from "../src/server/access/rounds/rounds";
import type { Caller } from "../src/server/caller";
import { pinEntry } from "../src/server/frontdesk/frontDesk";
import type { Galtry } from "../src/server/galtry";
import { confirmPairing, endLanyard, startPairing, takeToken } from "../src/server/lanyard/pairing";
import { addPerson } from "../src/server/people/adding";
import { createGroup, endGroup } from "../src/server/people/groups";
import { setMember } from "../src/server/people/members";
import { acceptLink, setUp, setUpAddress } from "../src/server/people/setUp";
import { changeRules } from "../src/server/rules/rules";
import { ANY_STEWARD } from "../src/server/signin/askedCodes";
import { beginSignIn, handOver } from "../src/server/signin/sealed";
import { addEntry } from "../src/server/vaults/entries";
import { createFolder } from "../src/server/vaults/folders";
import { revealField } from "../src/server/vaults/revealing";
import { changeSigningIn } from "../src/server/vaults/signingIn";
import { createVault } from "../src/server/vaults/vaults";
import type { Site } from "../standins/sites/site";
import { mailOf } from "./mailOf";
import { DEMO_PASSWORD, GROUPS, KEEPERS, ORGANISATION, PEOPLE, TIME_ZONE, VAULTS } from "./organisation";

const DAY = 86_400_000;
const HOUR = 3_600_000;

export interface Built {
  people: Map<string, string>;
  groups: Map<string, string>;
  vaults: Map<string, string>;
  /** By host. */
  entries: Map<string, string>;
  /** By name. */
  folders: Map<string, string>;
}

const nobody: Caller = { kind: "nobody", address: "127.0.0.1", browser: "Chromium on Linux", knownBrowser: null };

/** Acts in the order of their moments, so that the journal reads as it happened. */
class Plan {
  readonly #acts: { at: number; run: (at: number) => Promise<unknown> }[] = [];
  at(at: number, run: (at: number) => Promise<unknown>): void {
    this.#acts.push({ at: at < this.now - DAY ? inOfficeHours(at) : at, run });
  }
  constructor(private readonly now: number) {}
  async carryOut(): Promise<void> {
    for (const { at, run } of this.#acts.sort((a, b) => a.at - b.at)) await run(at);
  }
}

/** A whole day folded into nine to five, so that the order stays and nobody works at night. */
function inOfficeHours(at: number): number {
  const midnight = Math.floor(at / DAY) * DAY;
  return midnight + 9 * HOUR + Math.round((at - midnight) / 3);
}

type As = (key: string, at: number) => Caller;

export async function buildDemo(
  app: Galtry,
  sites: readonly Site[],
  address: (host: string, path: string) => string,
  now = Date.now(),
): Promise<Built> {
  const built: Built = {
    people: new Map(),
    groups: new Map(),
    vaults: new Map(),
    entries: new Map(),
    folders: new Map(),
  };
  const as: As = (key, at) => ({
    kind: "person",
    personId: built.people.get(key)!,
    sessionId: null,
    provedAt: at,
    address: "127.0.0.1",
    browser: "Chromium on Linux",
  });
  const plan = new Plan(now);
  const start = now - 40 * DAY;
  addPeople(plan, app, built, as, start);
  addGroups(plan, app, built, as, start + DAY, now);
  fillVaults(plan, app, built, as, sites, address, start + 2 * DAY);
  giveSingly(plan, app, built, as, now);
  useIt(plan, app, built, as, now);
  keepHouse(plan, app, built, as, now);
  await plan.carryOut();
  return built;
}

function addPeople(plan: Plan, app: Galtry, { people }: Built, as: As, start: number): void {
  const [first, ...rest] = PEOPLE;
  plan.at(start, async (at) => {
    const token = new URL((await setUpAddress(app, at))!).hash.slice(1);
    const owner = await setUp.execute(
      app,
      {
        token,
        organisation: ORGANISATION,
        timeZone: TIME_ZONE,
        name: first!.name,
        mail: mailOf(first!.name),
        password: DEMO_PASSWORD,
      },
      nobody,
      at,
    );
    people.set(first!.key, owner.personId);
  });
  for (const [i, one] of rest.entries()) {
    let link = "";
    plan.at(start + (i + 1) * 4 * 60_000, async (at) => {
      const added = await addPerson.execute(
        app,
        { name: one.name, mail: mailOf(one.name), role: one.role },
        as("hanna", at),
        at,
      );
      people.set(one.key, added.personId);
      link = added.link ?? "";
    });
    plan.at(start + (i + 1) * 7 * 60_000 + 3 * HOUR, async (at) => {
      await acceptLink.execute(app, { token: new URL(link).hash.slice(1), password: DEMO_PASSWORD }, nobody, at);
      // What joins for them is no browser of theirs.
      await app.db.run("delete from known_browsers where last_used_at > 0");
    });
  }
}

/** Volunteers' membership ends with the season. */
function addGroups(plan: Plan, app: Galtry, { people, groups }: Built, as: As, start: number, now: number): void {
  const seasonEnd = endOfSeason(now);
  for (const [i, name] of GROUPS.entries())
    plan.at(start + i * 60_000, async (at) =>
      groups.set(name, (await createGroup.execute(app, { name, description: "" }, as("hanna", at), at)).groupId),
    );
  for (const [i, one] of PEOPLE.entries())
    for (const group of one.groups) {
      const by = one.key === "hanna" ? "edwin" : "hanna";
      plan.at(start + HOUR + i * 50_000, (at) =>
        setMember.execute(
          app,
          {
            groupId: groups.get(group)!,
            personId: people.get(one.key)!,
            from: null,
            until: group === "Volunteers" ? seasonEnd : null,
            keeper: KEEPERS[group] === one.key,
          },
          as(by, at),
          at,
        ),
      );
    }
}

/** The next 30 September, 18:00 in London. */
function endOfSeason(now: number): number {
  const year = new Date(now).getUTCFullYear();
  const thisYear = Date.UTC(year, 8, 30, 17);
  return thisYear > now ? thisYear : Date.UTC(year + 1, 8, 30, 17);
}

function fillVaults(
  plan: Plan,
  app: Galtry,
  { people, groups, vaults, entries, folders }: Built,
  as: As,
  sites: readonly Site[],
  address: (host: string, path: string) => string,
  start: number,
): void {
  for (const [v, vault] of VAULTS.entries()) {
    const made = start + (v + 1) * 3 * HOUR;
    plan.at(made, async (at) => {
      const { vaultId } = await createVault.execute(
        app,
        { name: vault.name, description: vault.description },
        as(vault.by, at),
        at,
      );
      vaults.set(vault.name, vaultId);
      for (const steward of vault.stewards)
        await giveAccess.execute(
          app,
          {
            nodeId: vaultId,
            subject: { kind: "person", id: people.get(steward)! },
            level: "steward",
            from: null,
            until: null,
            why: "in charge of it",
          },
          as(vault.by, at),
          at + 1000,
        );
    });
    for (const [i, folder] of (vault.folders ?? []).entries()) {
      plan.at(made + HOUR / 4 + i * 60_000, async (at) => {
        const parentId = vaults.get(vault.name)!;
        const made = await createFolder.execute(app, { parentId, name: folder.name }, as(vault.stewards[0]!, at), at);
        folders.set(folder.name, made.folderId);
      });
      for (const grant of folder.grants ?? [])
        plan.at(made + 3 * HOUR, (at) =>
          giveAccess.execute(
            app,
            {
              nodeId: folders.get(folder.name)!,
              subject: { kind: "group", id: groups.get(grant.to.slice("group:".length))! },
              level: grant.level,
              from: null,
              until: null,
              why: grant.why,
            },
            as(vault.stewards[0]!, at),
            at,
          ),
        );
    }
    /** The folder that holds it, else the vault. */
    const placeOf = (what: string) =>
      folders.get(vault.folders?.find((folder) => folder.holds.includes(what))?.name ?? "") ?? vaults.get(vault.name)!;
    for (const [i, entry] of vault.entries.entries()) {
      const site = sites.find((one) => one.host === entry.host)!;
      const host = (name: string) => new URL(address(name, "/")).host;
      plan.at(made + HOUR / 2 + i * 11 * 60_000, async (at) => {
        const { entryId } = await addEntry.execute(
          app,
          {
            parentId: placeOf(entry.host),
            captured: i % 3 !== 2,
            steps: { hosts: (entry.hosts ?? []).map(host), choices: entry.choices ?? {}, signOutPage: null },
            values: {
              name: entry.name ?? site.name,
              description: entry.description,
              signInPage: address(site.host, site.signInPath),
              userName: site.account.userName,
              password: site.account.password,
              code: site.account.code,
              notes: entry.notes ?? "",
              tags: entry.tags ?? [],
              useSeesUserName: entry.useSeesUserName ?? false,
            },
          },
          as(vault.stewards[0]!, at),
          at,
        );
        entries.set(entry.host, entryId);
      });
    }
    for (const [i, thing] of (vault.things ?? []).entries())
      plan.at(made + 2 * HOUR + i * 7 * 60_000, async (at) => {
        await addEntry.execute(
          app,
          { parentId: placeOf(thing.name), kind: thing.kind, values: { name: thing.name, ...thing.values } },
          as(vault.stewards[0]!, at),
          at,
        );
      });
    for (const [i, grant] of vault.grants.entries())
      plan.at(made + 2.5 * HOUR + i * 60_000, (at) =>
        giveAccess.execute(
          app,
          {
            nodeId: vaults.get(vault.name)!,
            subject:
              grant.to === "everyone" ? { kind: "everyone" } : { kind: "group", id: groups.get(grant.to.slice(6))! },
            level: grant.level,
            from: null,
            until: null,
            why: grant.why,
          },
          as(vault.by, at),
          at,
        ),
      );
  }
}

/** Access to single entries: for a time, blocked, coming, a guest. */
function giveSingly(plan: Plan, app: Galtry, { people, groups, entries }: Built, as: As, now: number): void {
  const give = (
    by: string,
    host: string,
    subject: { person?: string; group?: string },
    level: "use" | "reveal" | "edit" | "blocked",
    days: number,
    more: { from?: number; until?: number; why?: string } = {},
  ) =>
    plan.at(now - days * DAY, (at) =>
      giveAccess.execute(
        app,
        {
          nodeId: entries.get(host)!,
          level,
          from: more.from ?? null,
          until: more.until ?? null,
          why: more.why ?? "",
          subject: subject.person
            ? { kind: "person", id: people.get(subject.person)! }
            : { kind: "group", id: groups.get(subject.group!)! },
        },
        as(by, at),
        at,
      ),
    );
  plan.at(now - 25 * DAY, (at) =>
    setListed.execute(app, { entryId: entries.get("larkbill.localhost")!, listed: true }, as("wilhelmina", at), at),
  );
  // Whoever is at the desk reads the code that the site sends.
  plan.at(now - 24 * DAY, (at) =>
    changeSigningIn.execute(
      app,
      {
        entryId: entries.get("brindlecote.localhost")!,
        guardedFill: false,
        plainHttp: false,
        filling: "send",
        codesReach: ANY_STEWARD,
      },
      as("harriet", at),
      at,
    ),
  );
  give("theodora", "kestrelmoor.localhost", { group: "Volunteers" }, "use", 30, { why: "their own shifts" });
  give("theodora", "tilbrook.localhost", { group: "Volunteers" }, "use", 30, { why: "the rota board" });
  give("ines", "quillbrook.localhost", { group: "Learning" }, "use", 20, { why: "craft boxes go by post" });
  give("ines", "elmsworth.localhost", { group: "Volunteers" }, "blocked", 19, {
    why: "they sell at the till, not here",
  });
  give("ines", "stallwright.localhost", { person: "maren" }, "use", 4, {
    until: now + 2 * DAY,
    why: "covering the spring order",
  });
  give("wilhelmina", "larkbill.localhost", { person: "maren" }, "use", 0.2, { why: "the craft day" });
  give("wilhelmina", "harrowmere.localhost", { person: "maren" }, "use", 3, {
    until: now + 1.4 * DAY,
    why: "posters for the craft day",
  });
  give("theodora", "hallslate.localhost", { person: "callum" }, "edit", 8, { why: "he plans the hires" });
  give("theodora", "fennick.localhost", { person: "callum" }, "reveal", 15, {
    until: now - 6 * DAY,
    why: "the school trips in spring",
  });
  give("harriet", "thornlea.localhost", { person: "ada" }, "use", 6, {
    from: now + 3 * DAY,
    until: now + 17 * DAY,
    why: "while Owen is away",
  });
  give("clementine", "tarnbeck.localhost", { person: "juno" }, "reveal", 12, { why: "the giving day" });
  give("rosalind", "glenmarsh.localhost", { person: "kit" }, "use", 10, {
    until: now + 80 * DAY,
    why: "designs the new gallery",
  });
  give("wilhelmina", "redshank.localhost", { person: "kit" }, "use", 10, {
    until: now + 80 * DAY,
    why: "pictures for the new gallery",
  });
}

/** House rules, what asks first, an end of the season, rounds made and to be made. */
function keepHouse(plan: Plan, app: Galtry, { groups, vaults, entries }: Built, as: As, now: number): void {
  const rules = {
    ...USUAL_RULES,
    longest: { staff: null, guests: 120 },
    reasonFrom: "steward" as const,
    emergency: true,
  };
  plan.at(now - 38 * DAY, (at) => changeRules.execute(app, rules, as("hanna", at), at));
  plan.at(now - 37 * DAY, (at) =>
    endGroup.execute(app, { groupId: groups.get("Volunteers")!, until: endOfSeason(now) }, as("hanna", at), at),
  );
  plan.at(now - 15 * DAY, (at) =>
    setApproval.execute(
      app,
      { entryId: entries.get("castlewick.localhost")!, stewards: 1, minutes: 30 },
      as("clementine", at),
      at,
    ),
  );
  const shop = () => vaults.get("Shop & Tickets")!;
  plan.at(now - 12 * DAY, (at) => setRounds.execute(app, { vaultId: shop(), months: 6 }, as("bram", at), at));
  plan.at(now - 11 * DAY, async (at) => {
    const by = as("bram", at);
    await startRound.execute(app, { vaultId: shop() }, by, at);
    const { lines } = await roundPage.execute(app, { vaultId: shop() }, by, at);
    for (const [i, { grantId, reviewer }] of lines.entries()) {
      const other = PEOPLE.find(({ name }) => name === reviewer);
      const answers = other ? as(other.key, at) : by;
      await answerInRound.execute(app, { vaultId: shop(), grantId, say: "confirmed" }, answers, at + i * 20_000);
    }
    await finishRound.execute(app, { vaultId: shop() }, by, at + 600_000);
  });
  plan.at(now - 1.5 * DAY, (at) =>
    startRound.execute(app, { vaultId: vaults.get("Press & Publishing")! }, as("wilhelmina", at), at),
  );
}

/** Sign-ins, a reveal, a change: what a few weeks leave behind. */
function useIt(plan: Plan, app: Galtry, { people, entries }: Built, as: As, now: number): void {
  const lanyards = new Map<string, string>();
  for (const [i, key] of ["maren", "ada", "ines", "bram", "tobias", "harriet"].entries())
    plan.at(now - 25 * DAY + i * HOUR, async (at) => {
      const { deviceCode, userCode } = await startPairing.execute(
        app,
        { browser: "Chromium on Linux", version: "0.1.0", thumbprint: `demo-${key}` },
        nobody,
        at,
      );
      await confirmPairing.execute(app, { userCode }, as(key, at), at + 1000);
      const taken = await takeToken.execute(app, { deviceCode, thumbprint: `demo-${key}` }, nobody, at + 2000);
      if (taken.state === "connected") lanyards.set(key, taken.lanyardId);
    });
  const visit = (key: string, host: string, days: number, outcome: SignInOutcome = "signed-in") =>
    plan.at(now - days * DAY, async (at) => {
      const caller: Caller = {
        kind: "lanyard",
        personId: people.get(key)!,
        lanyardId: lanyards.get(key)!,
        address: "127.0.0.1",
        browser: "Chromium",
        language: "en-GB",
      };
      const entryId = entries.get(host)!;
      const begun = await beginSignIn.execute(app, { entryId }, caller, at);
      if (begun.begun)
        await handOver.execute(app, { signInId: begun.signInId, outcome, detail: "", jar: null }, caller, at + 900);
    });
  visit("ines", "quillbrook.localhost", 21);
  visit("bram", "stallwright.localhost", 18);
  visit("maren", "quillbrook.localhost", 16);
  visit("ada", "elmsworth.localhost", 14);
  visit("maren", "hallslate.localhost", 9);
  visit("harriet", "thornlea.localhost", 8);
  visit("tobias", "hallslate.localhost", 6);
  visit("ada", "wexcombe.localhost", 5);
  visit("maren", "quillbrook.localhost", 4);
  visit("bram", "lindenfold.localhost", 3);
  visit("bram", "peltonhay.localhost", 2.5, "site-down");
  visit("maren", "hallslate.localhost", 2);
  visit("ada", "elmsworth.localhost", 1.2);
  visit("maren", "schools.pellam.localhost", 1.1);
  visit("tobias", "tilbrook.localhost", 0.8, "came-back");
  const reveal = (key: string, host: string, days: number) =>
    plan.at(now - days * DAY, (at) =>
      revealField.execute(app, { entryId: entries.get(host)!, field: "password", how: "revealed" }, as(key, at), at),
    );
  reveal("callum", "fennick.localhost", 14);
  reveal("bram", "stallwright.localhost", 3.2);
  for (const host of ["hallslate.localhost", "quillbrook.localhost"])
    plan.at(now - 1.9 * DAY, (at) =>
      pinEntry.execute(app, { entryId: entries.get(host)!, pinned: true }, as("maren", at), at),
    );
  // The browsers of a sample are nobody's: what they had is ended again.
  plan.at(now - HOUR, async (at) => {
    for (const [key, lanyardId] of lanyards)
      await endLanyard.execute(app, { lanyardId, why: "end of the sample" }, as(key, at), at);
  });
}
