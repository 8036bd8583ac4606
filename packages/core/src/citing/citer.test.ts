import { readFileSync } from 'node:fs';
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { LOCATOR_KINDS, type CiteItem, type SourceRecord } from '../source/index.ts';
import { Citer, htmlToText, readStyleInfo } from './index.ts';

const FOLDER = '/usr/share/citation-style-language';
const xml = (style: string): string => readFileSync(`${FOLDER}/styles/${style}.csl`, 'utf8');
const locale = (l: string): string => readFileSync(`${FOLDER}/locales/locales-${l}.xml`, 'utf8');
const citer = (style: string): Citer => new Citer(xml(style), locale);

const article = (n: number, title = `Closure number ${n}`): { id: string; record: SourceRecord } => ({
  id: String(n),
  record: {
    type: 'article-journal',
    title,
    author: [{ family: n % 2 ? 'Okonjo' : 'Vance', given: 'M.' }],
    issued: { 'date-parts': [[2000 + (n % 3)]] },
    'container-title': 'Coastal Processes',
    volume: String(n),
    page: '1-9',
  },
});

describe('one citer used again and again', () => {
  const one = citer('chicago-author-date');
  test('gives each set of sources the text a fresh one gives', () => {
    fc.assert(
      fc.property(fc.array(fc.subarray([1, 2, 3, 4, 5, 6]), { minLength: 1, maxLength: 6 }), (sets) => {
        for (const set of sets) {
          const sources = set.map((n) => article(n));
          const again = one.bibliography(sources).entries.map((e) => e.text);
          expect(again).toEqual(
            citer('chicago-author-date')
              .bibliography(sources)
              .entries.map((e) => e.text),
          );
          if (set.length) expect(htmlToText(one.citation(sources))).toMatch(/^\(.*20\d\d/);
        }
      }),
      { numRuns: 6 },
    );
  });

  test('prints a source whose key for citing is another than its id', () => {
    const keyed = { ...article(1), record: { ...article(1).record, 'citation-key': 'okonjo2014' } };
    const made = one.bibliography([keyed]);
    expect([made.entries.length, made.unprinted]).toEqual([1, []]);
  });

  test('cites a page, a paragraph or any part, with words around it, without the author or with them in the sentence', () => {
    // The forms are those of the manual of the style (15.23, 15.25: from memory).
    const cited = (item: Omit<CiteItem, 'id'>): string =>
      htmlToText(one.citation([article(1)], [{ id: article(1).id, ...item }]));
    const plain = cited({});
    const [, name, year] = /^\((.*) (\d{4})\)$/.exec(plain)!;
    expect(cited({ locator: '12–14' })).toBe(`(${name} ${year}, 12–14)`);
    expect(cited({ locator: '33', label: 'paragraph' })).toBe(`(${name} ${year}, para. 33)`);
    expect(cited({ locator: '2', label: 'chapter', before: 'see', after: 'with a map' })).toBe(
      `(see ${name} ${year}, chap. 2, with a map)`,
    );
    expect(cited({ author: 'suppressed', locator: '7' })).toBe(`(${year}, 7)`);
    expect(cited({ author: 'in the text', locator: '7' })).toBe(`${name} (${year}, 7)`);
    // The locator does not carry over to the next citation.
    expect(htmlToText(one.citation([article(1)]))).toBe(plain);
  });

  test('of each kind of locator there is the style prints the locator', () => {
    for (const label of LOCATOR_KINDS)
      expect(htmlToText(one.citation([article(1)], [{ id: article(1).id, label, locator: '41' }]))).toContain('41');
  });

  test('shows a record as it is now', () => {
    one.bibliography([article(1)]);
    expect(one.bibliography([article(1, 'A corrected title')]).entries[0]!.text).toContain('A Corrected Title');
  });
});

test('a numeric style numbers its entries, a note style cites in full', () => {
  expect(
    citer('ieee')
      .bibliography([article(1), article(2)])
      .entries.map((e) => e.text.slice(0, 3)),
  ).toEqual(['[1]', '[2]']);
  expect(htmlToText(citer('oscola').citation([article(1)]))).toContain('Coastal Processes 1');
});

// CSL 1.0.2 specification, "Names": et-al-min and et-al-use-first; APA 7 lists up to twenty authors.
test('many authors are shortened as the style says', () => {
  const source = article(1);
  source.record.author = ['Okonjo', 'Vance', 'Ito', 'Marsh'].map((family) => ({ family, given: 'A.' }));
  expect(htmlToText(citer('apa').citation([source]))).toBe('(Okonjo et al., 2001)');
  expect(citer('apa').bibliography([source]).entries[0]!.text).toContain('Okonjo, A., Vance, A., Ito, A., & Marsh, A.');
});

test('the head of a style tells its title, manner and parent', () => {
  expect(readStyleInfo('x', xml('apa'))).toMatchObject({ manner: 'author-date' });
  const dependent = readFileSync(`${FOLDER}/styles/dependent/nature-chemistry.csl`, 'utf8');
  expect(readStyleInfo('nature-chemistry', dependent)).toMatchObject({ title: 'Nature Chemistry', parent: 'nature' });
  expect(readStyleInfo('x', xml('oscola'))?.language).toBe('en-GB');
  expect(readStyleInfo('x', '<html>')).toBeUndefined();
});

describe('styles with quirks of their own', () => {
  const thing = (id: string, record: Partial<SourceRecord>): { id: string; record: SourceRecord } => ({
    id,
    record: { type: 'book', title: 'Tides', ...record },
  });

  test('a style that puts its text on the baseline takes raised and lowered parts', () => {
    const [entry] = citer('thieme-german').bibliography([thing('a', { title: 'H<sub>2</sub>O in the marsh' })]).entries;
    expect(entry!.html).toBe('[1] H<sub>2</sub>O in the marsh.');
  });

  // pandoc --citeproc says of the same input: "Bibliography entry with no printed form".
  test('sources a style has no form for are named, the others printed', () => {
    const made = citer('springer-basic-note').bibliography([thing('a', {}), thing('b', { type: 'report' })]);
    expect(made.entries.map((e) => e.id)).toEqual(['a']);
    expect(made.unprinted).toEqual(['b']);
  });

  test('a style that fails on one source prints the others, and goes on working', () => {
    const organon = citer('organon');
    const signed = thing('a', { author: [{ family: 'Vance', given: 'Ines' }] });
    const made = organon.bibliography([signed, thing('b', { type: 'legal_case' })]);
    expect([made.entries.map((e) => e.id), made.unprinted]).toEqual([['a'], ['b']]);
    expect(organon.bibliography([signed]).entries[0]!.text).toContain('Vance I., Tides');
  });
});

describe('those a record leaves out', () => {
  const by = (...families: string[]): SourceRecord => ({
    type: 'book',
    title: 'Tides',
    author: [...families.map((family) => ({ family, given: 'M.' })), { literal: 'et al.' }],
  });

  test.each([
    ['apa', ['Okonjo'], 'Okonjo, M. et al. (n.d.). Tides.'],
    ['apa', ['Okonjo', 'Ito'], 'Okonjo, M., Ito, M., et al. (n.d.). Tides.'],
    ['modern-language-association', ['Okonjo'], 'Okonjo, M. et al. Tides.'],
    ['oscola', ['Okonjo'], 'Okonjo M and others, Tides'],
  ])('are words of the language in %s, never one more name', (style, families, text) => {
    expect(citer(style).bibliography([{ id: 'a', record: by(...families) }]).entries[0]!.text).toBe(text);
  });
});
