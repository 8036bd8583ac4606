import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { questionsOf } from '../testing/index.ts';
import {
  asTyped,
  fieldOf,
  groupOf,
  isGroup,
  onPages,
  parseDays,
  parseQuery,
  parseYears,
  printQuery,
  QUERY_FIELDS,
  soughtIn,
  treeOf,
  typingAt,
  written,
  type Group,
  type NearNode,
  type Node,
  type PhraseNode,
  type WordNode,
} from './index.ts';

const word = fc.constantFrom('barrier', 'tidal', 'gate', 'ebb', 'estuary', 'x1');
const aWord: fc.Arbitrary<WordNode> = fc.oneof(
  fc.record({ is: fc.constant('word' as const), text: word }),
  fc.record({ is: fc.constant('word' as const), text: word, prefix: fc.constant(true) }),
  fc.record({ is: fc.constant('word' as const), text: word, close: fc.constant(true) }),
);
const aPhrase: fc.Arbitrary<PhraseNode> = fc.record({
  is: fc.constant('phrase' as const),
  text: fc.array(word, { minLength: 2, maxLength: 3 }).map((w) => w.join(' ')),
});
const near: fc.Arbitrary<NearNode> = fc.record({
  is: fc.constant('near' as const),
  left: fc.oneof(aWord, aPhrase),
  right: fc.oneof(aWord, aPhrase),
  within: fc.integer({ min: 1, max: 30 }),
  ordered: fc.boolean(),
});
const leaf: fc.Arbitrary<Node> = fc.oneof(
  aWord,
  aPhrase,
  near,
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
        unit: fc.constantFrom(
          'a',
          '"',
          '(',
          ')',
          '-',
          ':',
          ' ',
          'or',
          'tag',
          '*',
          '~',
          ' near/3 ',
          'before/',
          '“',
          '字',
        ),
      }),
      (text) => {
        for (const note of parseQuery(text).notes) expect(note.end).toBeLessThanOrEqual(text.length);
      },
    ),
  );
});

test('a query built of rows is the query that is written, either way', () => {
  fc.assert(
    fc.property(tree.map(flat), (node) => {
      expect(treeOf(groupOf(node))).toEqual(node);
    }),
  );
});

test('words one after another are one row, what is left out a row that says so, or a group of none', () => {
  const group = groupOf(
    parseQuery('tidal barrier year:1980-2026 (tag:used or label:"Key authority") -tag:old -(a or b)').tree,
  );
  expect(group).toEqual({
    join: 'all',
    parts: [
      { field: 'words', text: 'tidal barrier', exactly: false, not: false },
      { field: 'year', text: '1980-2026', exactly: false, not: false },
      {
        join: 'any',
        parts: [
          { field: 'tag', text: 'used', exactly: false, not: false },
          { field: 'label', text: 'Key authority', exactly: true, not: false },
        ],
      },
      { field: 'tag', text: 'old', exactly: false, not: true },
      {
        join: 'none',
        parts: [
          { field: 'words', text: 'a', exactly: false, not: false },
          { field: 'words', text: 'b', exactly: false, not: false },
        ],
      },
    ],
  });
});

test('a row without a value, and a group without rows, ask for nothing', () => {
  const empty: Group = {
    join: 'all',
    parts: [
      { field: 'tag', text: ' ', exactly: false, not: true },
      { join: 'none', parts: [] },
      { field: 'words', text: 'silt', exactly: false, not: false },
    ],
  };
  expect(treeOf(empty)).toEqual({ is: 'word', text: 'silt' });
  expect(groupOf({ is: 'all' })).toEqual({ join: 'all', parts: [] });
  expect(isGroup(groupOf({ is: 'word', text: 'silt' }))).toBe(true);
});

test.each([
  ['tidal near/5 barrier', '(tidal near/5 barrier)'],
  ['gate before/3 "spring closure" silt', '(gate before/3 "spring closure") silt'],
  ['a near/2 b near/2 c', '(a near/2 b) (b near/2 c)'],
  ['near the gate', 'near the gate'],
  ['tidal~ barr*', 'tidal~ barr*'],
])('“%s” is read as “%s”', (text, read) => {
  const { tree: asked } = parseQuery(text);
  expect(printQuery(asked.is === 'near' ? { is: 'and', parts: [asked] } : asked)).toBe(read);
});

test.each([
  ['year:soon', 'year:soon', '“soon” is no year; years are written 1980'],
  ['gate added:yesterday', 'added:yesterday', '“yesterday” is no added; dates are written 2026'],
  ['state:finished', 'state:finished', 'it knows to read, reading, read, none'],
  ['auther:okonjo', 'auther:okonjo', 'Did you mean “author:”?'],
  ['yaer:1980', 'yaer:1980', 'Did you mean “year:”?'],
  ['gate) silt', ')', 'closes nothing'],
  ['(gate', '(gate', 'does not close'],
  ['tag:used near/3 gate', 'tag:used near/3 gate', 'between words or phrases alone'],
  ['gate near/3', 'near/3', 'needs a word or a phrase after it'],
  ['gate near/300 silt', 'silt', '30 was taken'],
])('the mistake in “%s” is pointed at where it stands', (text, at, says) => {
  const [note] = parseQuery(text).notes;
  expect(text.slice(note!.start, note!.end)).toBe(at);
  expect(note!.says).toContain(says);
});

test('a field whose value is not yet written asks for nothing', () => {
  expect(parseQuery('gate tag:').tree).toEqual({ is: 'word', text: 'gate' });
});

test.each(QUERY_FIELDS)('what is offered for “%s” reads back as it was offered', (field) => {
  const value = 'Who “closes” (the gate)';
  expect(parseQuery(written(field, value)).tree).toMatchObject({ is: 'field', field, text: 'Who closes (the gate)' });
  expect(fieldOf(field).name).not.toBe('');
});

test.each([
  ['gate ta|', { begun: 'ta', start: 5, end: 7 }],
  ['tag:us|', { field: 'tag', begun: 'us', start: 0, end: 6 }],
  ['gate -in:"Chap|ter 2" x', { field: 'in', begun: 'Chap', start: 6, end: 20 }],
  ['citekey:ok|onjo', { field: 'key', begun: 'ok', start: 0, end: 14 }],
  ['gate |', undefined],
  ['"tidal ba|', undefined],
])('at the caret of “%s” is offered what may go on there', (text, typing) => {
  const caret = text.indexOf('|');
  expect(typingAt(text.replace('|', ''), caret)).toEqual(typing);
});

describe('days', () => {
  test.each([
    ['2026', { from: '2026-01-01', to: '2026-12-31' }],
    ['2024-02', { from: '2024-02-01', to: '2024-02-29' }],
    ['1872-02-18', { from: '1872-02-18', to: '1872-02-18' }],
    ['2026-03..', { from: '2026-03-01' }],
    ['..2026-03', { to: '2026-03-31' }],
    ['2026-05..2026-03', { from: '2026-03-01', to: '2026-05-31' }],
    ['<2026-03', { to: '2026-02-28' }],
    ['>2026-03', { from: '2026-04-01' }],
    ['7d', { last: 7 }],
    ['2w', { last: 14 }],
    ['2026-02-30', undefined],
    ['2026-13', undefined],
    ['soon', undefined],
    ['..', undefined],
  ])('%s', (text, range) => expect(parseDays(text)).toEqual(range));
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
