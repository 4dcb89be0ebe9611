/** Sign-in steps of an entry: shown, changed, learned by Lanyard, and brought back as they were. */
import { isDeepStrictEqual } from "node:util";
import { and, desc, eq, notInArray } from "drizzle-orm";
import { z } from "zod";
import { hostOf } from "../../core/signin/address";
import { matches } from "../../core/signin/site";
import { NO_STEPS, type SignInSteps, stepsSchema } from "../../core/signin/steps";
import { monthsAfter } from "../../core/time";
import { peopleNames } from "../access/peopleNames";
import { stewardsAt } from "../access/stewards";
import { personIdOf } from "../caller";
import { type Context, command, idSchema, query } from "../command";
import { entries, signInTests, stepVersions } from "../database/schema";
import { uuidv7At } from "../ids";
import { loadRules, timeZone } from "../organisation";
import { notFound, Refused } from "../refused";
import { ANY_STEWARD } from "../signin/askedCodes";
import { lastChange } from "../signin/passwordChanges";
import { requireEntry } from "./entries";
import { lastSignIn } from "./entryPage";
import { requireRevealGates } from "./revealGates";
import { steps as t } from "./strings";
import { currentVersion, type EntryRow } from "./writing";

/** More than anybody looks through. */
const MOST_VERSIONS = 30;

type Allowed = Awaited<ReturnType<typeof requireEntry>>;
type Changing = Pick<Context<unknown>, "tx" | "at" | "caller">;

/** Hosts and pages say where the password goes, and the page that signs out gets the session: as a reveal. */
async function requireMayChange(
  context: Pick<Context<unknown>, "tx" | "me" | "at" | "caller">,
  allowed: Allowed,
  steps: SignInSteps,
): Promise<Allowed> {
  if (!isDeepStrictEqual(steps, allowed.entry.steps)) await requireRevealGates(context, allowed);
  return allowed;
}

async function write(
  { tx, at, caller }: Changing,
  entry: EntryRow,
  steps: SignInSteps,
  how: "learned" | "edited" | "restored",
): Promise<void> {
  if (isDeepStrictEqual(steps, entry.steps)) return;
  const [any] = await tx
    .select({ id: stepVersions.id })
    .from(stepVersions)
    .where(eq(stepVersions.entryId, entry.nodeId))
    .limit(1);
  // What came with the entry is the first of them.
  if (!any && !isDeepStrictEqual(entry.steps, NO_STEPS) && entry.createdBy !== "outside")
    await tx.insert(stepVersions).values({
      ...{ id: uuidv7At(entry.createdAt), entryId: entry.nodeId, steps: entry.steps, how: "learned" },
      ...{ at: entry.createdAt, by: entry.createdBy },
    });
  const by = personIdOf(caller as Extract<Context<unknown>["caller"], { personId: string }>);
  await tx.insert(stepVersions).values({ id: uuidv7At(at), entryId: entry.nodeId, steps, how, at, by });
  await tx.update(entries).set({ steps, signInEngine: null }).where(eq(entries.nodeId, entry.nodeId));
  const kept = tx
    .select({ id: stepVersions.id })
    .from(stepVersions)
    .where(eq(stepVersions.entryId, entry.nodeId))
    .orderBy(desc(stepVersions.at), desc(stepVersions.id))
    .limit(MOST_VERSIONS);
  await tx.delete(stepVersions).where(and(eq(stepVersions.entryId, entry.nodeId), notInArray(stepVersions.id, kept)));
}

const journalOf = (allowed: Allowed) => ({
  node: allowed.entry.nodeId,
  vault: allowed.vaultId,
  names: { [allowed.entry.nodeId]: allowed.entry.name },
});

