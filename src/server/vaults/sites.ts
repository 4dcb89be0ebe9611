/** Sites we use: the organisation's ready starts for new entries. Administrators keep the list; all staff begin from it. */

import { eq, sql } from "drizzle-orm";
import { z } from "zod";
import { readPasswordRules } from "../../core/generator/passwordRules";
import { fieldOf, SIGN_IN_PAGE } from "../../core/kinds/kind";
import { hostOf } from "../../core/signin/address";
import { siteOf, wholeAddress } from "../../core/signin/site";
import { sortByName } from "../byName";
import { isAdministrator, personIdOf } from "../caller";
import { command, idSchema, nameSchema, none, query } from "../command";
import { onceIn, type Reader, type Transaction } from "../database/client";
import { sites } from "../database/schema";
import { uuidv7 } from "../ids";
import { requireAdministrator } from "../people/administrators";
import { notFound, Refused } from "../refused";
import { lookAgainAt } from "../upkeep/lookingAgain";
import { kindOf } from "./kinds";
import { sites as t } from "./strings";

const MOST = 2000;

const readable = <T>(read: (text: string) => T) =>
  z.string().superRefine((text, context) => {
    if (text.trim() === "") return;
    try {
      read(text);
    } catch (error) {
      context.addIssue({
        code: "custom",
        message: error instanceof RangeError ? error.message : t.thisCannotBeUnderstood,
      });
    }
  });

const siteSchema = z.strictObject({
  name: nameSchema,
  signInPage: readable(wholeAddress).max(2000),
  kind: z.string().min(1).max(64).default("website-login"),
  hint: z.string().trim().max(300, t.aHintHasAtMost300Characters).default(""),
  passwordRules: readable(readPasswordRules).max(500, t.rulesHaveAtMost500Characters).default(""),
  offersCodes: z.boolean().default(false),
});

/** A guest adds to a folder they were asked into, and has no need to know what the organisation uses. */
export const siteList = query({
  name: "vaults.siteList",
  input: none,
  by: ["person"],
  allow: ({ me }) => {
    if (me.guest) throw notFound();
  },
  run: async ({ tx, role }) => ({
    sites: sortByName((await tx.select().from(sites)).map(({ createdAt: _, createdBy: __, ...site }) => site)),
    mayChange: role !== null && isAdministrator(role),
  }),
});

async function toRow(tx: Reader, input: z.output<typeof siteSchema>) {
  const kind = await kindOf(tx, input.kind);
  const page = fieldOf(kind, SIGN_IN_PAGE);
  if (page && input.signInPage.trim() === "" && page.required)
    throw new Refused("bad-input", t.enterTheAddressOfTheSignIn, "site.signInPage");
  return { ...input, signInPage: page && input.signInPage.trim() !== "" ? wholeAddress(input.signInPage) : "" };
}

/** Entries that sign in at these sites: whether a one-time code is missing there is looked at anew. */
async function lookAtEntriesOf(tx: Transaction, pages: readonly string[]): Promise<void> {
  const domains = JSON.stringify([...new Set(pages.map(domainOf))].filter(Boolean));
  await lookAgainAt(tx, sql`select node_id from entries where site in (select value from json_each(${domains}))`);
}

/** Registrable domain of a page; empty for what is no address. */
const domainOf = (page: string): string => siteOf(hostOf(page) ?? "");

/** Registrable domains of the sites that are known to offer one-time codes. */
export const sitesWithCodes = (tx: Reader): Promise<ReadonlySet<string>> =>
  onceIn(tx, "sites with codes", async () => {
    const rows = await tx.select({ page: sites.signInPage }).from(sites).where(eq(sites.offersCodes, true));
    return new Set(rows.map(({ page }) => domainOf(page)).filter(Boolean));
  });

/** Adds one, or changes one. */
export const saveSite = command({
  name: "vaults.saveSite",
  input: z.strictObject({ siteId: idSchema.optional(), site: siteSchema }),
  by: ["person"],
  allow: async (context) => {
    requireAdministrator(context, t.onlyAnAdministratorCanChange);
    const all = await context.tx.select({ id: sites.id }).from(sites);
    if (context.input.siteId && !all.some((row) => row.id === context.input.siteId)) throw notFound();
    if (!context.input.siteId && all.length >= MOST) throw new Refused("bad-input", t.atMostSites(MOST));
  },
  run: async ({ tx, input, caller, at }) => {
    const row = await toRow(tx, input.site);
    const siteId = input.siteId ?? uuidv7();
    const [before] = await tx.select().from(sites).where(eq(sites.id, siteId));
    if (row.offersCodes || before?.offersCodes) await lookAtEntriesOf(tx, [row.signInPage, before?.signInPage ?? ""]);
    if (input.siteId) await tx.update(sites).set(row).where(eq(sites.id, siteId));
    else await tx.insert(sites).values({ id: siteId, ...row, createdAt: at, createdBy: personIdOf(caller) });
    return { siteId };
  },
  journal: ({ input, result }) => ({
    subject: result.siteId,
    details: { new: input.siteId === undefined },
    names: { [result.siteId]: input.site.name },
  }),
  says: ({ details, subject }) =>
    details.new ? `added ${subject} to the sites we use` : `changed ${subject} in the sites we use`,
  tell: () => ["everyone"],
});

export const removeSite = command({
  name: "vaults.removeSite",
  input: z.strictObject({ siteId: idSchema }),
  by: ["person"],
  allow: async (context) => {
    requireAdministrator(context, t.onlyAnAdministratorCanChange);
    const [row] = await context.tx.select().from(sites).where(eq(sites.id, context.input.siteId));
    if (!row) throw notFound();
    return row;
  },
  run: async ({ tx, input, allowed }) => {
    if (allowed.offersCodes) await lookAtEntriesOf(tx, [allowed.signInPage]);
    await tx.delete(sites).where(eq(sites.id, input.siteId));
  },
  journal: ({ input, allowed }) => ({ subject: input.siteId, names: { [input.siteId]: allowed.name } }),
  says: ({ subject }) => `removed ${subject} from the sites we use`,
  tell: () => ["everyone"],
});
