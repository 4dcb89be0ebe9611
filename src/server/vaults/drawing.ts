/** Pictures drawn anew and small before they are kept, so that nothing of the file that came stays. */
import { eq } from "drizzle-orm";
import { z } from "zod";
import type { Transaction } from "../database/client";
import { pictures } from "../database/schema";
import type { Galtry } from "../galtry";
import { uuidv7 } from "../ids";
import { Refused } from "../refused";
import { drawing as t } from "./strings";

/** Base64 of the file; null takes the picture away. */
export const pictureInput = z.base64().max(2_800_000, t.aPictureHasAtMost2Mb).nullable();

/**
 * For `prepare`: the picture as it is kept.
 * @throws Refused for what is no picture, is too large, or takes too long to draw
 */
export async function drawn({
  input: { picture },
  app,
}: {
  input: { picture: z.output<typeof pictureInput> };
  app: Galtry;
}): Promise<Buffer | null> {
  if (picture === null) return null;
  if (!app.pictures) throw new Error("no pictures are drawn in this process");
  const answer = await app.pictures.draw(Buffer.from(picture, "base64"));
  if ("refused" in answer) throw new Refused("bad-input", answer.refused, "picture");
  return Buffer.from(answer.png);
}

export async function dropPicture(tx: Transaction, pictureId: string | null): Promise<void> {
  if (pictureId) await tx.delete(pictures).where(eq(pictures.id, pictureId));
}

/** The same picture for a duplicate: each entry has a row of its own, which goes with it. */
export async function duplicatePicture(
  tx: Transaction,
  pictureId: string | null,
  personId: string,
  at: number,
): Promise<string | null> {
  if (pictureId === null) return null;
  const [picture] = await tx.select().from(pictures).where(eq(pictures.id, pictureId));
  return picture ? keepPicture(tx, null, picture.png, personId, at) : null;
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