/** How an entry is signed in to: its steps now and before, and what the last test found. */
export const stepsPage = query({
  name: "vaults.stepsPage",
  input: z.strictObject({ entryId: idSchema }),
  by: ["person"],
  allow: (context) => requireEntry(context, context.input.entryId, "edit"),
  run: async ({ tx, me, at, app, input: { entryId }, allowed: { entry, level } }) => {
    if (entry.signInPage === "") throw notFound();
    const [version, versions, [test]] = await Promise.all([
      currentVersion(tx, entry),
      tx
        .select()
        .from(stepVersions)
        .where(eq(stepVersions.entryId, entryId))
        .orderBy(desc(stepVersions.at), desc(stepVersions.id))
        .limit(MOST_VERSIONS),
      tx.select().from(signInTests).where(eq(signInTests.entryId, entryId)),
    ]);
    const [change, { changeEvery }] = await Promise.all([lastChange(tx, entryId), loadRules(tx)]);
    const people = [...(test?.by ? [test.by] : []), ...(change ? [change.personId] : [])];
    const named = await peopleNames(tx, me, [...versions.map(({ by }) => by), ...people]);
    return {
      id: entryId,
      name: entry.name,
      signInPage: entry.signInPage,
      level,
      steps: entry.steps,
      engine: entry.signInEngine,
      guardedFill: entry.guardedFill,
      plainHttp: entry.plainHttp,
      filling: entry.filling,
      inUse: entry.asideAt === null,
      refused: version.refusedAt !== null,
      hasCode: entry.hasCode,
      codesReach: level === "steward" || entry.codesReach === "" ? entry.codesReach : ANY_STEWARD,
      /** Who could receive the codes that the site sends. */
      stewards: level === "steward" ? (await stewardsAt(tx, entryId, at)).map(({ id, name }) => ({ id, name })) : [],
      /** Whether this Galtry has a browser of its own. */
      browser: app.signInBrowser !== undefined,
      last: await lastSignIn(tx, entry, me.id, level),
      zone: await timeZone(tx),
      versions: versions.map(({ by, ...row }) => ({ ...row, by: named(by) })),
      /** Where its password is changed at the site, as far as that is known. */
      changePage: change?.page || entry.changePage,
      /** How Galtry's last change of the password at its site ended; null where it never tried. */
      change: change && {
        ...{ outcome: change.outcome, detail: change.detail, at: change.at, by: named(change.personId) },
        /** It is to be decided which of the two passwords works. */
        open: Boolean(change.open),
        running: Boolean(change.running),
      },
      /** Whether the house rule that changes passwords regularly is for it: months, and when its turn comes. */
      regularly: {
        ...{ chosen: entry.changedRegularly, every: changeEvery, asksFirst: entry.asksFirst > 0 },
        next: changeEvery === null ? null : Math.max(at, monthsAfter(version.createdAt, changeEvery)),
      },
      test: test
        ? {
            ...{ at: test.at, outcome: test.outcome, detail: test.detail, pages: test.pages },
            by: test.by === null ? null : named(test.by),
            picture: test.picture !== null,
            /** What was tested is not what would be sent now. */
            older: test.versionId !== entry.versionId,
          }
        : null,
    };
  },
});

/** Hosts a sign-in passes through, choices it makes, pages it goes over, where it signs out. */
export const changeSteps = command({
  name: "vaults.changeSteps",
  input: z.strictObject({ entryId: idSchema, steps: stepsSchema }),
  by: ["person"],
  allow: async (context) =>
    requireMayChange(context, await requireEntry(context, context.input.entryId, "edit"), context.input.steps),
  run: (context) => write(context, context.allowed.entry, context.input.steps, "edited"),
  journal: ({ input: { steps }, allowed }) => ({
    ...journalOf(allowed),
    details: { hosts: steps.hosts.length, choices: Object.keys(steps.choices).length, pages: steps.pages.length },
  }),
  says: ({ it }) => `changed the sign-in steps of ${it}`,
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`],
});

/** What Lanyard learned while a person with Edit signed in to the site by hand. */
export const learnSteps = command({
  name: "vaults.learnSteps",
  input: z.strictObject({
    entryId: idSchema,
    pages: stepsSchema.shape.pages.unwrap(),
    lands: stepsSchema.shape.lands.unwrap(),
    choices: stepsSchema.shape.choices.unwrap(),
    /** Hosts beside the entry's own that its pages lie on: the person has said yes to each. */
    hosts: stepsSchema.shape.hosts.unwrap(),
  }),
  by: ["person", "lanyard"],
  allow: async (context) => {
    const { entryId, ...learned } = context.input;
    const allowed = await requireEntry(context, entryId, "edit");
    if (learned.pages.length === 0) throw new Refused("conflict", t.nothingWasLearned);
    const { entry } = allowed;
    const { steps } = entry;
    const hosts = [...new Set([...steps.hosts, ...learned.hosts])];
    const addresses = learned.pages.flatMap(({ page, sends }) => [page, ...(sends ? [sends.to] : [])]);
    const strange = addresses.find((one) => !matches(entry, one) && !hosts.includes(hostOf(one) ?? ""));
    if (strange) throw new Refused("not-allowed", t.isNotOfThisEntry(hostOf(strange) ?? ""));
    const after = {
      ...steps,
      pages: learned.pages,
      lands: learned.lands,
      hosts,
      choices: { ...steps.choices, ...learned.choices },
    };
    return { ...(await requireMayChange(context, allowed, after)), after };
  },
  run: (context) => write(context, context.allowed.entry, context.allowed.after, "learned"),
  journal: ({ input, allowed }) => ({ ...journalOf(allowed), details: { pages: input.pages.length } }),
  says: ({ it }) => `had Lanyard learn the sign-in steps of ${it}`,
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`],
});

/** Steps as they once were, in force again. */
export const restoreSteps = command({
  name: "vaults.restoreSteps",
  input: z.strictObject({ entryId: idSchema, versionId: idSchema }),
  by: ["person"],
  allow: async (context) => {
    const { tx, input } = context;
    const allowed = await requireEntry(context, input.entryId, "edit");
    const [version] = await tx
      .select()
      .from(stepVersions)
      .where(and(eq(stepVersions.id, input.versionId), eq(stepVersions.entryId, input.entryId)));
    if (!version) throw notFound();
    return { ...(await requireMayChange(context, allowed, version.steps)), version };
  },
  run: (context) => write(context, context.allowed.entry, context.allowed.version.steps, "restored"),
  journal: ({ allowed }) => ({ ...journalOf(allowed), details: { from: allowed.version.at } }),
  says: ({ it }) => `restored earlier sign-in steps of ${it}`,
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`],
});
