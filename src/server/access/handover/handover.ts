/**
 * Handover links: a copy of chosen values of an entry, as they are at that moment, for somebody outside. The copy is
 * sealed under a fresh key that is given out once, in the link, and kept nowhere: the database alone does not open it.
 * A button must be pressed, so that a robot that looks at links uses nothing up; it binds the link to that browser for
 * ten minutes, in which a lost answer can be fetched again. Bound to a mail address, it opens with a code that goes there.
 */
import { randomInt } from "node:crypto";
import { and, desc, eq, isNotNull } from "drizzle-orm";
import { z } from "zod";
import { KEY_LENGTH, randomBytes, seal, toBase64, toBase64Url, utf8 } from "../../../core/crypto/index";
import { CODE, fieldWord, SIGN_IN_PAGE } from "../../../core/kinds/kind";
import { command, idSchema, query } from "../../command";
import type { Reader } from "../../database/client";
import { entries, handovers, mails, OUTSIDE, persons, places } from "../../database/schema";
import { uuidv7 } from "../../ids";
import type { KeyRing } from "../../keys/keyFile";
import { letterOf } from "../../mail/letter";
import { queueMail } from "../../mail/queue";
import { loadHome, loadRules } from "../../organisation";
import { hashPassword, verifyPassword } from "../../people/password";
import { addNotice } from "../../people/telling";
import { newToken, tokenHash } from "../../people/tokens";
import { notFound, Refused } from "../../refused";
import { fieldsOf } from "../../vaults/composing";
import { requireEntry } from "../../vaults/entries";
import { kindOf } from "../../vaults/kinds";
import { requireRevealGates } from "../../vaults/revealGates";
import { fingerprint } from "../../vaults/sealing";
import { openValues } from "../../vaults/vaultKeys";
import { currentVersion, type EntryRow, noteSighting } from "../../vaults/writing";
import { nodeName } from "../nodeName";
import { loadPerson } from "../person";
import { handover as t } from "../strings";

/** A passphrase as it is said on the telephone: nobody says which letters are capitals, or how many spaces. */
const asSpoken = (typed: string): string => typed.normalize("NFKC").trim().replace(/\s+/g, " ").toLowerCase();
const spokenSchema = z.string().trim().max(100).default("");

/** Links of an older Galtry have the passphrase as it was typed. */
const isWord = async (hash: string, typed: string): Promise<boolean> =>
  (await verifyPassword(hash, asSpoken(typed))) || (typed !== asSpoken(typed) && (await verifyPassword(hash, typed)));

const BOUND_MS = 10 * 60_000;
const LONGEST_MS = 90 * 86_400_000;
const MOST_WRONG = 5;
/** A code is good for so long, in the browser that asked for it. */
const CODE_MS = 10 * 60_000;
const CODE_AGAIN_MS = 30_000;
/** So many codes of one link are mailed at most: its address is nobody's way to fill somebody's mailbox. */
const MOST_CODES = 12;

type Handover = typeof handovers.$inferSelect;

export type HandoverEnd = "withdrawn" | "closed" | "expired" | "opened" | "gone";

/** What is in the copy; sealed as JSON, bound to the id of the link. */
export interface HandedOver {
  name: string;
  fields: { label: string; value: string; class: "open" | "identifier" | "secret" }[];
}

export const handoverBinding = (tokenHashed: string) => ["handover", tokenHashed] as const;

