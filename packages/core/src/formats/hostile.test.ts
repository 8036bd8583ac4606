/** Whatever a file holds, what is read of it can be kept: by a database, and by every program that reads JSON. */
import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { isFieldValue } from '../source/index.ts';
import { depthOf, hasHalfEscapes } from '../text/index.ts';
import {
  decodeText,
  EXPORT_FORMATS,
  readBibtex,
  readCslJson,
  readRis,
  readSources,
  STUMBLED,
  tryEntry,
  writeSources,
  type ReadResult,
} from './index.ts';

const deep = (n: number, open: string, close: string): string => open.repeat(n) + close.repeat(n);

/** Texts that have broken readers before, or programs behind them. */
const HOSTILE = [
  '\uD83D',
  '\\ud83d',
  '\\u0000',
  '\0',
  `${'x'.repeat(299)}🙂`,
  '🙂'.repeat(400),
  '99999999999999999999',
  '-99999999999',
  'Y99999999999999999999',
  '{'.repeat(300),
  '}',
  '\\',
  '"',
  deep(300, '{', '}'),
  deep(300, '[', ']'),
  '$'.repeat(9),
  "\\'".repeat(500),
  '\\char"D800',
  '\\u202E',
  '\u2028',
  '__proto__',
  'constructor',
  '10.5555/',
  'http://[',
  '%',
  '&#xD800;',
];
const hostile = fc.oneof(fc.constantFrom(...HOSTILE), fc.string({ unit: 'binary', maxLength: 30 }));

/** The text of a file that holds this text. */
const asRead = (text: string): string => decodeText(new TextEncoder().encode(text)).text;

const soundToKeep = ({ sources, messages }: ReadResult): void => {
  expect(messages.filter((m) => m.rule === STUMBLED)).toEqual([]);
  for (const { record, subjects } of sources) {
    const json = JSON.stringify({ record, subjects });
    expect(hasHalfEscapes(json)).toBe(false);
    expect(json).not.toMatch(/(?<!\\)(?:\\\\)*\\u0000/);
    expect(depthOf(json)).toBeLessThan(70);
    for (const [field, value] of Object.entries(record))
      expect([field, isFieldValue(field, value)]).toEqual([field, true]);
  }
};

describe('hostile values', () => {
  test('in BibTeX', () => {
    const fields = [
      'title',
      'author',
      'year',
      'date',
      'month',
      'doi',
      'url',
      'keywords',
      'crossref',
      'csl',
      'note',
      'pages',
    ];
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.constantFrom(...fields), hostile), { maxLength: 6 }), (list) => {
        const body = list.map(([name, value]) => `  ${name} = {${value}},\n`).join('');
        soundToKeep(readBibtex(asRead(`@book{a,\n${body}}\n@book{b, title={Sound}}`)));
      }),
      { numRuns: 300 },
    );
  });

  test('in RIS', () => {
    const tags = ['TI', 'AU', 'PY', 'DA', 'DO', 'UR', 'KW', 'U5', 'N1', 'SP', 'SN'];
    fc.assert(
      fc.property(fc.array(fc.tuple(fc.constantFrom(...tags), hostile), { maxLength: 6 }), (list) => {
        const read = readRis(
          asRead(
            `TY  - BOOK\n${list.map(([t, v]) => `${t}  - ${v}\n`).join('')}ER  - \nTY  - BOOK\nTI  - Sound\nER  - \n`,
          ),
        );
        soundToKeep(read);
        expect(read.sources.at(-1)!.record.title).toBe('Sound');
      }),
      { numRuns: 300 },
    );
  });

  test('in CSL-JSON, of any shape', () => {
    const date = fc.record({ 'date-parts': fc.jsonValue({ maxDepth: 2 }) });
    const value = fc.oneof(hostile, fc.jsonValue(), fc.integer(), fc.constant({ 'date-parts': [[99999999999]] }), date);
    const item = fc.dictionary(fc.constantFrom('title', 'author', 'issued', 'DOI', 'keyword', 'custom', 'x'), value);
    fc.assert(
      fc.property(fc.array(item, { maxLength: 3 }), (items) => {
        const read = readCslJson(JSON.stringify([...items, { type: 'book', title: 'Sound' }]));
        soundToKeep(read);
        expect(read.sources.at(-1)!.record.title).toBe('Sound');
      }),
      { numRuns: 300 },
    );
  });

  test('come back from every format as they were read', () => {
    for (const text of HOSTILE) {
      const { sources } = readCslJson(JSON.stringify([{ type: 'book', title: text, note: text }]));
      for (const format of EXPORT_FORMATS) {
        const back = readSources(writeSources(sources, format))!.sources[0]!.record;
        expect([format, back.title, back.note]).toEqual([format, sources[0]!.record.title, sources[0]!.record.note]);
      }
    }
  });
});

