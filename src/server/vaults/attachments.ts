/**
 * Attachments: files kept with an entry, sealed in pieces of a mebibyte, so that a large one never stands in memory
 * whole. They travel as base64 in JSON: no answer of Galtry's is of a type that a browser would run.
 */
import { and, count, eq, isNotNull, isNull, lt } from "drizzle-orm";
import { z } from "zod";
import { atLeast } from "../../core/access";
import { hmac, sameBytes, toHex, utf8 } from "../../core/crypto";
import { fileTypeOf, safeFileName } from "../../core/formats/fileType";
import { PIECE_BYTES } from "../../core/pieces";
import type { Asking } from "../access/load";
import { personIdOf } from "../caller";
import { command, idSchema, query } from "../command";
import type { Reader } from "../database/client";
import { attachmentPieces, attachments } from "../database/schema";
import { uuidv7 } from "../ids";
import type { KeyRing } from "../keys/keyFile";
import { notFound, Refused } from "../refused";
import { requireEntry } from "./entries";
import { requireRevealGates } from "./revealGates";
import { openPiece, sealPiece } from "./sealing";
import { attachments as t } from "./strings";
import { vaultKey } from "./vaultKeys";

const MOST_AN_ENTRY = 50;

type Row = typeof attachments.$inferSelect;

/** What is kept with an entry; names and sizes, from Use up. */
export async function attachmentLines(tx: Reader, entryId: string) {
  return tx
    .select({
      id: attachments.id,
      name: attachments.name,
      type: attachments.type,
      size: attachments.size,
      pieces: attachments.pieces,
      at: attachments.createdAt,
      by: attachments.createdBy,
    })
    .from(attachments)
    .where(and(eq(attachments.entryId, entryId), isNotNull(attachments.completeAt)))
    .orderBy(attachments.createdAt);
}

export const beginAttachment = command({
  name: "vaults.beginAttachment",
  input: z.strictObject({
    entryId: idSchema,
    name: z.string().max(1000),
    size: z.number().int().min(1, t.thisFileIsEmpty),
  }),
  by: ["person"],
  allow: async (context) => {
    const allowed = await requireEntry(context, context.input.entryId, "edit");
    const most = context.app.configuration.attachmentBytes;
    if (context.input.size > most)
      throw new Refused("bad-input", t.aFileHasAtMostMbHere(Math.floor(most / 1024 / 1024)), "size");
    const [here] = await context.tx
      .select({ files: count() })
      .from(attachments)
      .where(eq(attachments.entryId, context.input.entryId));
    if (here!.files >= MOST_AN_ENTRY)
      throw new Refused("bad-input", t.anEntryHasAtMostAttachments(MOST_AN_ENTRY), "name");
    return allowed;
  },
  run: async ({ tx, input, caller, at, app, allowed }) => {
    const attachmentId = uuidv7();
    const { version } = await vaultKey(tx, app.keys, allowed.vaultId);
    const pieces = Math.ceil(input.size / PIECE_BYTES);
    await tx.insert(attachments).values({
      id: attachmentId,
      entryId: input.entryId,
      vaultId: allowed.vaultId,
      keyVersion: version,
      name: safeFileName(input.name),
      type: "other",
      size: input.size,
      pieces,
      createdAt: at,
      createdBy: personIdOf(caller),
    });
    return { attachmentId, pieces };
  },
  // It is there only once its last piece is: that is what the journal says.
  journal: null,
  tell: () => [],
});

/** Its beginner's own, not finished yet, on an entry that they may still change. */
async function requireBegun(context: Asking, attachmentId: string) {
  const [file] = await context.tx.select().from(attachments).where(eq(attachments.id, attachmentId));
  if (!file || file.createdBy !== context.me.id || file.completeAt !== null) throw notFound();
  const allowed = await requireEntry(context, file.entryId, "edit");
  if (allowed.vaultId !== file.vaultId) throw new Refused("conflict", t.theEntryHasBeenMovedToAnother);
  return { ...allowed, file };
}

