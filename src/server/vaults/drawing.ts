/** Pictures drawn anew and small before they are kept, so that nothing of the file that came stays. */
import { eq } from "drizzle-orm";
import sharp from "sharp";
import { z } from "zod";
import type { Transaction } from "../database/client";
import { pictures } from "../database/schema";
import { uuidv7 } from "../ids";
import { Refused } from "../refused";

/** Base64 of the file; null takes the picture away. */
export const pictureInput = z.base64().max(2_800_000, "A picture has at most 2 MB.").nullable();

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

export const drawn = async (picture: z.output<typeof pictureInput>): Promise<Buffer | null> =>
  picture === null ? null : drawnAnew(Buffer.from(picture, "base64"));

export async function dropPicture(tx: Transaction, pictureId: string | null): Promise<void> {
  if (pictureId) await tx.delete(pictures).where(eq(pictures.id, pictureId));
}

/** Instead of the one before; gives the id of the new one. */
export async function keepPicture(
  tx: Transaction,
  before: string | null,
  png: Buffer | null,
  personId: string,
  at: number,
): Promise<string | null> {
  await dropPicture(tx, before);
  if (!png) return null;
  const id = uuidv7();
  await tx.insert(pictures).values({ id, png, createdAt: at, createdBy: personId });
  return id;
}
