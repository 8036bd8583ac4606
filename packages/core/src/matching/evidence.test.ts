import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { SourceRecord } from '../source/index.ts';
import { anySource } from '../testing/index.ts';
import { bestOf, compare, filledBy, Folding } from './index.ts';

const article: SourceRecord = {
  type: 'article-journal',
  title: 'Who closes the gate? Operator discretion under tidal barrier licences',
  author: [{ family: 'Okonjo', given: 'Marit' }],
  'container-title': 'Journal of Water and Shore Law',
  volume: '44',
  page: '217-243',
  issued: { 'date-parts': [[2014]] },
};
const verdict = (more: Partial<SourceRecord>, of: SourceRecord = article): string =>
  compare(of, { ...of, ...more }).verdict;

describe('two records', () => {
  test.each<[string, Partial<SourceRecord>, string]>([
    [
      'in capitals and with initials',
      { title: article.title!.toUpperCase(), author: [{ family: 'OKONJO', given: 'M.' }] },
      'certain',
    ],
    ['without the subtitle', { title: 'Who closes the gate?' }, 'very likely'],
    ['a year apart', { issued: { 'date-parts': [[2015]] } }, 'certain'],
    ['of another author and year', { author: [{ family: 'Quill' }], issued: { 'date-parts': [[1990]] } }, 'perhaps'],
    ['of another title', { title: 'Silent licences: closure duties before 1974' }, 'perhaps'],
    ['of another title, volume and page', { title: 'Silent licences', volume: '3', page: '9' }, 'different'],
  ])('%s are told so', (_, more, is) => {
    expect(verdict(more)).toBe(is);
  });

  test('that share a DOI are certain, unless title and people say otherwise', () => {
    const of = { ...article, DOI: '10.5555/gate' };
    expect(verdict({ title: 'WHO CLOSES THE GATE' }, of)).toBe('certain');
    expect(verdict({ title: 'Something else', author: [{ family: 'Quill' }] }, of)).toBe('perhaps');
    expect(compare(of, { ...article, DOI: '10.5555/other' })).toMatchObject({
      verdict: 'very likely',
      reasons: [{ says: 'other DOI', for: false }, {}, {}, {}, {}, {}, {}],
    });
  });

  test('another edition is told to be looked at', () => {
    expect(verdict({ edition: '3' }, { ...article, edition: '2' })).toBe('perhaps');
  });

  test('that hold the same file are certain', () => {
    expect(compare({ type: 'document' }, article, true).verdict).toBe('certain');
  });

  test('are compared alike from both sides', () => {
    fc.assert(
      fc.property(anySource, anySource, ({ record: a }, { record: b }) => {
        expect(compare(a, b).verdict).toBe(compare(b, a).verdict);
      }),
    );
  });
});

test('joining fills what is empty and nothing else, and a second time nothing', () => {
  fc.assert(
    fc.property(anySource, anySource, ({ record: here }, { record: incoming }) => {
      const fills = filledBy(here, incoming);
      const joined = { ...here, ...fills };
      for (const [field, value] of Object.entries(here))
        expect((joined as Record<string, unknown>)[field]).toEqual(value);
      expect(filledBy(joined, incoming)).toEqual({});
    }),
  );
});

describe('folding', () => {
  test('puts the spellings of one work together and leaves its neighbours apart', () => {
    const folding = new Folding();
    const work = folding.add(article);
    expect(
      folding.add({ ...article, title: article.title!.toUpperCase(), author: [{ family: 'Okonjo', given: 'M.' }] }),
    ).toBe(work);
    expect(folding.add({ ...article, title: 'Silent licences: closure duties before 1974' })).not.toBe(work);
    expect(folding.add({ ...article, title: 'Who closes the gate?', DOI: '10.5555/gate' })).toBe(work);
  });

  test('takes the better title and the fuller names, and what one lacks from the other', () => {
    const one = { ...article, title: 'WHO CLOSES THE GATE', DOI: '10.5555/gate', issue: '2', ISSN: '2049-3630' };
    const other = { ...article, title: 'Who closes the gate &amp; when', author: [{ family: 'Okonjo', given: 'M.' }] };
    expect(bestOf([one, other])).toMatchObject({ DOI: '10.5555/gate', author: [{ family: 'Okonjo', given: 'Marit' }] });
    expect(bestOf([one, article]).title).toBe(article.title);
  });
});
