import { describe, expect, test } from 'vitest';
import type { SourceRecord } from '../source/index.ts';
import { askingFor, toCql } from './index.ts';

const article: SourceRecord = {
  type: 'article-journal',
  title: 'Sediment starvation behind permanently closed tidal barriers',
  author: [{ family: 'Vance', given: 'S.' }],
  'container-title': 'Coast. Proc.',
  volume: '41',
  page: '311-28',
  issued: { 'date-parts': [[2011]] },
};
const whole: SourceRecord = {
  ...article,
  author: [{ family: 'Vance', given: 'Solveig' }],
  'container-title': 'Coastal Processes',
  ISSN: '1050-124X',
  page: '311-328',
};

describe('what catalogues are asked for', () => {
  test('an identifier goes before anything else', () => {
    const asking = askingFor({ ...article, PMID: '1000001' })!;
    expect(asking.question).toEqual({ words: '', identifier: { kind: 'pmid', value: '1000001' } });
    expect([asking.is({ ...whole, PMID: '1000001' }), asking.is(whole)]).toEqual([true, false]);
  });

  test('an ISSN finds an article with its volume and first page, and is not enough by itself', () => {
    const asking = askingFor({ type: 'article-journal', ISSN: '1050-124X', volume: '41', page: '311' })!;
    expect(toCql(asking.question)).toBe('bath.issn="1050-124X" and cql.serverChoice all "41 311"');
    expect(asking.is(whole)).toBe(true);
    expect(asking.is({ ...whole, page: '312-320' })).toBe(false);
    expect(askingFor({ type: 'article-journal', ISSN: '1050-124X' })).toBeUndefined();
  });

  test('a case is found by its report, abbreviated here and written out there', () => {
    const cited: SourceRecord = { type: 'legal_case', volume: '12', 'container-title': 'Est R', page: '114', issued: { 'date-parts': [[1987]] } }; // prettier-ignore
    const asking = askingFor(cited)!;
    expect(asking.question.words).toBe('12 114');
    const found = { ...cited, 'container-title': 'Estuary Reports', title: 'Okonjo v Port of Northmere' };
    expect(asking.is(found)).toBe(true);
    for (const other of [{ page: '115' }, { volume: '11' }, { 'container-title': 'Harbour Reports' }])
      expect(asking.is({ ...found, ...other })).toBe(false);
    const named = askingFor({ ...cited, title: 'Okonjo v. Port of Northmere' })!;
    expect(named.question.title).toBe('Okonjo Port of Northmere');
  });

  test('a printed reference is asked for by the telling words of its title and its first author, a year about', () => {
    const asking = askingFor(article)!;
    expect(asking.question).toEqual({
      words: '',
      title: 'Sediment starvation behind permanently closed barriers',
      author: 'Vance',
      yearFrom: 2010,
      yearTo: 2012,
    });
    expect([asking.identified, asking.is(whole)]).toEqual([false, true]);
    expect(asking.is({ ...whole, title: 'Sediment starvation: a reply', author: [{ family: 'Quill' }] })).toBe(false);
  });

  test('of what too little is known nobody is asked', () => {
    expect(askingFor({ type: 'document', title: 'ibid., at 214' })).toBeUndefined();
  });
});
