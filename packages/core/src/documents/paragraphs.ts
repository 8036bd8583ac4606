/** A page as one reads it aloud: its paragraphs in order, without running heads and page numbers, notes after the text. */
import { inColumns } from './columns.ts';
import { linesOf, type PageText, type TextLine } from './lines.ts';
import { median } from './page.ts';

export const PARAGRAPH_KINDS = ['heading', 'text', 'note'] as const;
export type ParagraphKind = (typeof PARAGRAPH_KINDS)[number];

export interface Paragraph {
  kind: ParagraphKind;
  text: string;
  /** Of its beginning in the text of the page. */
  start: number;
}

/** In points; the height of the page is needed to know its head and foot. */
export interface ReadPage extends PageText {
  height: number;
}

/** The part of a page at its top and at its foot in which running heads and page numbers stand. */
const EDGE = 0.12;
/** Digits are what differs from one page's running head to the next. */
const plain = (text: string): string =>
  text
    .toLowerCase()
    .replace(/[\d\s]+/g, ' ')
    .replace(/\b[ivxlc]+\b/g, '')
    .trim();

/** The lines at the heads and feet of the pages, without their numbers, as often as they stand there. */
export function runningLines(pages: readonly ReadPage[]): Set<string> {
  const count = new Map<string, number>();
  for (const page of pages)
    for (const text of new Set(edgeLines(page).map((l) => plain(page.text.slice(l.start, l.end)))))
      count.set(text, (count.get(text) ?? 0) + 1);
  return new Set([...count].filter(([, n]) => n > 1).map(([text]) => text));
}

function edgeLines(page: ReadPage): TextLine[] {
  return linesOf(page).filter((l) => l.box.y1 < page.height * EDGE || l.box.y0 > page.height * (1 - EDGE));
}

/** @param running what stands at the heads and feet of its neighbours too; see `runningLines` */
export function paragraphsOf(page: ReadPage, running: ReadonlySet<string> = new Set()): Paragraph[] {
  const edge = new Set(edgeLines(page).map((l) => l.start));
  const isRunning = (l: TextLine): boolean => {
    if (!edge.has(l.start)) return false;
    const text = page.text.slice(l.start, l.end);
    return running.has(plain(text)) || /^\W*(?:\d{1,5}|[ivxlc]{1,8})\W*$/i.test(text);
  };
  const lines = linesOf(page).filter((l) => !isRunning(l));
  const letters = lines.flatMap((l) => Array<number>(Math.min(200, l.end - l.start)).fill(l.size));
  const body = median(letters);
  const out: Paragraph[] = [];
  for (const lineGroup of blocksOf(lines)) {
    const size = median(lineGroup.map((l) => l.size));
    const foot = lineGroup[0]!.box.y0 > page.height * 0.55;
    const text = joined(page.text, lineGroup);
    if (!text) continue;
    const kind: ParagraphKind =
      size > body * 1.13 || (isNumbered(text) && lineGroup.length < 3)
        ? 'heading'
        : size < body * 0.92 && foot
          ? 'note'
          : 'text';
    out.push({ kind, text, start: lineGroup[0]!.start });
  }
  return [...out.filter((p) => p.kind !== 'note'), ...out.filter((p) => p.kind === 'note')];
}

/** "2. What the licences say", "3.1 Method". */
const isNumbered = (text: string): boolean => /^\d+(?:\.\d+)*\.?\s+\p{Lu}[^.!?]{2,80}$/u.test(text);

/** Lines that belong together: a block of the layout, parted where a line is set in after one that was not full. */
function blocksOf(lines: TextLine[]): TextLine[][] {
  const blocks: TextLine[][] = [];
  let ended = true;
  for (const line of lines) {
    if (ended) blocks.push([]);
    blocks.at(-1)!.push(line);
    ended = line.then.includes('\n\n');
  }
  return inColumns(blocks).flatMap(partedByIndent);
}

function partedByIndent(block: TextLine[]): TextLine[][] {
  const left = Math.min(...block.map((l) => l.box.x0));
  const out: TextLine[][] = [];
  block.forEach((line, i) => {
    const indent = line.box.x0 - left;
    const isIndented = indent > line.size * 0.6 && indent < line.size * 4;
    const before = block[i - 1];
    const isLarger = before && Math.abs(line.size - before.size) > before.size * 0.15;
    if (!before || isLarger || (isIndented && before.box.x0 - left <= before.size * 0.6)) out.push([]);
    out.at(-1)!.push(line);
  });
  return out;
}

function joined(text: string, lines: TextLine[]): string {
  let out = '';
  lines.forEach((line, i) => {
    out += text.slice(line.start, line.end);
    if (i < lines.length - 1 && line.then) out += ' ';
  });
  return out.trim();
}
