/** Puts pictures of pages right before they are recognised: upright, straight, cut, in a form that is read everywhere. */
import { readFile } from 'node:fs/promises';
import { skewOf } from '@pandecta/core/documents';
import { pictureType } from '@pandecta/core/formats';
import { startOf } from '../storage/storage.ts';

export interface UprightTask {
  path: string;
  /** Where the result is written, without its ending. */
  base: string;
  /** The page of a picture that has several, from 0. */
  page?: number;
  /** Clockwise. */
  turn?: number;
  /** What is kept of it once it is turned, in shares of its width and height. */
  crop?: { left: number; top: number; width: number; height: number };
  /** Whether lines that lie askew are laid level. */
  level?: boolean;
}

/** In dots: what is larger was made to fill the memory. */
const LARGEST = 200_000_000;
/** In degrees: less is not seen, and costs sharpness to mend. */
const LEAST_SKEW = 0.3;
/** So wide a picture says how far it is askew. */
const LOOKED_AT = 1000;
/** Of a photograph that says no size, the longer side is that of a sheet of A4, in inches. */
const LONGER_SIDE = 11.7;

/** How many pages a picture has: more than one of a TIFF. 0 of what cannot be opened. */
export async function picturePages(path: string): Promise<number> {
  const { default: sharp } = await import('sharp');
  try {
    if (await isHeic(path)) return 1;
    return (await sharp(path, { limitInputPixels: LARGEST }).metadata()).pages ?? 1;
  } catch {
    return 0;
  }
}

const isHeic = async (path: string): Promise<boolean> => pictureType(await startOf(path)) === 'image/heic';

/** @returns the picture: a JPEG once it is level, before that a PNG, which loses nothing; nothing where it cannot be opened */
export async function upright({
  path,
  base,
  page = 0,
  turn = 0,
  crop,
  level = false,
}: UprightTask): Promise<{ path: string; resolution: number } | undefined> {
  // prettier-ignore
  const { default: sharp } = await import('sharp');
  try {
    const bytes = await readFile(path);
    const opened =
      pictureType(bytes) === 'image/heic'
        ? sharp(...(await heic(bytes)))
        : sharp(bytes, { page, limitInputPixels: LARGEST }).autoOrient();
    const { density } = await sharp(bytes, { page }).metadata().catch(() => ({ density: 0 })); // prettier-ignore
    // The turns one after another, each on the result of the one before: sharp turns once.
    let step = await opened.rotate(turn).flatten({ background: 'white' }).toColourspace('srgb').png({ compressionLevel: 1 }).toBuffer({ resolveWithObject: true }); // prettier-ignore
    const next = async (made: ReturnType<typeof sharp>): Promise<typeof step> =>
      made.png({ compressionLevel: 1 }).toBuffer({ resolveWithObject: true });
    if (crop) step = await next(sharp(step.data).extract(inDots(crop, step.info)));
    const skew = level ? await askew(sharp, step.data) : 0;
    const straight = Math.abs(skew) < LEAST_SKEW ? sharp(step.data) : sharp(step.data).rotate(-skew, { background: 'white' }); // prettier-ignore
    const longer = Math.max(step.info.width, step.info.height);
    const resolution = density && density >= 100 ? density : Math.max(70, Math.round(longer / LONGER_SIDE));
    const out = `${base}.${level ? 'jpg' : 'png'}`;
    const written = level ? straight.jpeg({ quality: 88 }) : straight.png({ compressionLevel: 1 });
    await written.withDensity(resolution).toFile(out);
    return { path: out, resolution };
  } catch {
    return undefined;
  }
}

type Sharp = typeof import('sharp').default;

async function askew(sharp: Sharp, picture: Buffer): Promise<number> {
  const small = sharp(picture).resize({ width: LOOKED_AT, withoutEnlargement: true }).greyscale();
  const { data, info } = await small.raw().toBuffer({ resolveWithObject: true });
  return skewOf(data, info.width, info.height);
}

async function heic(bytes: Buffer): Promise<[Buffer, { raw: { width: number; height: number; channels: 4 } }]> {
  const { default: decode } = await import('heic-decode');
  const { width, height, data } = await decode({ buffer: bytes });
  if (width * height > LARGEST) throw new Error('too large');
  return [Buffer.from(data.buffer), { raw: { width, height, channels: 4 } }];
}

function inDots({ left, top, width, height }: NonNullable<UprightTask['crop']>, of: { width: number; height: number }) {
  const x = Math.min(of.width - 1, Math.max(0, Math.round(left * of.width)));
  const y = Math.min(of.height - 1, Math.max(0, Math.round(top * of.height)));
  return {
    left: x,
    top: y,
    width: Math.max(1, Math.min(of.width - x, Math.round(width * of.width))),
    height: Math.max(1, Math.min(of.height - y, Math.round(height * of.height))),
  };
}
