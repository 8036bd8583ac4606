/** The title as the first page shows it: the most prominent lines of its upper part that are not something else. */
import { lettersOf, type Cell } from './cells.ts';
import { EXAMINATION, isHeading, LABEL, MASTHEAD, NOT_A_NAME, PERIODICAL, VERSION } from './front-words.ts';
import { median, type Page } from './page.ts';
import { peopleOf } from './people.ts';
import { dateIn } from './printed.ts';

export interface FoundTitle {
  title: string;
  /** 0 to 1. */
  sure: number;
  /** The pieces of the page the title is made of. */
  cells: Cell[];
}

const MOST_LINES = 6;
const FIRST_SECTION = /^1\.?\s+\p{Lu}/u;
const SECTION = /^(?:\d+|[IVX]+)(?:\.\d+)*\.?$/;

/** What templates put where the title goes. */
const PLACEHOLDER =
  /^(?:(?:no|your|the|insert|article|paper|thesis|document|journal|sub|full|short|main|running|enter)\s*)*(?:title|titel|titre|título)(?:\s+(?:here|goes here|given|of (?:the |your )?(?:paper|article|thesis|document|work|dissertation|report)))?$/i;

/** What a browser prints where a page has no name of its own. */
const NO_NAME = /^(?:about:\S*|(?:https?|file|data|chrome):\S*)$/i;

export const isPlaceholder = (title: string): boolean =>
  NO_NAME.test(title.trim()) || PLACEHOLDER.test(title.replace(/[^\p{L}\s]/gu, ' ').trim());

/** Whether a piece of the front cannot be the title, whatever its size. */
function isOther(cell: Cell): boolean {
  const { text } = cell;
  const letters = text.replace(/[^\p{L}]/gu, '');
  const ideographs = /\p{Script=Han}|\p{Script=Hangul}/u.test(text);
  if (letters.length < (ideographs ? 3 : 4)) return true;
  if (isHeading(text) || LABEL.test(text) || VERSION.test(text)) return true;
  if (FIRST_SECTION.test(text) || /@|^(?:https?:|www\.|about:|file:)/.test(text) || EXAMINATION.test(text)) return true;
  if (MASTHEAD.test(text) && !/[?!]$/.test(text)) return true;
  const date = dateIn(text);
  return Boolean(date && lettersOf(text).length - lettersOf(date.text).length < 6);
}

/**
 * The title of a page, or nothing when no line of it can be one.
 * @param cells those of the page
 */
export function readTitle(page: Page | undefined, cells: Cell[]): FoundTitle | undefined {
  if (!page?.lines.length) return undefined;
  const body = median(page.lines.flatMap((l) => Array<number>(Math.ceil(l.text.length / 20)).fill(l.size)));
  const end = cells.findIndex((c) => isHeading(c.text));
  const upper = cells.filter((c) => c.box.y0 < page.height * 0.65);
  const front = end > 0 ? upper.filter((c) => c.row < cells[end]!.row || c.size > body * 1.3) : upper;
  const numbered = (c: Cell): boolean =>
    cells.some((n) => n.row === c.row && n !== c && n.box.x1 < c.box.x0 && SECTION.test(n.text));
  const all = front.filter((c) => !isOther(c) && !numbered(c));
  // Where the first section begins the front is over, unless nothing stands before it.
  const section = cells.find((c) => FIRST_SECTION.test(c.text))?.row ?? Infinity;
  const before = all.filter((c) => c.row < section);
  const able = before.length ? before : all;
  const chosen = prominent(able, body) ?? firstOf(able, body);
  if (!chosen) return undefined;
  const group = grown(chosen, cells, body);
  const title = joined(group.map((c) => c.text));
  if (title.length < 3 || title.length > 400 || isPlaceholder(title)) return undefined;
  const contrast = Math.max(...group.map((c) => c.size)) / (body || 1);
  return { title, sure: contrast > 1.35 ? 0.8 : contrast > 1.12 ? 0.65 : 0.4, cells: group };
}

/** The largest type that is clearly larger than the text, but for the name of the periodical it stands in. */
function prominent(able: Cell[], body: number): Cell | undefined {
  const large = able.filter((c) => c.size > body * 1.1 && !namesOnly(c));
  const largest = Math.max(0, ...large.map((c) => c.size));
  const first = large.find((c) => c.size >= largest * 0.93);
  if (!first || !PERIODICAL.test(first.text)) return first;
  const below = large.filter((c) => c.row > first.row && !PERIODICAL.test(c.text) && c.text.split(' ').length > 2);
  const next = Math.max(0, ...below.map((c) => c.size));
  return below.find((c) => c.size >= next * 0.93) ?? first;
}

/** Where all is set in one size: the first line that can be a title. */
function firstOf(able: Cell[], body: number): Cell | undefined {
  return able.find(
    (c) => c.size > body * 0.68 && !namesOnly(c) && !PERIODICAL.test(c.text) && c.text.split(' ').length < 25,
  );
}

/** One or two people of which no word is one of every day; "Normal Distribution" stays a title. */
const namesOnly = (c: Cell): boolean =>
  peopleOf(c.text).length > 0 && !c.text.split(/\s+/).some((w) => NOT_A_NAME.test(w)) && c.marks.length > 0;

/** The lines that go with the chosen one: under or over it, in its size, nothing of another kind between. */
function grown(chosen: Cell, cells: Cell[], body: number): Cell[] {
  const group = [chosen];
  const near = (a: Cell, b: Cell): boolean => {
    const gap = b.box.y0 - a.box.y1;
    const [small, large] = [Math.min(a.size, b.size), Math.max(a.size, b.size)];
    return gap < large * 1.1 && small > large * 0.86;
  };
  for (const step of [1, -1] as const) {
    for (let row = chosen.row + step; group.length < MOST_LINES; row += step) {
      const there = cells.filter((c) => c.row === row);
      const edge = step > 0 ? group.at(-1)! : group[0]!;
      if (there.length !== 1 || !near(...((step > 0 ? [edge, there[0]!] : [there[0]!, edge]) as [Cell, Cell]))) break;
      const [line] = there as [Cell];
      if (isOther(line) || (step < 0 && line.size < chosen.size * 0.93)) break;
      // Set like the text: names under a title of the same size are not its second line.
      if (chosen.size <= body * 1.15 && peopleOf(line.text).length) break;
      if (peopleOf(line.text).length && (line.marks.length || line.size < edge.size * 0.95)) break;
      if (step > 0) group.push(line);
      else group.unshift(line);
    }
  }
  const beside = cells.filter(
    (c) => c.row === chosen.row && c !== chosen && Math.abs(c.size - chosen.size) < chosen.size * 0.1 && !isOther(c),
  );
  return beside.length === 1 && group.length === 1 && beside[0]!.box.x0 > chosen.box.x0 ? [chosen, ...beside] : group;
}

/** Lines as one: words cut at a line's end are whole again, those with a hyphen of their own keep it. */
function joined(lines: string[]): string {
  return lines
    .reduce((all, line) => {
      if (/\p{L}[-\u00AD‐]$/u.test(all)) return /^\p{Ll}/u.test(line) ? all.slice(0, -1) + line : all + line;
      return /[\p{Script=Han}，。：]$/u.test(all) && /^\p{Script=Han}/u.test(line) ? all + line : `${all} ${line}`;
    })
    .replace(/\s+/g, ' ')
    .trim();
}
