/** The numbers that stand printed on the pages themselves, at their heads and feet. */
import type { Page } from '../documents/index.ts';
import { fromRoman, type NumberRun } from './runs.ts';

/** A number that may be the page's own. */
export interface Candidate {
  style: 'decimal' | 'roman' | 'ROMAN';
  /** What stands before it in the same word: "DAFX-" of "DAFX-21". */
  prefix?: string;
  number: number;
}

/** So many lines from the top and from the foot of a page are looked at. */
const EDGE_LINES = 2;
/** What may stand before a number at the edge of a page: "– 212 –", "Page 3 of 30", "212 | Water and Law". */
const BEFORE = new Set(['', 'p', 'pp', 'page', 'seite', 'pagina', 'página']);
const isAround = (token: string): boolean =>
  !/\p{N}/u.test(token) && BEFORE.has(token.replace(/[^\p{L}]/gu, '').toLowerCase());

/** The numbers at the head and foot of a page that may be its own. */
export function candidatesOf(page: Page): Candidate[] {
  const lines = [...page.lines].filter((l) => l.text.trim()).sort((a, b) => a.box.y0 - b.box.y0);
  const edges = [...lines.slice(0, EDGE_LINES), ...lines.slice(EDGE_LINES).slice(-EDGE_LINES)];
  const out: Candidate[] = [];
  for (const line of edges) {
    const words = line.words.map((w) => page.text.slice(w.start, w.end));
    const tokens = words.length ? words : line.text.split(/\s+/);
    // It stands at the beginning or the end of the line, or by itself.
    const [first, last] = [tokens.findIndex((t) => !isAround(t)), tokens.findLastIndex((t) => !isAround(t))];
    for (const at of new Set([first, last, ...(isOfMany(tokens) ? [tokens.length - 3] : [])])) {
      const c = at >= 0 ? candidate(tokens[at]!) : undefined;
      if (c && !out.some((o) => keyOf(o) === keyOf(c) && o.number === c.number)) out.push(c);
    }
  }
  return out;
}

/** Candidates of one series share it. */
const keyOf = ({ style, prefix = '' }: Candidate): string => `${style} ${prefix}`;

/** "3 of 30", "3 / 30". */
const isOfMany = (tokens: string[]): boolean =>
  tokens.length > 2 && /^(?:of|\/|von|de|di)$/i.test(tokens.at(-2)!) && /^\d+$/.test(tokens.at(-1)!);

function candidate(token: string): Candidate | undefined {
  const signs = [...token];
  const isOfNumber = (sign: string): boolean => /[\p{L}\p{N}]/u.test(sign);
  const inner = signs.slice(signs.findIndex(isOfNumber), signs.findLastIndex(isOfNumber) + 1).join('');
  // "3/30".
  const text = inner.split('/')[0]!;
  if (/^\d{1,5}$/.test(text)) return { style: 'decimal', number: Number(text) };
  const [, prefix, counted] = /^(\p{L}{1,8}[-–.]?)(\d{1,4})$/u.exec(text) ?? [];
  if (prefix) return { style: 'decimal', prefix, number: Number(counted) };
  const n = fromRoman(text);
  if (!n || n > 200) return undefined;
  return { style: text === text.toUpperCase() ? 'ROMAN' : 'roman', number: n };
}

/** So many pages must bear a number of a run for it to be believed, and such a share of those it goes over. */
const FEWEST = 3;
const SHARE = 0.4;
/** Numbers of one run that are further apart than this many pages are two runs. */
const GAP = 12;
/** Front matter is often so short that fewer pages of it bear their number. */
const FEWEST_IN_FRONT = 2;

/**
 * The runs of numbers on the pages of a document: where the numbers of several pages go up by one with the pages. Pages between
 * that bear none are in the run.
 * @param pages the candidates of each page, the first of page 1
 */
export function printedRuns(pages: readonly Candidate[][]): NumberRun[] {
  /** Pages by series and by how far the number is from the count. */
  const byOffset = new Map<string, { of: Candidate; offset: number; pages: number[] }>();
  pages.forEach((candidates, i) => {
    for (const of of candidates) {
      const offset = of.number - (i + 1);
      const key = `${keyOf(of)} ${offset}`;
      const known = byOffset.get(key);
      if (!known) byOffset.set(key, { of, offset, pages: [i + 1] });
      else if (known.pages.at(-1) !== i + 1) known.pages.push(i + 1);
    }
  });
  const stretches = [...byOffset.values()].flatMap(({ of, offset, pages: at }) =>
    parted(at).map((on) => ({ style: of.style, prefix: of.prefix ?? '', offset, on })),
  );
  const fewest = Math.min(FEWEST, pages.length);
  const believed = stretches
    .filter(({ on }) => on.length >= Math.max(2, fewest) && on.length >= SHARE * (on.at(-1)! - on[0]! + 1))
    .sort((a, b) => b.on.length - a.on.length);
  // The best supported first; what it covers is none of another's.
  const taken = new Array<boolean>(pages.length + 1).fill(false);
  const chosen: typeof believed = [];
  for (const stretch of believed) {
    const [from, to] = [stretch.on[0]!, stretch.on.at(-1)!];
    if (taken.slice(from, to + 1).some(Boolean)) continue;
    taken.fill(true, from, to + 1);
    chosen.push(stretch);
  }
  chosen.sort((a, b) => a.on[0]! - b.on[0]!);
  const front = frontOf(stretches, chosen[0]);
  if (front) chosen.unshift(front);
  let end = 0;
  return chosen.map(({ style, prefix, offset, on }) => {
    // The first page of a chapter often bears none: a run begins as early as its numbers and the run before allow.
    const page = Math.max(end + 1, 1 - offset);
    end = on.at(-1)!;
    return { page, style, prefix, start: page + offset };
  });
}

interface Stretch {
  style: Candidate['style'];
  prefix: string;
  /** The number less the count of the page. */
  offset: number;
  on: number[];
}

/** Roman numbers before the page that is 1: of two pages, or of one whose number is its count. */
function frontOf(stretches: readonly Stretch[], first: Stretch | undefined): Stretch | undefined {
  if (first?.style !== 'decimal') return undefined;
  const one = 1 - first.offset;
  return stretches
    .filter(({ style, on, offset }) => {
      const isBelieved = on.length >= FEWEST_IN_FRONT || offset === 0;
      return style !== 'decimal' && isBelieved && offset <= 0 && on.at(-1)! < Math.min(one, first.on[0]!);
    })
    .sort((a, b) => b.on.length - a.on.length)[0];
}

function parted(pages: number[]): number[][] {
  const out: number[][] = [];
  for (const page of pages) {
    const last = out.at(-1);
    if (last && page - last.at(-1)! <= GAP) last.push(page);
    else out.push([page]);
  }
  return out;
}
