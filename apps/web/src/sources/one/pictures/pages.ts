/** Pictures that are to be the pages of one document: their order, how they are turned and cut. */
import type { Crop, PageOfPictures, PagesOfPictures } from '@pandecta/contract';

export type Turned = NonNullable<PageOfPictures['turn']>;

export interface PicturePage {
  /** Of one picture at a time. */
  key: number;
  file: File;
  /** Undefined while it is left to the application. */
  turn: Turned | undefined;
  crop: Crop | undefined;
}

/** By their names as one counts: picture 2 before picture 10. */
export const inOrder = (files: File[]): File[] =>
  [...files].sort((a, b) => a.name.localeCompare(b.name, 'en', { numeric: true }));

/** The page put where another stands, or after it. */
export function moved<T>(pages: readonly T[], from: number, to: number): T[] {
  const out = [...pages];
  const [page] = out.splice(from, 1);
  if (page !== undefined) out.splice(Math.max(0, Math.min(out.length, to > from ? to - 1 : to)), 0, page);
  return out;
}

export const turnedOn = (turn: Turned | undefined): Turned => (((turn ?? 0) + 90) % 360) as Turned;

/** What is cut out turns with the picture, a quarter clockwise. */
export const cropTurned = ({ left, top, width, height }: Crop): Crop => ({
  left: 1 - top - height,
  top: left,
  width: height,
  height: width,
});

/** What the server is told; a picture that is cut was looked at as it lies, so its turn is said. */
export function planOf(pages: readonly PicturePage[]): PagesOfPictures {
  return {
    pages: pages.map(({ turn, crop }, picture): PageOfPictures => ({
      picture,
      ...((turn !== undefined || crop) && { turn: turn ?? 0 }),
      ...(crop && { crop }),
    })),
  };
}