const base64 = z.base64().max(Math.ceil((PIECE_BYTES * 4) / 3) + 4, t.aPieceHasAtMostOneMebibyte);

export const addPiece = command({
  name: "vaults.addPiece",
  input: z.strictObject({ attachmentId: idSchema, number: z.number().int().min(0).max(100_000), piece: base64 }),
  by: ["person"],
  prepare: async ({ input, caller, app }) => {
    const [file] = await app.db.select().from(attachments).where(eq(attachments.id, input.attachmentId));
    if (!file || file.createdBy !== personIdOf(caller)) return null;
    const bytes = Buffer.from(input.piece, "base64");
    const key = await vaultKey(app.db, app.keys, file.vaultId, file.keyVersion);
    const type = input.number === 0 ? fileTypeOf(bytes) : null;
    const sealed = await sealPiece(key, file, input.number, bytes);
    return { length: bytes.length, type, sealed, keyVersion: file.keyVersion };
  },
  allow: (context) => requireBegun(context, context.input.attachmentId),
  run: async ({ tx, input, allowed: { file }, prepared }) => {
    const last = input.number === file.pieces - 1;
    const length = last ? file.size - PIECE_BYTES * (file.pieces - 1) : PIECE_BYTES;
    const sealedForIt = prepared?.keyVersion === file.keyVersion;
    if (!prepared || !sealedForIt || input.number >= file.pieces || prepared.length !== length)
      throw new Refused("bad-input", t.theFileChangedWhileItWasBeing);
    await tx
      .insert(attachmentPieces)
      .values({ attachmentId: file.id, number: input.number, sealed: prepared.sealed })
      .onConflictDoUpdate({
        target: [attachmentPieces.attachmentId, attachmentPieces.number],
        set: { sealed: prepared.sealed },
      });
    if (prepared.type) await tx.update(attachments).set({ type: prepared.type }).where(eq(attachments.id, file.id));
  },
  journal: null,
  tell: () => [],
});

const lineOf = (file: Row, vaultId: string, entryName: string) => ({
  node: file.entryId,
  vault: vaultId,
  details: { file: file.name },
  names: { [file.entryId]: entryName },
});

export const finishAttachment = command({
  name: "vaults.finishAttachment",
  input: z.strictObject({ attachmentId: idSchema }),
  by: ["person"],
  allow: (context) => requireBegun(context, context.input.attachmentId),
  run: async ({ tx, at, allowed: { file } }) => {
    const [there] = await tx
      .select({ pieces: count() })
      .from(attachmentPieces)
      .where(eq(attachmentPieces.attachmentId, file.id));
    if (there!.pieces !== file.pieces) throw new Refused("conflict", t.someOfTheFileIsMissingAttach);
    await tx.update(attachments).set({ completeAt: at }).where(eq(attachments.id, file.id));
  },
  journal: ({ allowed }) => lineOf(allowed.file, allowed.vaultId, allowed.entry.name),
  says: ({ details, place }) => `attached “${details.file}”${place("to")}`,
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`],
});

/** By whoever attached it, or a steward. */
export const removeAttachment = command({
  name: "vaults.removeAttachment",
  input: z.strictObject({ attachmentId: idSchema }),
  by: ["person"],
  allow: async (context) => {
    const [file] = await context.tx.select().from(attachments).where(eq(attachments.id, context.input.attachmentId));
    if (!file) throw notFound();
    const allowed = await requireEntry(context, file.entryId, "edit");
    if (file.createdBy !== context.me.id && !atLeast(allowed.level, "steward"))
      throw new Refused("not-allowed", t.onlyThePersonWhoAttachedItOr);
    return { ...allowed, file };
  },
  run: async ({ tx, allowed: { file } }) => {
    await tx.delete(attachmentPieces).where(eq(attachmentPieces.attachmentId, file.id));
    await tx.delete(attachments).where(eq(attachments.id, file.id));
  },
  journal: ({ allowed }) =>
    allowed.file.completeAt === null ? null : lineOf(allowed.file, allowed.vaultId, allowed.entry.name),
  says: ({ details, place }) => `deleted the attachment “${details.file}”${place("of")}`,
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`],
});

