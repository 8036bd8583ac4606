/**
 * Titles whose right case is known: of bibliographies that protect in braces what keeps its capitals ("BibTeXing", O.
 * Patashnik, 1988, on `change.case$`: in form "t" all becomes small but the first letter and what stands in braces).
 */
import { latexToText } from '../../packages/core/src/formats/latex/decode.ts';

export interface KnownTitle {
  /** As it is typed, without its braces. */
  typed: string;
  /** In sentence case. */
  right: string;
}

const TITLE = /^\s*title\s*=\s*(?=["{])/gim;

/** The values of all title fields, as they stand in the file. */
function* rawTitles(bib: string): Generator<string> {
  for (const { 0: head, index } of bib.matchAll(TITLE)) {
    const start = index + head.length;
    const quoted = bib[start] === '"';
    let depth = 0;
    for (let i = start + 1; i < bib.length && i < start + 2000; i += 1) {
      const c = bib[i];
      if (c === '{') depth += 1;
      else if (c === '}' && depth > 0) depth -= 1;
      else if (depth === 0 && c === (quoted ? '"' : '}')) {
        yield bib.slice(start + 1, i).replace(/\s+/g, ' ');
        break;
      }
    }
  }
}

/** What `change.case$` makes of it: small outside braces, but for accents, which are letters like others. */
function lowered(raw: string): string {
  let out = '';
  let depth = 0;
  let first = true;
  for (let i = 0; i < raw.length; i += 1) {
    const special = depth === 0 && /^\{\\[^a-zA-Z][^{}]*(?:\{[^{}]*\})?[^{}]*\}/.exec(raw.slice(i))?.[0];
    if (special) {
      out += first ? special : special.toLowerCase();
      i += special.length - 1;
      first = false;
      continue;
    }
    const c = raw[i]!;
    if (c === '{') depth += 1;
    else if (c === '}') depth -= 1;
    out += depth === 0 && !first ? c.toLowerCase() : c;
    if (/[\p{L}\p{N}]/u.test(c)) first = false;
  }
  return out;
}

/** English titles that write most words great, so that their case has to be changed at all. */
export function knownTitles(bib: string): KnownTitle[] {
  const out = new Map<string, KnownTitle>();
  for (const raw of rawTitles(bib)) {
    // Mathematics and commands that are no letters would be read in two ways.
    if (/[$\\](?!['"`^~=.cvuHkrd])|\$/.test(raw.replace(/\\(?:TeX|LaTeX|MF|METAFONT|BibTeX|slash|-)\b/g, ''))) continue;
    const typed = latexToText(
      raw.replace(/[{}]/g, (b, at: number) => (raw[at + 1] === '\\' || raw[at - 1] !== ' ' ? b : b)),
    );
    const right = latexToText(lowered(raw));
    if (typed.toLowerCase() === right.toLowerCase() && /[A-Z]/.test(raw)) out.set(typed, { typed, right });
  }
  return [...out.values()];
}
