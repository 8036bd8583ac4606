import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { englishWords } from '../english/index.ts';
import { proposalFor, type KnownWords } from './index.ts';

const english = englishWords();
const document = new Map([['ferrow', 4], ['sallow', 7], ['penhallow', 2]]); // prettier-ignore
const known: KnownWords = { inDocument: (w) => document.get(w) ?? 0, isPlain: english.isPlain };

describe('what an unsure word may be', () => {
  test.each([
    ['Ferrovv', 'Ferrow'],
    ['sliut', 'shut'],
    ['notiee', 'notice'],
    ['tirne,', 'time,'],
    ['“Sal1ow', '“Sallow'],
    ['PENHAL1OW.', 'PENHALLOW.'],
  ])('“%s” looks like “%s”', (word, expected) => expect(proposalFor(word, known)).toBe(expected));

  test.each(['notice', 'Ferrow', 'xq', 'zzzzqqqq', '1872', '—', ''])('“%s” is proposed nothing', (word) =>
    expect(proposalFor(word, known)).toBeUndefined(),
  );

  test('is a known word, whatever the letters', () => {
    fc.assert(
      fc.property(fc.string({ maxLength: 14 }), (word) => {
        const inner = proposalFor(word, known)?.toLowerCase().match(/[a-z0-9]+/)?.[0]; // prettier-ignore
        expect(inner === undefined || known.inDocument(inner) > 0 || known.isPlain(inner)).toBe(true);
      }),
      { numRuns: 60 },
    );
  });
});
