import pLimit from "p-limit";
import sharp from "sharp";

/** What a camera or a phone makes; a drawing with a script in it is not among them. */
const RASTER = new Set(["jpeg", "png", "webp", "gif", "tiff", "avif", "heif", "jp2"]);
export const MOST_PICTURE_BYTES = 15_000_000;
const LARGE = 2000;
const SMALL = 320;
/** More than any camera has; a small file can claim to be a huge picture. */
const MOST_PIXELS = 120_000_000;
/** One that comes in ever finer passes must be held whole while it is read: four bytes a pixel, and more. Cameras make none. */
const MOST_IN_PASSES = 40_000_000;
/** A picture may take half a gigabyte while it is brought to size: one after another, whoever sends them. */
const oneAtATime = pLimit(1);

export const TOO_LARGE = "larger than 15 MB; take it with a lower resolution";
export const IN_PASSES =
  "a picture this large that comes in passes cannot be read here; save it as a plain JPEG";
export const NO_PICTURE = "not a picture that can be read; use a JPEG, PNG or WebP";

export type Scaled =
  | { ok: true; width: number; height: number; large: Buffer; small: Buffer }
  | { ok: false; problem: string };

/** Brings a picture upright and to size; the place where it was taken and all else that is written in it stay behind. */
export async function scaled(bytes: Uint8Array): Promise<Scaled> {
  if (bytes.byteLength > MOST_PICTURE_BYTES) return { ok: false, problem: TOO_LARGE };
  return oneAtATime(() => toSize(bytes));
}

async function toSize(bytes: Uint8Array): Promise<Scaled> {
  try {
    const picture = sharp(bytes, { limitInputPixels: MOST_PIXELS, failOn: "error" });
    const { format, isProgressive, width: across = 0, height: down = 0 } = await picture.metadata();
    if (!RASTER.has(format)) return { ok: false, problem: NO_PICTURE };
    if (isProgressive && across * down > MOST_IN_PASSES) return { ok: false, problem: IN_PASSES };
    const upright = picture.autoOrient().flatten({ background: "white" });
    const scaledToFit = (size: number) =>
      ({ width: size, height: size, fit: "inside", withoutEnlargement: true }) as const;
    const large = await upright
      .resize(scaledToFit(LARGE))
      .jpeg({ quality: 82, mozjpeg: true })
      .toBuffer({ resolveWithObject: true });
    // Of what was just made: the original is read once.
    const small = await sharp(large.data).resize(scaledToFit(SMALL)).jpeg({ quality: 74 }).toBuffer();
    const { width, height } = large.info;
    return { ok: true, width, height, large: large.data, small };
  } catch {
    return { ok: false, problem: NO_PICTURE };
  }
}
