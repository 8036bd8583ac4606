import { expect, test } from 'vitest';
import { ALL_KINDS, type SourceRecord } from '../source/index.ts';
import { LACKS, lacksInWords, lacksOf } from './index.ts';

const whole: SourceRecord = {
  type: 'article-journal',
  title: 'Who closes the gate?',
  author: [{ family: 'Okonjo', given: 'Marit' }],
  'container-title': 'Coastal Processes',
  volume: '41',
  page: '1-20',
  issued: { 'date-parts': [[2014]] },
  DOI: '10.5555/gate',
};

test('an article that has what it is cited by lacks nothing', () => {
  expect(lacksOf(whole)).toEqual([]);
});

test('what is missing is named in the order it is told', () => {
  const { volume: _v, page: _p, DOI: _d, ...rest } = whole;
  expect(lacksOf(rest)).toEqual(['volume', 'page', 'identifier']);
  expect(lacksInWords(['volume', 'page'])).toBe('volume and pages missing');
  expect(lacksInWords(['volume', 'page', 'issued', 'title'])).toBe('volume, pages and 2 more missing');
  expect(lacksInWords([])).toBe('');
});

test('a DOI is asked of the young, and a database with its number does as well', () => {
  const { DOI: _, ...rest } = whole;
  expect(lacksOf({ ...rest, issued: { 'date-parts': [[1974]] } })).toEqual([]);
  expect(lacksOf({ ...rest, source: 'Shoreline Index', 'call-number': 'SI100' })).toEqual([]);
});

test('initials alone are told of, a body has none', () => {
  expect(lacksOf({ ...whole, author: [{ family: 'Okonjo' }] })).toEqual(['initials']);
  expect(lacksOf({ ...whole, author: [{ literal: 'Harbour Commission' }] })).toEqual([]);
});

test('every kind is asked for something, a page for its address, a case for its report', () => {
  for (const type of ALL_KINDS) expect(lacksOf({ type }).length).toBeGreaterThan(0);
  expect(lacksOf({ type: 'webpage', title: 'A page' })).toEqual(['issued', 'site', 'address', 'accessed']);
  expect(lacksOf({ type: 'legal_case', title: 'A v B' })).toEqual(['issued', 'authority', 'reporter']);
  expect(Object.values(LACKS).every(Boolean)).toBe(true);
});
