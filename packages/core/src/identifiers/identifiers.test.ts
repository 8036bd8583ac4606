import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import {
  findArxivIds,
  findDois,
  findIsbns,
  isbn10Check,
  isbn13Check,
  issnCheck,
  normaliseDoi,
  plainDoi,
  normaliseIsbn,
  normaliseIssn,
  normaliseOrcid,
  normalisePmid,
  orcidCheck,
} from './index.ts';

describe('check digits', () => {
  // The worked examples of the ISBN Users' Manual (ISO 2108) and of ISO 3297 and ISO 27729, as commonly quoted (from memory).
  test('ISBN: 0-306-40615-2 and 978-0-306-40615-7', () => {
    expect(isbn10Check('030640615')).toBe('2');
    expect(isbn13Check('978030640615')).toBe('7');
    expect(normaliseIsbn('ISBN-10: 0-306-40615-2')).toBe('9780306406157');
    expect(normaliseIsbn('0-8044-2957-X')).toBe('9780804429573');
    expect(normaliseIsbn('978-0-306-40615-8')).toBeUndefined();
  });

  test('ISSN: 0317-8471 and 2434-561X', () => {
    expect(issnCheck('0317847')).toBe('1');
    expect(normaliseIssn('2434561x')).toBe('2434-561X');
    expect(normaliseIssn('0317-8472')).toBeUndefined();
  });

  test('ORCID iD: 0000-0002-1825-0097 and 0000-0002-9079-593X', () => {
    expect(orcidCheck('000000021825009')).toBe('7');
    expect(normaliseOrcid('https://orcid.org/0000-0002-9079-593X')).toBe('0000-0002-9079-593X');
    expect(normaliseOrcid('0000-0002-1825-0098')).toBeUndefined();
  });

  test('one wrong digit never passes', () => {
    fc.assert(
      fc.property(
        fc.array(fc.integer({ min: 0, max: 9 }), { minLength: 9, maxLength: 9 }),
        fc.nat(11),
        fc.integer({ min: 1, max: 9 }),
        (nine, at, by) => {
          const twelve = `978${nine.join('')}`;
          const isbn = twelve + isbn13Check(twelve);
          const wrong = [...isbn];
          wrong[at + 1] = String((Number(wrong[at + 1]) + by) % 10);
          expect(normaliseIsbn(isbn)).toBe(isbn);
          expect(normaliseIsbn(wrong.join(''))).toBeUndefined();
        },
      ),
    );
  });
});

test.each([
  ['see https://doi.org/10.5555/JWSL.2014.0223.', ['10.5555/JWSL.2014.0223']],
  ['(doi:10.5555/a(1)b), and 10.5555/c;', ['10.5555/a(1)b', '10.5555/c']],
  ['version 10.5 of nothing', []],
])('DOIs in %j', (text, dois) => expect(findDois(text)).toEqual(dois));

test('a DOI keeps its letters as they came, and is the same in capitals', () => {
  expect(plainDoi('https://doi.org/10.5555/JWSL.2014.0223')).toBe('10.5555/JWSL.2014.0223');
  expect(findDois('10.5555/Gate, 10.5555/marsh and 10.5555/GATE')).toEqual(['10.5555/Gate', '10.5555/marsh']);
  fc.assert(
    fc.property(fc.string({ maxLength: 20 }), (suffix) => {
      const doi = `10.5555/${suffix}`;
      expect(normaliseDoi(doi)).toBe(plainDoi(doi)?.toLowerCase());
    }),
  );
});

test('identifiers in their normal form', () => {
  expect(normaliseDoi('https://dx.doi.org/10.5555%2FAbc')).toBe('10.5555/abc');
  expect(normaliseDoi('not one')).toBeUndefined();
  expect(normalisePmid('PMID: 0123456')).toBe('123456');
  expect(findArxivIds('arXiv:2101.00001v2 and arXiv:hep-th/9901001')).toEqual(['2101.00001', 'hep-th/9901001']);
  expect(findIsbns('ISBN 978-0-306-40615-7 (hardback), ISBN 0-306-40615-3')).toEqual(['9780306406157']);
});
