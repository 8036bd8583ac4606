import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { alterer, NotAnAlteration, type Alteration } from './alter.ts';

const after = (a: Alteration, now: unknown): unknown => alterer(a)(now as never);

describe('a field of many records is altered', () => {
  test.each<[string, Alteration, unknown, unknown]>([
    ['set', { field: 'publisher', way: 'set', value: 'Tidemark' }, 'Tide mark', 'Tidemark'],
    ['set where it is empty', { field: 'language', way: 'set', value: 'en', onlyEmpty: true }, 'de', undefined],
    ['set where it is empty', { field: 'language', way: 'set', value: 'en', onlyEmpty: true }, null, 'en'],
    ['taken away', { field: 'note', way: 'clear' }, 'x', null],
    ['what is away already stays so', { field: 'note', way: 'clear' }, null, undefined],
    ['written on', { field: 'note', way: 'append', value: '; seen' }, 'Box 4', 'Box 4; seen'],
    ['written before', { field: 'archive_location', way: 'prepend', value: 'Box ' }, '4', 'Box 4'],
    [
      'a part replaced',
      { field: 'publisher', way: 'replace', find: 'press', value: 'Press' },
      'Marsh PRESS',
      'Marsh Press',
    ],
    [
      'told by case',
      { field: 'publisher', way: 'replace', find: 'press', value: 'x', exactCase: true },
      'PRESS',
      undefined,
    ],
    [
      'signs of expressions are signs',
      { field: 'title', way: 'replace', find: '(1)', value: '$1' },
      'Tides (1)',
      'Tides $1',
    ],
    [
      'by an expression with groups',
      { field: 'page', way: 'replace', find: '^pp?\\. *(\\d+)', value: '$1', expression: true },
      'pp. 12-19',
      '12-19',
    ],
    ['replaced by nothing, the field goes', { field: 'note', way: 'replace', find: '.*', expression: true }, 'x', null],
    [
      'another person',
      { field: 'editor', way: 'append', value: [{ family: 'Quill' }] },
      [{ family: 'Vale' }],
      [{ family: 'Vale' }, { family: 'Quill' }],
    ],
    [
      'who is named already',
      { field: 'editor', way: 'append', value: [{ family: 'Vale' }] },
      [{ family: 'Vale' }],
      undefined,
    ],
    ['its kind', { field: 'type', way: 'set', value: 'report' }, 'book', 'report'],
  ])('%s', (_, alteration, now, wanted) => {
    expect(after(alteration, now)).toEqual(wanted);
  });

  test.each<[string, Alteration]>([
    ['a kind there is not', { field: 'type', way: 'set', value: 'novel' }],
    ['no kind', { field: 'type', way: 'clear' }],
    ['text behind a date', { field: 'issued', way: 'append', value: 'x' }],
    ['an expression that ends too early', { field: 'title', way: 'replace', find: '(', expression: true }],
    ['nothing to look for', { field: 'title', way: 'replace', find: '' }],
    ['names looked through', { field: 'author', way: 'replace', find: 'x' }],
  ])('%s is refused before any record is looked at', (_, alteration) => {
    expect(() => alterer(alteration)).toThrow(NotAnAlteration);
  });

  test('any text looked for literally is replaced as plain text would be', () => {
    fc.assert(
      fc.property(
        fc.string({ minLength: 1, maxLength: 5 }),
        fc.string({ maxLength: 5 }),
        fc.string(),
        (find, put, text) => {
          const wanted = text.split(find).join(put);
          const alteration = { field: 'title', way: 'replace', find, value: put, exactCase: true } as const;
          expect(after(alteration, text)).toEqual(wanted === text ? undefined : wanted || null);
        },
      ),
    );
  });

  test('an expression that others take for ever over takes no longer than the text is long', () => {
    const alteration = { field: 'title', way: 'replace', find: '(a+)+$', value: 'x', expression: true } as const;
    expect(after(alteration, `${'a'.repeat(50_000)}b`)).toBeUndefined();
  });
});
