import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { CASES, inCase } from './index.ts';

describe('a title is set in another case', () => {
  test.each([
    // Stop words and the rest of the rule: CSL 1.0.1, "Title case conversion".
    ['title', 'the tides of the inner bay: a study', 'The Tides of the Inner Bay: A Study'],
    ['title', 'THE TIDES OF THE INNER BAY', 'The Tides of the Inner Bay'],
    ['title', 'what mRNA is for', 'What mRNA Is For'],
    ['title', 'notes on <i>zostera marina</i>', 'Notes on <i>Zostera Marina</i>'],
    ['sentence', 'The Tides of the Inner Bay', 'The tides of the inner bay'],
    [
      'sentence',
      'The DNA of <span class="nocase">Mallow Creek</span> Reeds',
      'The DNA of <span class="nocase">Mallow Creek</span> reeds',
    ],
    ['as typed', 'The Tides', '<span class="nocase">The Tides</span>'],
    ['sentence', '<span class="nocase">The Tides of the Inner Bay</span>', 'The tides of the inner bay'],
  ] as const)('%s: %s', (to, title, after) => {
    expect(inCase(title, to)).toBe(after);
  });

  test('nouns of German keep their capitals', () => {
    expect(inCase('Die Gezeiten der Bucht', 'sentence', { language: 'de' })).toBe('Die Gezeiten der Bucht');
  });

  test.each([
    ['a BCDEFGH', 'sentence'],
    ['a b c d e f GHIJKLMN', 'title'],
    ['々〱Ꭰ à一〱𒀀一', 'sentence'],
  ] as const)('what was told of a title still holds when it has been set: %s', (title, to) => {
    const once = inCase(title, to);
    expect(inCase(once, to)).toBe(once);
  });

  // Small and then great: Ω for ohm and Ω for omega are one letter in any case.
  const letters = (text: string): string => text.toLowerCase().toUpperCase();

  test('any title in any case keeps its letters, and set twice it is as set once', () => {
    fc.assert(
      fc.property(fc.string({ unit: 'grapheme', maxLength: 60 }), fc.constantFrom(...CASES), (title, to) => {
        const once = inCase(title, to);
        if (to !== 'as typed') expect(letters(once)).toBe(letters(title.replace(/^<span class="nocase">([^<]*)<\/span>$/, '$1'))); // prettier-ignore
        expect(inCase(once, to)).toBe(once);
      }),
    );
  });
});
