/** Pictures of entries: drawn anew and small before they are kept, so that nothing of the file that came stays. */
import { eq } from "drizzle-orm";
import sharp from "sharp";
import { z } from "zod";
import { requireLevel } from "../access/load";
import { personIdOf } from "../caller";
import { command, idSchema, query } from "../command";
import { entries, pictures } from "../database/schema";
import { uuidv7 } from "../ids";
import { notFound, Refused } from "../refused";
import { requireEntry } from "./entries";

/** Edge of what is kept, in pixels: sharp on a fine screen at the largest size it is shown. */
const EDGE = 120;
/** More pixels than this are not unpacked: a few kilobytes can claim to be thousands of millions. */
const MOST_PIXELS = 40_000_000;
const FORMATS: readonly string[] = ["png", "jpeg", "webp", "svg"];

/** @throws Refused for what is no picture, or one too large */
export async function drawnAnew(bytes: Uint8Array): Promise<Buffer> {
  const refuse = (says: string) => new Refused("bad-input", says, "picture");
  const source = sharp(bytes, { limitInputPixels: MOST_PIXELS, failOn: "error", animated: false });
  const about = await source.metadata().catch((error: Error) => {
    throw refuse(
      /pixel limit/.test(error.message)
        ? "This picture has too many pixels. Make it smaller first."
        : "This is not a picture: PNG, JPEG, WebP and SVG are.",
    );
  });
  if (!FORMATS.includes(about.format ?? "")) throw refuse("PNG, JPEG, WebP and SVG pictures can be kept.");
  if ((about.width ?? 0) * (about.height ?? 0) > MOST_PIXELS)
    throw refuse("This picture has too many pixels. Make it smaller first.");
  return source
    .rotate()
    .resize(EDGE, EDGE, { fit: "inside", withoutEnlargement: about.format !== "svg" })
    .png()
    .toBuffer()
    .catch(() => {
      throw refuse("This picture cannot be drawn: it is broken, or has too many pixels.");
    });
}

export const setPicture = command({
  name: "vaults.setPicture",
  input: z.strictObject({
    entryId: idSchema,
    /** Base64 of the file; null takes the picture away. */
    picture: z.base64().max(2_800_000, "A picture has at most 2 MB.").nullable(),
  }),
  by: ["person"],
  prepare: async ({ input }) => (input.picture === null ? null : drawnAnew(Buffer.from(input.picture, "base64"))),
  allow: (context) => requireEntry(context, context.input.entryId, "edit"),
  run: async ({ tx, input, caller, at, allowed, prepared }) => {
    if (allowed.entry.pictureId) await tx.delete(pictures).where(eq(pictures.id, allowed.entry.pictureId));
    const pictureId = prepared ? uuidv7() : null;
    if (prepared && pictureId)
      await tx.insert(pictures).values({ id: pictureId, png: prepared, createdAt: at, createdBy: personIdOf(caller)! });
    await tx.update(entries).set({ pictureId }).where(eq(entries.nodeId, input.entryId));
    return { pictureId };
  },
  journal: ({ input, allowed }) => ({
    node: input.entryId,
    vault: allowed.vaultId,
    details: { changed: "picture" },
    names: { [input.entryId]: allowed.entry.name },
  }),
  tell: ({ allowed }) => [`vault:${allowed.vaultId}`],
});

/** For whoever has Use on the entry. Answered as bytes by a route of its own. */
export const entryPicture = query({
  name: "vaults.picture",
  input: z.strictObject({ entryId: idSchema }),
  by: ["person"],
  internal: true,
  allow: (context) => requireLevel(context, context.input.entryId, "use"),
  run: async ({ tx, input }) => {
    const [row] = await tx
      .select({ png: pictures.png })
      .from(entries)
      .innerJoin(pictures, eq(pictures.id, entries.pictureId))
      .where(eq(entries.nodeId, input.entryId));
    if (!row) throw notFound();
    return row.png;
  },
});
