/** Cases as styles print them: a court's own number, other reports, the page that is no number. */
import { readFileSync } from 'node:fs';
import { describe, expect, test } from 'vitest';
import { readReference } from '../references/index.ts';
import type { SourceRecord } from '../source/index.ts';
import { Citer, htmlToText } from './index.ts';

const FOLDER = '/usr/share/citation-style-language';
const citer = (style: string): Citer =>
  new Citer(readFileSync(`${FOLDER}/styles/${style}.csl`, 'utf8'), (l) =>
    readFileSync(`${FOLDER}/locales/locales-${l}.xml`, 'utf8'),
  );
const LAW_STYLES = ['oscola', 'bluebook-law-review', 'australian-guide-to-legal-citation'];
const cited = (style: string, record: SourceRecord): string => htmlToText(citer(style).citation([{ id: 'a', record }]));

describe('a case that is read as it is printed is cited as it was', () => {
  // The forms of the guides themselves, from memory: no guide is at hand here.
  test.each([
    ['oscola', 'Donoghue v Stevenson [1932] AC 562 (HL)'],
    ['oscola', 'Corr v IBC Vehicles Ltd [2008] UKHL 13'],
    ['australian-guide-to-legal-citation', 'Mabo v Queensland (1992) 175 CLR 1'],
    ['australian-guide-to-legal-citation', 'Fertility Control Board v Kenyon [1998] NTSC 12'],
  ])('%s: %s', (style, text) => {
    const { record } = readReference(text);
    expect(cited(style, record)).toBe(`${text}.`);
  });
});

test.each([
  ['australian-guide-to-legal-citation', ' s 6'],
  ['mcgill-fr', ' 6'],
])('in %s a section has the word of the style’s language, or none', (style, section) => {
  const record: SourceRecord = { type: 'legislation', title: 'Tide Act', section: '6', issued: { 'date-parts': [[1998]] } }; // prettier-ignore
  expect(cited(style, record)).toContain(section);
  expect(cited(style, record).includes('s 6')).toBe(section === ' s 6');
});

test('a page is no number of the court, whatever an older reading kept', () => {
  const record: SourceRecord = { type: 'legal_case', title: 'Donoghue v Stevenson', 'container-title': 'AC', page: '562', number: '562', authority: 'HL', issued: { 'date-parts': [[1932]] } }; // prettier-ignore
  expect(cited('oscola', record)).toBe('Donoghue v Stevenson [1932] AC 562 (HL).');
});

test.each(LAW_STYLES)('in %s the other reports of a case stand behind its first, in text and list', (style) => {
  const record: SourceRecord = { type: 'legal_case', title: 'Re Withy', 'container-title': 'Est R', volume: '12', page: '114', parallel: '[1987] 2 WLR 30', authority: 'CA', issued: { 'date-parts': [[1987]] } }; // prettier-ignore
  expect(cited(style, record)).toMatch(/12 Est R 114, \[1987\] 2 WLR 30/);
  const [entry] = citer(style).bibliography([{ id: 'a', record }]).entries;
  expect(entry!.text).toMatch(/12 Est R 114, \[1987\] 2 WLR 30/);
});

test.each(LAW_STYLES)('in %s a court’s own number is printed once', (style) => {
  const record: SourceRecord = { type: 'legal_case', title: 'R v Smith', 'container-title': 'UKSC', page: '12', number: '12', issued: { 'date-parts': [[2015]] } }; // prettier-ignore
  expect(cited(style, record).match(/UKSC/g)).toHaveLength(1);
  expect(cited(style, record).match(/12/g)).toHaveLength(1);
});