const TICKET_MS = 10 * 60_000;

/** Says that opening was allowed and written down: pieces are given for it for ten minutes. */
const ticketFor = (keys: KeyRing, attachmentId: string, personId: string, until: number): string =>
  `${until}.${toHex(hmac(keys.fingerprints, utf8(["attachment ticket", attachmentId, personId, until].join("\u0000"))))}`;

export const openAttachment = command({
  name: "vaults.openAttachment",
  input: z.strictObject({ attachmentId: idSchema, how: z.enum(["opened", "saved"]) }),
  by: ["person"],
  allow: async (context) => {
    const [file] = await context.tx.select().from(attachments).where(eq(attachments.id, context.input.attachmentId));
    if (!file || file.completeAt === null) throw notFound();
    const allowed = await requireEntry(context, file.entryId, "reveal");
    await requireRevealGates(context, allowed);
    return { ...allowed, file };
  },
  run: async ({ at, caller, app, allowed: { file } }) => ({
    ticket: ticketFor(app.keys, file.id, personIdOf(caller), at + TICKET_MS),
    pieces: file.pieces,
    type: file.type,
    name: file.name,
  }),
  journal: ({ input, allowed }) => {
    const line = lineOf(allowed.file, allowed.vaultId, allowed.entry.name);
    return { ...line, details: { ...line.details, how: input.how } };
  },
  says: ({ details, place }) => `${details.how === "saved" ? "downloaded" : "opened"} “${details.file}”${place("of")}`,
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`],
});

/** One piece, as base64; asked for with the ticket that opening gave. */
export const attachmentPiece = query({
  name: "vaults.attachmentPiece",
  input: z.strictObject({ attachmentId: idSchema, number: z.number().int().min(0), ticket: z.string().max(200) }),
  by: ["person"],
  allow: async (context) => {
    const { tx, input, me, at, app } = context;
    const [file] = await tx.select().from(attachments).where(eq(attachments.id, input.attachmentId));
    if (!file || file.completeAt === null) throw notFound();
    await requireEntry(context, file.entryId, "reveal");
    const until = Number(input.ticket.split(".")[0]);
    const right = ticketFor(app.keys, file.id, me.id, until);
    if (!(until > at) || !sameBytes(utf8(right), utf8(input.ticket)))
      throw new Refused("not-allowed", t.openTheAttachmentAgainThisTook);
    return file;
  },
  run: async ({ tx, input, app, allowed: file }) => {
    const [piece] = await tx
      .select()
      .from(attachmentPieces)
      .where(and(eq(attachmentPieces.attachmentId, file.id), eq(attachmentPieces.number, input.number)));
    if (!piece) throw notFound();
    const key = await vaultKey(tx, app.keys, file.vaultId, piece.keyVersion ?? file.keyVersion);
    return { piece: Buffer.from(await openPiece(key, file, input.number, piece.sealed)).toString("base64") };
  },
});

const ABANDONED_MS = 24 * 3_600_000;

/** Those that were begun and never finished. */
export const sweepAttachments = command({
  name: "vaults.sweepAttachments",
  input: z.strictObject({}),
  by: ["server"],
  allow: () => undefined,
  run: async ({ tx, at }) => {
    const rows = await tx
      .delete(attachments)
      .where(and(isNull(attachments.completeAt), lt(attachments.createdAt, at - ABANDONED_MS)))
      .returning({ id: attachments.id });
    for (const { id } of rows) await tx.delete(attachmentPieces).where(eq(attachmentPieces.attachmentId, id));
  },
  journal: null,
  tell: () => [],
});
