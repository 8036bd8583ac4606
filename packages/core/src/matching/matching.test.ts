import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { SourceRecord } from '../source/index.ts';
import { givenByLike, identifierKeys, isTellingTitle, titleKey, wholeKey } from './index.ts';

const book = (more: Partial<SourceRecord>): SourceRecord => ({ type: 'book', title: 'Silt', ...more });

describe('identifiers', () => {
  test('one DOI has many ways of being written', () => {
    const keys = ['10.5555/ABC.1', 'https://doi.org/10.5555/abc.1', 'doi:10.5555/abc.1', 'DOI 10.5555/Abc.1'].map(
      (DOI) => identifierKeys(book({ DOI })),
    );
    expect(new Set(keys.map(String))).toEqual(new Set(['doi:10.5555/abc.1']));
    expect(identifierKeys(book({ URL: 'https://doi.org/10.5555/abc.1' }))).toEqual(['doi:10.5555/abc.1']);
    expect(identifierKeys(book({ URL: 'https://sallow.example/10.5555/abc.1' }))).toEqual([]);
  });

  // The ISBN of ISO 2108's examples of conversion, in ten and thirteen digits.
  test('an ISBN is the same in ten digits and in thirteen', () => {
    expect(identifierKeys(book({ ISBN: '0-306-40615-2' }))).toEqual(
      identifierKeys(book({ ISBN: '978-0-306-40615-7' })),
    );
    expect(identifierKeys(book({ ISBN: '978-0-306-40615-8' }))).toEqual([]);
  });

  test('the ISBN of a book does not make its chapters one, nor its volumes', () => {
    const ISBN = '9780306406157';
    expect(identifierKeys({ type: 'chapter', title: 'Pioneer zones', ISBN })).toEqual([]);
    expect(identifierKeys(book({ ISBN, volume: '1' }))).not.toEqual(identifierKeys(book({ ISBN, volume: '2' })));
  });
});

describe('titles', () => {
  test('case, accents, punctuation and markup do not part them', () => {
    expect(titleKey('Who Closes the Gate?')).toBe(titleKey('WHO CLOSES THE GATE'));
    expect(titleKey('<i>Spartina</i> in the éstuary')).toBe(titleKey('Spartina in the Estuary.'));
  });

  test('a short title does not stand for a work, a long one does', () => {
    expect(['Introduction', 'Report of the Board', 'Minutes'].some(isTellingTitle)).toBe(false);
    expect(isTellingTitle('Who closes the gate upon the ebb?')).toBe(true);
  });
});

test('works without identifier are one only when all that tells them apart agrees', () => {
  const letter: SourceRecord = {
    type: 'manuscript',
    title: 'Letter to the Commission',
    author: [{ family: 'Ottery', given: 'Amos' }],
    issued: { 'date-parts': [[1872, 2, 18]] },
    archive_location: 'Box 4',
  };
  expect(wholeKey({ ...letter, title: 'LETTER to the commission', abstract: 'other words' })).toBe(wholeKey(letter));
  fc.assert(
    fc.property(
      fc.constantFrom<Partial<SourceRecord>>(
        { archive_location: 'Box 5' },
        { issued: { 'date-parts': [[1873]] } },
        { author: [{ family: 'Quill' }] },
        { type: 'personal_communication' },
        { volume: '2' },
        { page: '12' },
      ),
      (other) => {
        expect(wholeKey({ ...letter, ...other })).not.toBe(wholeKey(letter));
      },
    ),
  );
  expect(wholeKey({ type: 'book' })).toBeUndefined();
});

describe('what one of the same work gives a record of which less is known', () => {
  const printed: SourceRecord = {
    type: 'article-journal',
    title: 'Gate regimes',
    author: [{ family: 'Ito', given: 'R.' }],
    'container-title': 'Coast. Proc.',
    volume: '41',
  };
  const like: SourceRecord = {
    type: 'article-journal',
    title: 'Gate regimes',
    author: [{ family: 'Ito', given: 'Ren' }],
    'container-title': 'Coastal Processes',
    volume: '14',
    DOI: '10.5555/gate',
  };

  test('what it lacks, names in full, the journal written out; what stands otherwise is left', () => {
    const given = givenByLike(printed, like);
    expect(given).toMatchObject({ DOI: '10.5555/gate', author: like.author, 'container-title': 'Coastal Processes' });
    expect(given).not.toHaveProperty('volume');
  });

  test('a title in capitals is not taken for one that is written as it should be', () => {
    expect(givenByLike(printed, { ...like, title: 'GATE REGIMES' }).title).toBe('Gate regimes');
  });
});
