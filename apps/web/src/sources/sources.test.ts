import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { Name, SourceRecord } from '@pandecta/core/source';
import { anyRecord } from '@pandecta/core/testing';
import { nextSort, sortInWords } from './ledger/columns.ts';
import { asksOf, fieldsOf, fieldToText, textToField, troubleOf } from './fields.ts';

test('a click sorts by a key, again the other way round, with Shift as a further key', () => {
  expect(nextSort('', 'title', false)).toBe('title');
  expect(nextSort('title', 'title', false)).toBe('-title');
  expect(nextSort('-title', 'year', false)).toBe('-year');
  expect(nextSort('-year', 'title', true)).toBe('-year,title');
  expect(nextSort('-year,title', 'year', true)).toBe('year,title');
});

test('the sort is told in words', () => {
  expect(sortInWords('-year,title', false)).toBe('year ↓, then title ↑');
  expect([sortInWords('', true), sortInWords('', false)]).toEqual(['relevance', 'added ↓']);
});

test('what is shown of a field reads back to the same value', () => {
  const record: SourceRecord = {
    type: 'book',
    title: 'Silt',
    author: [
      { family: 'Okonjo', given: 'Marit' },
      { literal: 'Harbour Commission, Sallow' },
      { family: 'Zande', given: 'W.', 'non-dropping-particle': 'van der' },
    ],
    issued: { 'date-parts': [[1872, 2, 18]] },
  };
  for (const field of ['title', 'author', 'issued'] as const)
    expect(textToField(field, fieldToText(field, record[field]))).toEqual(record[field]);
  expect(textToField('title', '  ')).toBeNull();
});

describe('the names of a record', () => {
  const names = anyRecord.map((r) => r.author ?? []).filter((all) => all.some((n) => n.family || n.literal));
  const shown = (all: Name[]): string => fieldToText('author', all);

  test('stay what they were, whatever they hold, when the text is left as it stands', () => {
    fc.assert(
      fc.property(names, (all) => {
        fc.pre(all.every((n) => shown([n])));
        expect(textToField('author', shown(all), all)).toEqual(all);
      }),
    );
  });

  test('are left alone where another of them is changed, put in or taken out', () => {
    const ludwig: Name = { family: 'Veer', given: 'Ludo', 'dropping-particle': 'van der', suffix: 'Esq.' };
    const board: Name = { literal: 'Harbour Board; Sallow' };
    const before = [ludwig, board, { family: 'Okonjo', given: 'M.' }];
    const text = shown(before);
    expect(textToField('author', text.replace('Okonjo, M.', 'Okonjo, Marit'), before)).toEqual([
      ludwig,
      board,
      { family: 'Okonjo', given: 'Marit' },
    ]);
    expect(textToField('author', `Vance, Ines\n${text}`, before)).toEqual([
      { family: 'Vance', given: 'Ines' },
      ...before,
    ]);
    expect(textToField('author', text.split('\n').slice(0, 2).join('\n'), before)).toEqual([ludwig, board]);
  });

  test('are read one a line, or with semicolons between them, but not within braces', () => {
    expect(textToField('author', 'Okonjo, Marit; Vance, Ines\n{Board; Sallow}')).toEqual([
      { family: 'Okonjo', given: 'Marit' },
      { family: 'Vance', given: 'Ines' },
      { literal: 'Board; Sallow' },
    ]);
  });
});

test('a date is shown as one can type it, and what is shown reads back to the same date', () => {
  const day = fc.tuple(
    fc.integer({ min: 1000, max: 2100 }),
    fc.integer({ min: 1, max: 12 }),
    fc.integer({ min: 1, max: 28 }),
  );
  const date = fc.oneof(
    fc.tuple(day, fc.integer({ min: 1, max: 3 })).map(([d, n]) => ({ 'date-parts': [d.slice(0, n)] })),
    fc.tuple(day, day).map((days) => ({
      'date-parts': days.sort((a, b) => a.join().localeCompare(b.join(), 'en', { numeric: true })),
      circa: true,
    })),
    fc.constant({ 'date-parts': [[1560], [1569]], edtf: '156X' }),
    fc.integer({ min: -3000, max: -1 }).map((y) => ({ 'date-parts': [[y]] })),
    fc.integer({ min: 1000, max: 2100 }).map((y) => ({ 'date-parts': [[y], [0]] })),
    fc.integer({ min: 1, max: 4 }).map((season) => ({ 'date-parts': [[1872]], season })),
  );
  fc.assert(
    fc.property(date, (d) => {
      expect(textToField('issued', fieldToText('issued', d))).toEqual(d);
    }),
  );
  expect(fieldToText('issued', { 'date-parts': [[-44]] })).toBe('44 BC');
  const backward = { 'date-parts': [[2009], [2001]] };
  expect(textToField('issued', '2009/2001', backward)).toBe(backward);
  expect(textToField('issued', '2009/2001')).toEqual({ literal: '2009/2001' });
  expect(troubleOf('issued', '2009/2001')).toBe('The end is before the beginning; kept as typed');
  expect(troubleOf('issued', '2001/2009')).toBe('');
});

test('the fields of the kind come first, then whatever else the record holds', () => {
  const fields = fieldsOf({ type: 'book', title: 'x', authority: 'A court' }, 'book');
  expect(fields.slice(0, 3)).toEqual(['title', 'author', 'issued']);
  expect(fields.at(-1)).toBe('authority');
});

test('names pasted in one line are told apart; what stands in braces is one', () => {
  expect(textToField('author', 'Ngata, R. and S. Vale')).toEqual([
    { family: 'Ngata', given: 'R.' },
    { given: 'S.', family: 'Vale' },
  ]);
  expect(textToField('author', '{Tern and Daughter}')).toEqual([{ literal: 'Tern and Daughter' }]);
});

test('a date of three numbers asks which way round it is meant, unless it can be only one', () => {
  expect(asksOf('issued', '3/7/2019').map((a) => a.value)).toEqual(['2019-07-03', '2019-03-07']);
  expect(asksOf('issued', '7/7/2019')).toEqual([]);
  expect(textToField('issued', '25/7/2019')).toEqual({ 'date-parts': [[2019, 7, 25]] });
  expect(asksOf('title', '3/7/2019')).toEqual([]);
  // As people type them, kept as EDTF.
  for (const [text, edtf] of [
    ['spring 1872', '1872-21'],
    ['c. 1890', '1890~'],
    ['1961–1974', '1961/1974'],
  ])
    expect(fieldToText('issued', textToField('issued', text!))).toBe(edtf);
});