export const createHandover = command({
  name: "access.createHandover",
  input: z.strictObject({
    entryId: idSchema,
    fields: z.array(z.string().min(1).max(80)).min(1, t.chooseWhatToHandOver).max(60),
    until: z.number().int(),
    openings: z.number().int().min(1).max(20),
    word: spokenSchema,
    mailTo: z.union([z.literal(""), z.email(t.thisIsNotAnEmailAddress).max(254)]).default(""),
  }),
  by: ["person"],
  mayPrepare: (context) => requireEntry(context, context.input.entryId, "reveal"),
  prepare: async ({ input }) => (input.word === "" ? null : await hashPassword(asSpoken(input.word))),
  allow: async (context) => {
    const { input, at } = context;
    const { makes } = await loadRules(context.tx);
    const allowed = await requireEntry(context, input.entryId, makes.handovers === "reveal" ? "reveal" : "steward");
    if (makes.handovers === "nobody") throw new Refused("not-allowed", t.theHouseRulesDoNotAllow);
    await requireRevealGates(context, allowed);
    if (input.mailTo !== "" && !context.app.configuration.mail)
      throw new Refused("bad-input", t.thisGaltryCannotSendEmailNo, "mailTo");
    if (input.until <= at) throw new Refused("bad-input", t.theEndDateIsInThePast, "until");
    if (input.until > at + LONGEST_MS) throw new Refused("bad-input", t.aLinkCanLastAtMost90, "until");
    return allowed;
  },
  run: async ({ tx, input, at, me, app, prepared, allowed }) => {
    const { entry, vaultId } = allowed;
    const kind = await kindOf(tx, entry.kind);
    const hidden = fieldsOf(await openValues(tx, app.keys, await currentVersion(tx, entry)));
    const copy: HandedOver = { name: entry.name, fields: [] };
    const secrets: string[] = [];
    for (const id of new Set(input.fields)) {
      const found = handedField(entry, kind, hidden, id);
      if (!found) throw new Refused("bad-input", t.oneOfTheseIsEmptyOrNo, "fields");
      copy.fields.push(found);
      if (found.class === "secret") secrets.push(id);
    }
    const token = newToken();
    const hashed = tokenHash(token);
    const key = randomBytes(KEY_LENGTH);
    const sealed = await seal(key, utf8(JSON.stringify(copy)), handoverBinding(hashed));
    const marks = secrets.map((field) => ({ field, mark: fingerprint(app.keys, field, hidden[field]!) }));
    await tx.insert(handovers).values({
      ...{ id: uuidv7(), tokenHash: hashed, entryId: input.entryId, vaultId, makerId: me.id },
      ...{ labels: copy.fields.map(({ label }) => label), marks, sealed: Buffer.from(sealed), wordHash: prepared },
      ...{ madeAt: at, expiresAt: input.until, openings: input.openings, mailTo: input.mailTo || null },
    });
    const address = new URL("/handover", app.configuration.publicUrl);
    address.hash = `${token}.${toBase64Url(key)}`;
    return { address: address.href, labels: copy.fields.map(({ label }) => label) };
  },
  journal: ({ input, result, allowed }) => ({
    node: input.entryId,
    vault: allowed.vaultId,
    details: {
      fields: result.labels.join(", "),
      until: input.until,
      openings: input.openings,
      word: input.word !== "",
      ...(input.mailTo && { mailTo: input.mailTo }),
    },
    names: { [input.entryId]: allowed.entry.name },
  }),
  says: ({ details, place, until }) =>
    `created a handover link${place("for")} with ${details.fields}${until}${details.mailTo ? `, to be opened with a code sent to ${details.mailTo}` : ""}`,
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`],
});

function handedField(
  entry: EntryRow,
  kind: Awaited<ReturnType<typeof kindOf>>,
  hidden: Record<string, string>,
  id: string,
): HandedOver["fields"][number] | null {
  // A one-time code is over before anybody reads it, and what makes codes is not handed over.
  if (id === CODE) return null;
  const extra = entry.extras.find((one) => `extra:${one.id}` === id);
  const field = kind.fields.find((one) => one.id === id);
  const value =
    id === SIGN_IN_PAGE
      ? entry.signInPage
      : Object.hasOwn(hidden, id)
        ? hidden[id]
        : (extra?.value ?? entry.fields[id]);
  const kept = extra?.class ?? field?.class;
  if (!value || !kept) return null;
  return { label: extra?.label ?? fieldWord(kind, id), value, class: kept };
}

/** Why a link opens nothing any more; null while it does. */
async function endOf(tx: Reader, row: Handover, at: number): Promise<HandoverEnd | null> {
  if (row.withdrawnAt !== null) return "withdrawn";
  if (row.wrongWords >= MOST_WRONG) return "closed";
  if (row.expiresAt <= at) return "expired";
  const [entry] = await tx
    .select({ binnedAt: entries.binnedAt, vaultId: places.vaultId, until: places.validUntil })
    .from(entries)
    .innerJoin(places, eq(places.nodeId, entries.nodeId))
    .where(and(eq(entries.nodeId, row.entryId), eq(places.vaultId, row.vaultId)))
    .orderBy(desc(places.validFrom))
    .limit(1);
  const maker = await loadPerson(tx, row.makerId, at);
  if (!entry || entry.until !== null || entry.binnedAt !== null || maker?.standing !== "active") return "gone";
  const last = row.openedAt.at(-1) ?? 0;
  return row.openedAt.length >= row.openings && at - last > BOUND_MS ? "opened" : null;
}

const byToken = async (tx: Reader, token: string): Promise<Handover | undefined> =>
  (
    await tx
      .select()
      .from(handovers)
      .where(eq(handovers.tokenHash, tokenHash(token)))
  )[0];

const tokenSchema = z.string().min(20).max(80);
const openerSchema = z.string().min(20).max(80);

/** What a link says before it is opened: from whom, until when, whether a word is needed, when it was opened. */
export const lookAtHandover = query({
  name: "access.lookAtHandover",
  input: z.strictObject({ token: tokenSchema, opener: openerSchema }),
  by: ["nobody", "person"],
  allow: () => undefined,
  run: async ({ tx, input, at }) => {
    const row = await byToken(tx, input.token);
    if (!row) throw notFound();
    const home = await loadHome(tx);
    const [maker] = await tx.select({ name: persons.name }).from(persons).where(eq(persons.id, row.makerId));
    const end = await endOf(tx, row, at);
    return {
      organisation: home.name,
      from: maker?.name ?? "",
      end,
      /** Taken by another browser, and no opening is left. */
      taken: end === null && row.openedAt.length >= row.openings && !isOpener(row, input.opener, at),
      needsWord: row.wordHash !== null,
      /** Opens with a code that is mailed; how it went with the latest one. */
      needsCode: row.mailTo !== null && !isOpener(row, input.opener, at),
      code: await codeState(tx, row),
      triesLeft: MOST_WRONG - row.wrongWords,
      expiresAt: row.expiresAt,
      openedAt: row.openedAt,
      zone: home.zone,
    };
  },
});

/** Null while none was asked for. */
async function codeState(tx: Reader, row: Handover): Promise<"on its way" | "sent" | "failed" | null> {
  if (!row.codeMailId) return null;
  const [mail] = await tx
    .select({ sentAt: mails.sentAt, failedAt: mails.failedAt })
    .from(mails)
    .where(eq(mails.id, row.codeMailId));
  return mail?.failedAt ? "failed" : mail?.sentAt || !mail ? "sent" : "on its way";
}

/** Bound to the link and to the browser: the same digits are of no use in another. */
const codeMark = (keys: KeyRing, row: Handover, opener: string, code: string) =>
  fingerprint(keys, "handover code", `${row.id} ${tokenHash(opener)} ${code}`);

/** Whoever may still open it with the right word and code, or again; else why not. */
async function requireOpenable(tx: Reader, input: { token: string; opener: string }, at: number) {
  const row = await byToken(tx, input.token);
  if (!row) throw notFound();
  const end = await endOf(tx, row, at);
  if (end !== null || !row.sealed) throw new Refused("ended", ENDED[end ?? "opened"]);
  const again = isOpener(row, input.opener, at);
  if (!again && row.openedAt.length >= row.openings) throw new Refused("ended", ENDED.opened);
  return { row, again, name: await nodeName(tx, row.entryId) };
}

/** Mails a code to whom the link is for; it works in the browser that asked for it. */
export const sendHandoverCode = command({
  name: "access.sendHandoverCode",
  input: z.strictObject({ token: tokenSchema, opener: openerSchema }),
  by: ["nobody", "person"],
  allow: async ({ tx, input, at }) => {
    const found = await requireOpenable(tx, input, at);
    const { mailTo, codesAt } = found.row;
    if (!mailTo) throw new Refused("conflict", t.thisLinkDoesNotRequireACode);
    if (at - (codesAt.at(-1) ?? 0) < CODE_AGAIN_MS) throw new Refused("too-many", t.aCodeHasJustBeenSentYou);
    if (codesAt.length >= MOST_CODES) throw new Refused("too-many", t.tooManyCodesWereRequestedThis);
    return { ...found, mailTo };
  },
  run: async ({ tx, input, at, app, allowed: { row, mailTo } }) => {
    const code = String(randomInt(1_000_000)).padStart(6, "0");
    const home = await loadHome(tx);
    const [maker] = await tx.select({ name: persons.name }).from(persons).where(eq(persons.id, row.makerId));
    const from = maker?.name ?? "somebody";
    const codeMailId = await queueMail(
      tx,
      app.keys,
      {
        to: mailTo,
        subject: t.aCodeFrom(home.name),
        body: letterOf({
          organisation: home.name,
          paragraphs: [`${code.slice(0, 3)} ${code.slice(3)}`, t.thisCodeOpensTheHandoverLink(from, home.name)],
          act: null,
          after: [t.ifYouDidNotAskForA(from)],
        }),
        ...{ until: at + CODE_MS, makerId: row.makerId, nodeId: row.entryId },
      },
      at,
    );
    await tx
      .update(handovers)
      .set({ codesAt: [...row.codesAt, at], codeMark: codeMark(app.keys, row, input.opener, code), codeMailId })
      .where(eq(handovers.id, row.id));
  },
  journal: ({ allowed }) => ({
    node: allowed.row.entryId,
    vault: allowed.row.vaultId,
    details: { to: allowed.mailTo },
    names: { [allowed.row.entryId]: allowed.name },
  }),
  says: ({ details, place }) => `recorded that a code for a handover link${place("for")} was sent to ${details.to}`,
  tell: ({ allowed }) => [`person:${allowed.row.makerId}`, `vault:${allowed.row.vaultId}`],
});

const isOpener = (row: Handover, opener: string, at: number): boolean =>
  row.opener === tokenHash(opener) && at - (row.openedAt.at(-1) ?? 0) <= BOUND_MS;

/** Gives the sealed copy to the browser whose button was pressed; the key is in its address and never comes here. */
export const openHandover = command({
  name: "access.openHandover",
  input: z.strictObject({
    token: tokenSchema,
    opener: openerSchema,
    word: spokenSchema,
    code: z
      .string()
      .max(20)
      .default("")
      .transform((typed) => typed.replace(/\D/g, "")),
  }),
  by: ["nobody", "person"],
  prepare: async ({ input, app }) => {
    const row = await byToken(app.db, input.token);
    // Of what has ended nothing is compared any more.
    return row?.wordHash && row.sealed ? await isWord(row.wordHash, input.word) : true;
  },
  allow: async ({ tx, input, at }) => {
    const found = await requireOpenable(tx, input, at);
    const asked = found.row.codesAt.at(-1);
    if (found.row.mailTo && !found.again && !(found.row.codeMark && asked && at - asked <= CODE_MS))
      throw new Refused("bad-input", t.noCodeIsValidAnyMoreSend, "code");
    return found;
  },
  // What is given back goes outside: the copy, if it is opened, and nothing else of the row.
  run: async ({ tx, input, at, app, prepared: rightWord, allowed: { row, again, name } }) => {
    const rightCode = !row.mailTo || again || codeMark(app.keys, row, input.opener, input.code) === row.codeMark;
    if (!rightWord || !rightCode) {
      const wrongWords = row.wrongWords + 1;
      await tx.update(handovers).set({ wrongWords }).where(eq(handovers.id, row.id));
      if (wrongWords >= MOST_WRONG) {
        await tx.update(handovers).set({ sealed: null }).where(eq(handovers.id, row.id));
        await addNotice(tx, {
          to: row.makerId,
          at,
          sort: "watch",
          text: t.aHandoverLinkOfWasClosedAfter(name, MOST_WRONG),
          nodeId: row.entryId,
        });
      }
      return { opened: null, triesLeft: MOST_WRONG - wrongWords };
    }
    if (!again) {
      const openedAt = [...row.openedAt, at];
      await tx
        .update(handovers)
        .set({ openedAt, opener: tokenHash(input.opener), codeMark: null })
        .where(eq(handovers.id, row.id));
      for (const { field, mark } of row.marks)
        await noteSighting(tx, { entryId: row.entryId, field, mark, personId: OUTSIDE, at, how: "handed over" });
      await addNotice(tx, {
        to: row.makerId,
        at,
        sort: "watch",
        text: t.aHandoverLinkOfWasOpened(name),
        nodeId: row.entryId,
      });
    }
    return { opened: toBase64(row.sealed!), triesLeft: MOST_WRONG - row.wrongWords };
  },
  journal: ({ result, allowed }) =>
    allowed.again && result.opened
      ? null
      : {
          node: allowed.row.entryId,
          vault: allowed.row.vaultId,
          details: { opened: result.opened !== null, triesLeft: result.triesLeft },
          names: { [allowed.row.entryId]: allowed.name },
        },
  says: ({ details, place }) =>
    details.opened
      ? `recorded that a handover link${place("for")} was opened`
      : `recorded a wrong passphrase or code for a handover link${place("for")}`,
  tell: ({ allowed }) => [`person:${allowed.row.makerId}`, `vault:${allowed.row.vaultId}`],
});

const ENDED: Record<HandoverEnd, string> = {
  withdrawn: t.thisLinkWasWithdrawn,
  closed: t.thisLinkIsClosedAfterFiveWrong,
  expired: t.thisLinkHasExpired,
  opened: t.thisLinkHasAlreadyBeenOpened,
  gone: t.theEntryBehindThisLinkNoLonger,
};

export const withdrawHandover = command({
  name: "access.withdrawHandover",
  input: z.strictObject({ handoverId: idSchema }),
  by: ["person"],
  allow: async (context) => {
    const [row] = await context.tx.select().from(handovers).where(eq(handovers.id, context.input.handoverId));
    if (!row) throw notFound();
    const allowed = await requireEntry(context, row.entryId, row.makerId === context.me.id ? "reveal" : "steward");
    if (row.withdrawnAt !== null) throw new Refused("conflict", t.itHasAlreadyBeenWithdrawn);
    return { ...allowed, row };
  },
  run: async ({ tx, input, at }) => {
    await tx.update(handovers).set({ withdrawnAt: at, sealed: null }).where(eq(handovers.id, input.handoverId));
  },
  journal: ({ allowed }) => ({
    node: allowed.row.entryId,
    vault: allowed.vaultId,
    names: { [allowed.row.entryId]: allowed.entry.name },
  }),
  says: ({ place }) => `withdrew a handover link${place("for")}`,
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`],
});

