/** Annotations of a PDF, read and written (ISO 32000-1, 12.5). */
import { createHash } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import type { PDFArray, PDFDict, PDFDocument, PDFObject, PDFPage } from '@cantoo/pdf-lib';
import {
  isDrawing,
  KIND_OF,
  quadOf,
  rectsOfQuads,
  shapeOf,
  toShown,
  toStored,
  type Annotation,
  type PageFrame,
} from '@pandecta/core/annotations';
import { isOnWords, TURNS, type Rect, type Shape, type Turn } from '@pandecta/core/marks';

export type Lib = typeof import('@cantoo/pdf-lib');

/** Annotations beyond so many are left out. */
const MOST = 20_000;
const MOST_NOTE = 10_000;
/** A place without an extent: what a note's icon takes. */
const ICON = 20;

function frameOf(page: PDFPage): PageFrame {
  const { x, y, width, height } = page.getCropBox();
  const rotate = (((Math.round(page.getRotation().angle / 90) * 90) % 360) + 360) % 360;
  const box = { x0: x, y0: y, x1: x + width, y1: y + height };
  return { box, rotate: TURNS.includes(rotate as Turn) ? (rotate as Turn) : 0 };
}

/** Reads what is of the type that is asked for; what is of another is as if it were not there. */
function reader(lib: Lib, dict: PDFDict) {
  const found = (key: string): PDFObject | undefined => {
    try {
      return dict.lookup(lib.PDFName.of(key));
    } catch {
      return undefined;
    }
  };
  const numbers = (key: string): number[] => {
    const array = found(key);
    if (!(array instanceof lib.PDFArray)) return [];
    return Array.from({ length: array.size() }, (_, i) => {
      const n = array.lookup(i);
      return n instanceof lib.PDFNumber ? n.asNumber() : NaN;
    });
  };
  const text = (key: string): string => {
    const value = found(key);
    return value instanceof lib.PDFString || value instanceof lib.PDFHexString
      ? value.decodeText().replaceAll('\0', '').replace(/\r\n?/g, '\n').slice(0, MOST_NOTE)
      : '';
  };
  const date = (key: string): string => {
    const value = found(key);
    try {
      return value instanceof lib.PDFString || value instanceof lib.PDFHexString
        ? value.decodeDate().toISOString()
        : '';
    } catch {
      return '';
    }
  };
  const name = (key: string): string => {
    const value = found(key);
    return value instanceof lib.PDFName ? value.decodeText() : '';
  };
  return { has: (key: string) => found(key) !== undefined, numbers, text, date, name };
}

/** `C` as red, green and blue (12.5.2: one number is grey, three are RGB, four CMYK). */
function colourOf(c: number[]): Annotation['colour'] {
  if (c.some((n) => !Number.isFinite(n))) return null;
  if (c.length === 1) return [c[0]!, c[0]!, c[0]!];
  if (c.length === 3) return [c[0]!, c[1]!, c[2]!];
  if (c.length === 4) return [0, 1, 2].map((i) => (1 - c[i]!) * (1 - c[3]!)) as [number, number, number];
  return null;
}

const annotsOf = (lib: Lib, page: PDFPage): PDFArray | undefined => {
  try {
    return page.node.lookupMaybe(lib.PDFName.of('Annots'), lib.PDFArray);
  } catch {
    return undefined;
  }
};

function readOne(lib: Lib, dict: PDFDict, page: number, frame: PageFrame): Annotation | undefined {
  const read = reader(lib, dict);
  const kind = read.name('Subtype');
  const shape = shapeOf(kind);
  // An answer to another says its state, as a reviewer set it (12.5.6.3).
  if (!shape || read.text('StateModel')) return undefined;
  const [x0, y0, x1, y1] = read.numbers('Rect');
  const quads = isOnWords(shape) ? rectsOfQuads(read.numbers('QuadPoints')) : [];
  const around = { x0: Math.min(x0!, x1!), y0: Math.min(y0!, y1!), x1: Math.max(x0!, x1!), y1: Math.max(y0!, y1!) };
  const stored = quads.length ? quads : Object.values(around).every(Number.isFinite) ? [around] : [];
  const rects = stored.map((r) => toShown(r, frame));
  if (!rects.length) return undefined;
  const note = read.text('Contents');
  const said = [kind, page, rects.map((r) => Object.values(r).map(Math.round)).join(), read.text('T')].join(' ');
  return {
    name: read.text('NM').slice(0, 200) || `unnamed ${createHash('sha256').update(said).digest('hex').slice(0, 24)}`,
    kind,
    page,
    rects,
    quote: { exact: '', prefix: '', suffix: '' },
    note,
    author: read.text('T').slice(0, 200),
    subject: read.text('Subj').slice(0, 200),
    colour: colourOf(read.numbers('C')),
    at: read.date('CreationDate') || read.date('M'),
  };
}

/** All remarks of readers in the document, in the order of its pages; words are not quoted yet. */
export function annotationsIn(lib: Lib, document: PDFDocument): Annotation[] {
  const out: Annotation[] = [];
  document.getPages().forEach((page, i) => {
    const annots = annotsOf(lib, page);
    if (!annots) return;
    const frame = frameOf(page);
    for (let k = 0; k < annots.size() && out.length < MOST; k += 1) {
      let dict: PDFObject | undefined;
      try {
        dict = annots.lookup(k);
      } catch {
        continue;
      }
      const one = dict instanceof lib.PDFDict ? readOne(lib, dict, i + 1, frame) : undefined;
      if (one) out.push(one);
    }
  });
  return out;
}

