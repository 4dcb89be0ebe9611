/** A picture drawn anew and small: only what can be seen of it stays. */
import sharp, { type Metadata, type Sharp } from "sharp";
import { drawPicture as t } from "./strings";

/** Edge of what is kept, in pixels: sharp on a fine screen at the largest size it is shown. */
const EDGE = 120;
/** More pixels than this are not unpacked: a few kilobytes can claim to be thousands of millions. */
const MOST_PIXELS = 40_000_000;
const FORMATS: readonly string[] = ["png", "jpeg", "webp", "svg"];

export type Drawn = { png: Uint8Array } | { refused: string };

export async function drawPicture(bytes: Uint8Array): Promise<Drawn> {
  let source: Sharp;
  let about: Metadata;
  try {
    source = sharp(bytes, { limitInputPixels: MOST_PIXELS, failOn: "error", animated: false });
    about = await source.metadata();
  } catch (error) {
    return {
      refused: /pixel limit/.test(String(error)) ? t.thisPictureHasTooManyPixels : t.thisIsNotAPictureChooseA,
    };
  }
  if (!FORMATS.includes(about.format ?? "")) return { refused: t.chooseAPngJpegWebpOrSvg };
  if ((about.width ?? 0) * (about.height ?? 0) > MOST_PIXELS) return { refused: t.thisPictureHasTooManyPixels };
  try {
    const png = await source
      .rotate()
      .resize(EDGE, EDGE, { fit: "inside", withoutEnlargement: about.format !== "svg" })
      .png()
      .toBuffer();
    return { png };
  } catch {
    return { refused: t.thisPictureCannotBeReadItIs };
  }
}
