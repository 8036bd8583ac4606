import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { questionsOf } from '../testing/index.ts';
import { asTyped, onPages, parseQuery, parseYears, printQuery, QUERY_FIELDS, soughtIn, type Node } from './index.ts';

const word = fc.constantFrom('barrier', 'tidal', 'gate', 'ebb', 'estuary', 'x1');
const leaf: fc.Arbitrary<Node> = fc.oneof(
  fc.record({ is: fc.constant('word' as const), text: word }),
  fc.record({
    is: fc.constant('phrase' as const),
    text: fc.array(word, { minLength: 2, maxLength: 3 }).map((w) => w.join(' ')),
  }),
  fc.record({
    is: fc.constant('field' as const),
    field: fc.constantFrom(...QUERY_FIELDS),
    text: word,
    phrase: fc.boolean(),
  }),
);
const tree = questionsOf(leaf);

/** "and" within "and" is one "and": the reader flattens what the writer need not bracket. */
function flat(node: Node): Node {
  if (node.is === 'not') return { is: 'not', part: flat(node.part) };
  if (node.is !== 'and' && node.is !== 'or') return node;
  return { is: node.is, parts: node.parts.map(flat).flatMap((p) => (p.is === node.is ? p.parts : [p])) };
}

test('a query written out reads back to the same tree', () => {
  fc.assert(
    fc.property(tree.map(flat), (node) => {
      expect(parseQuery(printQuery(node)).tree).toEqual(node);
    }),
  );
});

test('no text is refused, and every note points into it', () => {
  fc.assert(
    fc.property(
      fc.string({
        maxLength: 60,
        unit: fc.constantFrom('a', '"', '(', ')', '-', ':', ' ', 'or', 'tag', '*', '“', '字'),
      }),
      (text) => {
        for (const note of parseQuery(text).notes) expect(note.end).toBeLessThanOrEqual(text.length);
      },
    ),
  );
});

describe('years', () => {
  test.each([
    ['1980-2026', { from: 1980, to: 2026 }],
    ['2026-1980', { from: 1980, to: 2026 }],
    ['1980-', { from: 1980 }],
    ['-1900', { to: 1900 }],
    ['1872', { from: 1872, to: 1872 }],
    ['>=1980', { from: 1980 }],
    ['<1900', { to: 1899 }],
    ['soon', undefined],
  ])('%s', (text, range) => expect(parseYears(text)).toEqual(range));
});

test('what is excluded is not lit, and the last word while typing is a beginning', () => {
  const sought = soughtIn(parseQuery('barriers -operator "tidal gates" title:ebb').tree, ['title']);
  expect([[...sought.stems], sought.phrases]).toEqual([['barrier', 'ebb'], [['tidal', 'gate']]]);
  expect(asTyped(parseQuery('tidal barr').tree)).toMatchObject({
    parts: [{ text: 'tidal' }, { text: 'barr', prefix: true }],
  });
});

test('one letter that is being typed lights nothing that begins so, two do; a star always does', () => {
  const lit = (text: string): string[] => soughtIn(asTyped(parseQuery(text).tree)).prefixes;
  expect([lit('tidal b'), lit('tidal ba'), lit('tidal b*'), lit('tidal -ba')]).toEqual([[], ['ba'], ['b'], []]);
});

test.each([
  ['barrier "ebb tide" author:okonjo', 'barrier "ebb tide"'],
  ['page:sluice year:1872 -operator', 'sluice -operator'],
  ['tag:used kind:case', ''],
  ['(gate or title:gate) -(tag:used)', 'gate'],
  ['(gate or sluice) sed*', '(gate or sluice) sed*'],
])('of “%s” the pages of a document are asked “%s”', (asked, words) =>
  expect(printQuery(onPages(parseQuery(asked).tree))).toBe(words),
);

test('what is asked of pages names no field, whatever was asked', () => {
  fc.assert(
    fc.property(tree, (t) => {
      const asked = onPages(t);
      expect(JSON.stringify(asked)).not.toContain('"is":"field"');
      expect(onPages(asked)).toEqual(asked);
    }),
  );
});