describe('an entry that cannot be kept costs no other', () => {
  test('a date that is not in a list of dates is one all the same, and one that is none is kept aside', () => {
    const read = (parts: unknown): unknown =>
      readCslJson(
        JSON.stringify([
          { type: 'book', issued: { 'date-parts': parts } },
          { type: 'book', title: 'Two' },
        ]),
      )
        .sources.map((s) => s.record)
        .map((r) => r.issued ?? r.custom?.['csl-json'] ?? r.title);
    expect(read([2020, 5])).toEqual([{ 'date-parts': [[2020, 5]] }, 'Two']);
    expect(read(['2020', '05'])).toEqual([{ 'date-parts': [[2020, 5]] }, 'Two']);
    expect(read([[2020, null, '']])).toEqual([{ 'date-parts': [[2020]] }, 'Two']);
    for (const none of [[{ a: 1 }], [true], [null], [['']], [['x']], [[2020], 5], []])
      expect(read(none)).toEqual([{ issued: { 'date-parts': none } }, 'Two']);
  });

  test('nor does one that makes its reader stumble, and it is said where it stands', () => {
    expect(tryEntry(7, () => 'read').given).toBe('read');
    const stumbles = (): never => {
      throw new TypeError('x is not iterable');
    };
    expect(tryEntry(7, stumbles).message).toMatchObject({ severity: 'error', rule: STUMBLED, line: 7 });
  });

  test('JSON nested too deep is named and left out', () => {
    const text = `[{"type":"book","title":"One"},\n{"type":"book","custom":${'{"a":'.repeat(50_000)}1${'}'.repeat(50_000)}},\n{"type":"book","title":"Two"}]`;
    const read = readCslJson(text);
    expect(read.sources.map((s) => s.record.title)).toEqual(['One', 'Two']);
    expect(read.messages).toEqual([expect.objectContaining({ rule: 'too-deep', line: 2 })]);
  });

  test('braces, accents, formulas and references nested without end are read flat', () => {
    const chain = Array.from({ length: 3000 }, (_, i) => `@book{k${i}, crossref={k${i + 1}}, title={T${i}}}`).join(
      '\n',
    );
    for (const value of [deep(50_000, '{', '}'), "\\'".repeat(50_000), `$${'_{'.repeat(20_000)}${'}'.repeat(20_000)}$`])
      expect(readBibtex(`@book{a, title={${value}}}\n@book{b, title={Sound}}`).sources[1]!.record.title).toBe('Sound');
    expect(readBibtex(chain).sources).toHaveLength(3000);
  });

  test('a year beyond any date is kept as it was given', () => {
    const read = readCslJson('[{"type":"book","title":"T","issued":{"date-parts":[[99999999999]]}}]');
    expect(read.sources[0]!.record.custom).toEqual({ 'csl-json': { issued: { 'date-parts': [[99999999999]] } } });
    expect(read.messages).toEqual([expect.objectContaining({ rule: 'wrong-shape' })]);
  });
});

const blanks = '\t'.repeat(5000);
test.each([
  ['RIS', `TY  - BOOK\nTI  - Ebb${blanks}tide\nER  - \n`],
  ['BibTeX', `@book{a, title={Ebb${'~'.repeat(5000)}tide}}`],
  ['CSL-JSON', JSON.stringify([{ type: 'book', title: `Ebb${blanks}tide` }])],
  ['CSL-YAML', `- type: book\n  title: "Ebb${'\\t'.repeat(5000)}tide"\n`],
  ['a table', `title,author\nEbb${blanks}tide,Vance\n`],
])('a run of blanks that says nothing is kept short in %s', (_, text) => {
  const { title } = readSources(text)!.sources[0]!.record;
  expect(title).toMatch(/^Ebb\s{1,100}tide$/);
});

test('in a table a long run of tabs is cells that are empty', () => {
  const cells = (first: string, last: string): string => [first, ...Array<string>(300).fill(''), last].join('\t');
  const headings = ['title', ...Array.from({ length: 300 }, (_, i) => `c${i}`), 'author'].join('\t');
  const { record } = readSources(`${headings}\n${cells('Ebb', 'Vance, Ida')}\n`)!.sources[0]!;
  expect([record.title, record.author]).toEqual(['Ebb', [{ family: 'Vance', given: 'Ida' }]]);
});
