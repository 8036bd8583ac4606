import { execFileSync } from 'node:child_process';
import fc from 'fast-check';
import { expect, test } from 'vitest';
import type { SourceRecord } from '../source/index.ts';
import { anyRecord } from '../testing/records.ts';
import { freeCitationKey, isCitationKey, makeCitationKey, wantedCitationKey } from './index.ts';

const record = (fields: Partial<SourceRecord>): SourceRecord => ({ type: 'book', ...fields });
const in2014 = { issued: { 'date-parts': [[2014, 3]] } };

test.each<[string, Partial<SourceRecord>]>([
  ['okonjo2014', { author: [{ family: 'Okonjo', given: 'Marit' }], ...in2014 }],
  ['okonjo', { author: [{ family: 'Okonjo', given: 'Marit' }] }],
  ['oneil2014', { author: [{ family: 'Ó’Néil' }, { family: 'Ito' }], ...in2014 }],
  ['strom2014', { editor: [{ family: 'Strøm' }], ...in2014 }],
  ['hydrographicoffice2014', { author: [{ literal: 'Hydrographic Office' }], ...in2014 }],
  ['licensed2014', { title: 'The <i>Licensed</i> Gate', ...in2014 }],
  ['book', {}],
  // 44 BC, as a CSL date has it.
  ['vale43', { author: [{ family: 'Vale' }], issued: { 'date-parts': [[-43]] } }],
])('%s is made of %j', (key, fields) => {
  expect(makeCitationKey(record(fields))).toBe(key);
});

test('what is made of any record is a key, and the same each time', () => {
  fc.assert(
    fc.property(anyRecord, (r) => {
      expect(isCitationKey(makeCitationKey(r))).toBe(true);
      expect(wantedCitationKey(r)).toBe(wantedCitationKey(structuredClone(r)));
    }),
  );
});

test('a key that others have gets a letter, and stays free of all that are taken', () => {
  expect(freeCitationKey('ito1999', (k) => ['ito1999', 'ito1999a'].includes(k))).toBe('ito1999b');
  fc.assert(
    fc.property(fc.uniqueArray(fc.integer({ min: 0, max: 800 }), { maxLength: 40 }), (places) => {
      const taken = new Set<string>();
      for (const _ of places) taken.add(freeCitationKey('Ito', (k) => taken.has(k)).toLowerCase());
      expect(taken.size).toBe(places.length);
    }),
  );
});

test('a key is what pandoc reads as one', () => {
  const read = (key: string): string => execFileSync('pandoc', ['-f', 'markdown', '-t', 'json'], { input: `[@${key}]` }).toString(); // prettier-ignore
  for (const key of ['okonjo2014', 'Okonjo:Gate', 'ito_1999', 'vance-2011a', 'x'])
    expect(isCitationKey(key) && read(key)).toContain(`"citationId":"${key}"`);
  for (const key of ['two words', 'a,b', 'a;b', '{x}', '@x', '', 'a]'])
    expect([key, isCitationKey(key)]).toEqual([key, false]);
});