/** A mark as it is written. */
export interface WrittenMark {
  /** The annotation's name, by which it is known again. */
  name: string;
  page: number;
  shape: Shape;
  rects: Rect[];
  note: string;
  author: string;
  subject: string;
  colour: [number, number, number];
  /** ISO 8601. */
  at: string;
}

/**
 * The PDF with marks as its annotations. Those it had that are written anew, and those that were read in as marks and are no
 * more, are left out; drawings, links and forms stay.
 * @param known names of annotations that were read in
 */
export async function annotated({
  path,
  marks,
  known,
}: {
  path: string;
  marks: WrittenMark[];
  known: string[];
}): Promise<Uint8Array> {
  const lib = await import('@cantoo/pdf-lib');
  const document = await lib.PDFDocument.load(await readFile(path), { updateMetadata: false });
  const replaced = new Set([...known, ...marks.map((m) => m.name)]);
  const drawn = new Set<string>();
  document.getPages().forEach((page, i) => {
    const annots = annotsOf(lib, page);
    const frame = frameOf(page);
    for (let k = (annots?.size() ?? 0) - 1; k >= 0; k -= 1) {
      const dict = annots!.lookupMaybe(k, lib.PDFDict);
      const one = dict && readOne(lib, dict, i + 1, frame);
      if (!one || !replaced.has(one.name)) continue;
      // What is drawn stays as it is drawn, with what is written of it now.
      const mark = isDrawing(one.kind) ? marks.find((m) => m.name === one.name) : undefined;
      if (mark) {
        dict.set(lib.PDFName.of('Contents'), lib.PDFHexString.fromText(mark.note));
        drawn.add(one.name);
      } else annots!.remove(k);
    }
    for (const mark of marks)
      if (mark.page === i + 1 && mark.rects.length && !drawn.has(mark.name))
        page.node.addAnnot(document.context.register(written(lib, document, mark, frame)));
  });
  return document.save();
}

function written(lib: Lib, document: PDFDocument, mark: WrittenMark, frame: PageFrame): PDFDict {
  const { context } = document;
  const text = (value: string) => lib.PDFHexString.fromText(value);
  const places = mark.shape === 'point' ? [iconAt(mark.rects[0]!)] : mark.rects;
  const stored = places.map((r) => toStored(r, frame));
  const rect = [
    Math.min(...stored.map((r) => r.x0)),
    Math.min(...stored.map((r) => r.y0)),
    Math.max(...stored.map((r) => r.x1)),
    Math.max(...stored.map((r) => r.y1)),
  ];
  const at = new Date(mark.at);
  const dict = context.obj({
    Type: 'Annot',
    Subtype: KIND_OF[mark.shape],
    Rect: rect,
    C: mark.colour,
    // Printed with the page (table 165).
    F: 4,
  }) as PDFDict;
  const set = (key: string, value: PDFObject): void => dict.set(lib.PDFName.of(key), value);
  set('NM', text(mark.name));
  set('T', text(mark.author));
  set('Subj', text(mark.subject));
  set('Contents', text(mark.note));
  set('CreationDate', lib.PDFString.fromDate(at));
  set('M', lib.PDFString.fromDate(at));
  if (isOnWords(mark.shape)) set('QuadPoints', context.obj(places.flatMap((r) => quadOf(r, frame))));
  if (mark.shape === 'point') set('Name', lib.PDFName.of('Note'));
  if (mark.shape === 'region') set('BS', context.obj({ W: 1.5 }));
  const look = appearance(mark, stored);
  // A reader draws the icon of a note itself.
  if (look) {
    const resources = { ExtGState: { Multiply: { Type: 'ExtGState', BM: 'Multiply' } } };
    const form = context.stream(look, { Type: 'XObject', Subtype: 'Form', BBox: rect, Resources: resources });
    set('AP', context.obj({ N: context.register(form) }));
  }
  return dict;
}

const iconAt = ({ x0, y0 }: Rect): Rect => ({ x0, y0, x1: x0 + ICON, y1: y0 + ICON });

/** How it looks, in the operators of 8.5; a highlight lies under the letters, as a marker does. */
function appearance({ shape, colour }: WrittenMark, rects: Rect[]): string | undefined {
  const rgb = colour.map((n) => n.toFixed(3)).join(' ');
  const n = (x: number): string => x.toFixed(2);
  const line = (y: (r: Rect) => number): string =>
    [`${rgb} RG 1.2 w`, ...rects.map((r) => `${n(r.x0)} ${n(y(r))} m ${n(r.x1)} ${n(y(r))} l S`)].join('\n');
  switch (shape) {
    case 'highlight':
      return [
        `/Multiply gs ${rgb} rg`,
        ...rects.map((r) => `${n(r.x0)} ${n(r.y0)} ${n(r.x1 - r.x0)} ${n(r.y1 - r.y0)} re f`),
      ].join('\n');
    case 'underline':
      return line((r) => r.y0 + 0.8);
    case 'strike':
      return line((r) => (r.y0 + r.y1) / 2);
    case 'region': {
      const r = rects[0]!;
      return `${rgb} RG 1.5 w ${n(r.x0 + 0.75)} ${n(r.y0 + 0.75)} ${n(r.x1 - r.x0 - 1.5)} ${n(r.y1 - r.y0 - 1.5)} re S`;
    }
    case 'point':
      return undefined;
  }
}
