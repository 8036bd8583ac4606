/** What annotations of a PDF are as marks (ISO 32000-1, 12.5.6), and what marks are as annotations. */
import { offeredSenses, type Colour, type Quote, type Rect, type Sense, type Shape } from '../marks/index.ts';

/** An annotation as it stands in a file. */
export interface Annotation {
  /** Its `NM`; of one without, a name made of what it is and where. */
  name: string;
  /** Its `Subtype`. */
  kind: string;
  /** Counted from 1. */
  page: number;
  /** In points from the upper left corner of the page as it is shown. */
  rects: Rect[];
  /** The words it stands on; empty where it stands on none. */
  quote: Quote;
  note: string;
  author: string;
  /** Its `Subj`. */
  subject: string;
  /** Red, green and blue from 0 to 1; none where it says none. */
  colour: [number, number, number] | null;
  /** ISO 8601; empty where it says none. */
  at: string;
}

/** What is remembered of the annotation a mark came from. */
export interface MarkOrigin {
  name: string;
  author: string;
  kind: string;
  /** The note as it was read last: what is written later on both sides is known by it. */
  note: string;
  colour: [number, number, number] | null;
}

/** Table 169, markup annotations; the others (links, forms, films) are no remarks of a reader. */
const SHAPE_OF: Record<string, Shape> = {
  Highlight: 'highlight',
  Underline: 'underline',
  Squiggly: 'underline',
  StrikeOut: 'strike',
  Caret: 'point',
  Text: 'point',
  FileAttachment: 'point',
  FreeText: 'region',
  Square: 'region',
  Circle: 'region',
  Line: 'region',
  Polygon: 'region',
  PolyLine: 'region',
  Ink: 'region',
  Stamp: 'region',
  Redact: 'region',
};
export const shapeOf = (kind: string): Shape | undefined => SHAPE_OF[kind];

/** The kind a mark is written as. */
export const KIND_OF: Record<Shape, string> = {
  highlight: 'Highlight',
  underline: 'Underline',
  strike: 'StrikeOut',
  region: 'Square',
  point: 'Text',
};
/** Drawn by hand or set as a picture or text: they are shown as they are, and not a second time as a mark. */
export const isDrawing = (kind: string): boolean =>
  ['FreeText', 'Line', 'Polygon', 'PolyLine', 'Ink', 'Stamp', 'Circle', 'FileAttachment', 'Caret'].includes(kind);

/** The tints of the senses, red, green and blue from 0 to 1. */
export const TINTS: Record<Colour, [number, number, number]> = {
  straw: [0.965, 0.878, 0.541],
  mist: [0.749, 0.878, 0.847],
  lilac: [0.851, 0.827, 0.937],
  rose: [0.953, 0.769, 0.722],
  sky: [0.765, 0.855, 0.941],
  sand: [0.902, 0.827, 0.702],
};

/** In degrees; undefined of grey. */
function hueOf([r, g, b]: readonly number[]): number | undefined {
  const [most, least] = [Math.max(r!, g!, b!), Math.min(r!, g!, b!)];
  const span = most - least;
  if (span < 0.02) return undefined;
  const sixth = most === r ? (g! - b!) / span : most === g ? (b! - r!) / span + 2 : (r! - g!) / span + 4;
  return (sixth * 60 + 360) % 360;
}

/** The tint nearest in hue, since others write strong colours where ours are pale. */
export function tintNear(colour: readonly number[]): Colour | undefined {
  const hue = hueOf(colour);
  if (hue === undefined) return undefined;
  const away = (tint: Colour): number => {
    const apart = Math.abs(hue - hueOf(TINTS[tint])!);
    return Math.min(apart, 360 - apart);
  };
  return (Object.keys(TINTS) as Colour[]).sort((a, b) => away(a) - away(b))[0];
}

/** The sense of a mark that comes from an annotation: one of that name, else the first of its tint, else the first. */
export function senseOf(
  { subject, colour }: Pick<Annotation, 'subject' | 'colour'>,
  senses: readonly Sense[],
): Sense | undefined {
  const offered = offeredSenses(senses);
  const tint = colour && tintNear(colour);
  const named = subject.trim().toLowerCase();
  return (
    offered.find((s) => s.name.toLowerCase() === named) ?? offered.find((s) => tint && s.colour === tint) ?? offered[0]
  );
}

/**
 * A note that may have been written on in the file and here since it was read: whichever alone was altered stands; of two that
 * were, both.
 * @param read as it was read last; undefined where it was written from here
 */
export function mergedNote(read: string | undefined, here: string, file: string): string {
  if (file === here || file === read || !file) return here;
  if (here === read || !here) return file;
  return here.includes(file) ? here : file.includes(here) ? file : `${here}\n\n${file}`;
}
