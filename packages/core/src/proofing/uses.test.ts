import { readFileSync } from 'node:fs';
import { describe, expect, test } from 'vitest';
import { Citer } from '../citing/index.ts';
import { usesByKind, usesOf } from './index.ts';

const FOLDER = '/usr/share/citation-style-language';
const citer = (style: string): Citer =>
  new Citer(readFileSync(`${FOLDER}/styles/${style}.csl`, 'utf8'), (lang) => {
    try {
      return readFileSync(`${FOLDER}/locales/locales-${lang}.xml`, 'utf8');
    } catch {
      return undefined;
    }
  });

// What the handbooks of the styles say an entry has (APA 7, 10.1 and 10.2; Chicago 17, 14.18 and 15.9; common practice).
describe('what a style prints of a kind', () => {
  test('of an article: people, year, title, journal, volume, issue, pages, DOI, and no place or publisher', () => {
    for (const style of ['apa', 'chicago-author-date']) {
      const uses = usesOf(citer(style), 'article-journal');
      for (const v of ['author', 'issued', 'title', 'container-title', 'volume', 'issue', 'page', 'DOI', 'URL'])
        expect([style, v, uses.has(v)]).toEqual([style, v, true]);
      for (const v of ['publisher-place', 'ISBN', 'abstract']) expect([style, v, uses.has(v)]).toEqual([style, v, false]); // prettier-ignore
    }
  });

  test('of a book: the publisher; its place in one style and not in the other', () => {
    const [apa, chicago] = ['apa', 'chicago-author-date'].map((s) => usesOf(citer(s), 'book'));
    expect([apa!.has('publisher'), chicago!.has('publisher')]).toEqual([true, true]);
    expect([apa!.has('publisher-place'), chicago!.has('publisher-place')]).toEqual([false, true]);
  });

  test('is found once for a processor that is kept, whoever asks', () => {
    const kept = citer('apa');
    expect(usesByKind(kept)('book')).toBe(usesByKind(kept)('book'));
    expect([...usesByKind(kept)('book')]).toEqual([...usesOf(kept, 'book')]);
  });

  test('whether it writes the words of titles great itself', () => {
    const great = (style: string): boolean => usesOf(citer(style), 'book').has('title case');
    expect([great('chicago-author-date'), great('apa')]).toEqual([true, false]);
  });
});