/** The links of an entry, latest first: for its stewards all, for whoever made some of them those. */
export const handoverList = query({
  name: "access.handoverList",
  input: z.strictObject({ entryId: idSchema }),
  by: ["person"],
  allow: (context) => requireEntry(context, context.input.entryId, "reveal"),
  run: async ({ tx, input, me, at, app, allowed }) => {
    const all = allowed.level === "steward";
    const rows = await tx
      .select()
      .from(handovers)
      .where(and(eq(handovers.entryId, input.entryId), all ? undefined : eq(handovers.makerId, me.id)))
      .orderBy(desc(handovers.madeAt))
      .limit(20);
    const people = new Map((await tx.select().from(persons)).map(({ id, name }) => [id, name]));
    const links = await Promise.all(
      rows.map(async (row) => ({
        ...{ id: row.id, labels: row.labels, madeAt: row.madeAt, expiresAt: row.expiresAt, openings: row.openings },
        ...{ openedAt: row.openedAt, wrongWords: row.wrongWords, word: row.wordHash !== null, mailTo: row.mailTo },
        by: people.get(row.makerId) ?? "",
        end: await endOf(tx, row, at),
      })),
    );
    return { links, mails: app.configuration.mail !== null };
  },
});

/** What has ended is erased: only that it was, when, and by whom stays. */
export const sweepHandovers = command({
  name: "access.sweepHandovers",
  input: z.strictObject({}),
  by: ["server"],
  allow: () => undefined,
  run: async ({ tx, at }) => {
    let erased = 0;
    for (const row of await tx.select().from(handovers).where(isNotNull(handovers.sealed)))
      if ((await endOf(tx, row, at)) !== null) {
        await tx
          .update(handovers)
          .set({ sealed: null, wordHash: null, opener: null, codeMark: null })
          .where(eq(handovers.id, row.id));
        erased += 1;
      }
    return erased;
  },
  journal: null,
  tell: () => [],
});
