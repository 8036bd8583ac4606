/** The list of references a document ends with, or each of its chapters: found by its heading, read entry by entry. */
import type { SourceRecord } from '../source/index.ts';
import { shortBlanks } from '../text/index.ts';
import { looksLikeReference, readReference } from './read.ts';
import { splitReferences } from './split.ts';

/** What such lists are called (common practice), in the languages the journals of the trade come in. */
const HEADING =
  /^(?:[\divxIVX]{1,4}[.)]?\s+)?(?:list of )?(?:references|references cited|bibliography|works cited|literature|literature cited|sources cited|table of (?:cases|authorities)|literatur(?:verzeichnis)?|quellen(?:verzeichnis)?|bibliographie|références|referencias|bibliografía|bibliografia|literatuur(?:lijst)?)\s*:?$/iu;
/** What may follow it. */
const AFTER =
  /^(?:[\divxIVX]{1,4}[.)]?\s+)?(?:appendix|appendices|acknowledge?ments?|about the authors?|index|notes|supplementary (?:material|information)|annex|anhang|danksagung|remerciements)\b.{0,60}$/iu;
/** A list is read this far. */
const MOST_PAGES = 60;
export const MOST_REFERENCES = 600;

export interface ListedReference {
  /** As it is printed, on one line. */
  text: string;
  record: SourceRecord;
  /** The page it begins on, counted from 1. */
  page: number;
}

/** @param pages the text of each page, its lines apart */
export function listedReferences(pages: readonly string[]): ListedReference[] {
  const running = repeated(pages);
  const out: ListedReference[] = [];
  let text = '';
  let starts: { at: number; page: number }[] = [];
  let left = 0;
  const end = (): void => {
    for (const piece of splitReferences(text)) {
      if (out.length >= MOST_REFERENCES || !looksLikeReference(piece.text)) continue;
      const page = starts.findLast((s) => s.at <= piece.start)?.page ?? 1;
      out.push({ text: piece.text, record: readReference(piece.text).record, page });
    }
    text = '';
    starts = [];
    left = 0;
  };
  pages.forEach((content, i) => {
    if (left) starts.push({ at: text.length, page: i + 1 });
    for (const line of shortBlanks(content).split('\n')) {
      const said = line.trim();
      if (HEADING.test(said)) {
        end();
        left = MOST_PAGES;
        starts = [{ at: 0, page: i + 1 }];
      } else if (left && AFTER.test(said)) end();
      else if (left && said && !isFurniture(said, running)) text += `${line}\n`;
    }
    if (left && --left === 0) end();
  });
  end();
  return out;
}

/** What stands above and below the text of a page: its number, and what runs over several. */
const isFurniture = (line: string, running: Set<string>): boolean =>
  /^[\divxlc]{1,5}$/i.test(line) || running.has(line);

function repeated(pages: readonly string[]): Set<string> {
  const times = new Map<string, number>();
  for (const page of pages) {
    const lines = page
      .split('\n')
      .map((l) => l.trim())
      .filter(Boolean);
    for (const line of new Set([...lines.slice(0, 2), ...lines.slice(-2)])) times.set(line, (times.get(line) ?? 0) + 1);
  }
  return new Set([...times].flatMap(([line, n]) => (n > 2 ? [line] : [])));
}
