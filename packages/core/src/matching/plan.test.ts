import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import type { SourceRecord } from '../source/index.ts';
import { anySource } from '../testing/index.ts';
import { ALL_OF_THEM, bestOfField, mergedRecord, planMerge, type From } from './index.ts';

const a: SourceRecord = { type: 'article-journal', title: 'Who closes the gate', author: [{ family: 'Okonjo', given: 'Marit' }], page: '311-328' }; // prettier-ignore
const person = { from: 'person', sure: 1 };

describe('of two values the better stands', () => {
  test.each<[string, string, Partial<SourceRecord>, Partial<SourceRecord>]>([
    ['mixed case over capitals', 'title', {}, { title: 'WHO CLOSES THE GATE' }],
    ['full names over initials', 'author', {}, { author: [{ family: 'Okonjo', given: 'M.' }] }],
    ['all people over the first', 'author', { author: [...a.author!, { family: 'Vance', given: 'Ines' }] }, {}],
    ['whole pages over shortened ones', 'page', {}, { page: '311-28' }],
    ['sound letters over mangled ones', 'title', { title: 'Café at the gate' }, { title: 'CafÃ© at the gate' }],
    [
      'a journal in full over one abbreviated',
      'container-title',
      { 'container-title': 'Coastal Processes' },
      { 'container-title': 'Coast. Proc.' },
    ],
    [
      'a date with its day over a year',
      'issued',
      { issued: { 'date-parts': [[2014, 3, 1]] } },
      { issued: { 'date-parts': [[2014]] } },
    ],
    ['a particular kind over a vague one', 'type', {}, { type: 'document' }],
  ])('%s', (_, field, better, worse) => {
    const [x, y] = [
      { ...a, ...better },
      { ...a, ...worse },
    ];
    expect([bestOfField(field, [x, y]), bestOfField(field, [y, x])]).toEqual([0, 1]);
  });

  test('what a person mended in a record that came over what came, a registry over a file’s name', () => {
    const [x, y] = [{ ...a, title: 'Who closes this gate' }, a];
    const mended: From = { provenance: { title: person, page: { from: 'import', sure: 1 } } };
    const typed: From = { provenance: { title: person, page: person } };
    const registry: From = { provenance: { title: { from: 'identifier registry', sure: 1 } } };
    expect(bestOfField('title', [x, y], [mended, registry])).toBe(0);
    expect(bestOfField('title', [x, y], [typed, registry])).toBe(1);
  });

  test('of equal ones what was added last, of whichever order; the first where that is not known', () => {
    const old: From = { added: '2026-01-02' };
    const young: From = { added: '2026-03-04' };
    expect([bestOfField('title', [a, a], [old, young]), bestOfField('title', [a, a], [young, old])]).toEqual([1, 0]);
    expect(bestOfField('title', [a, a])).toBe(0);
  });
});

test('notes and numbers that differ are put together, what one has within the other is there once', () => {
  const records: SourceRecord[] = [
    { ...a, note: 'Seen at low water', ISBN: '978-0-306-40615-7' },
    { ...a, note: 'Seen at low water; lent by Ines', ISBN: '9780306406157 0-306-40615-2' },
  ];
  const plan = planMerge(records);
  expect([plan.from.note, plan.from.ISBN, plan.from.title]).toEqual([1, ALL_OF_THEM, 0]);
  expect(mergedRecord(records, plan.from)).toMatchObject({
    note: 'Seen at low water; lent by Ines',
    ISBN: '978-0-306-40615-7, 0-306-40615-2',
  });
});

test('whatever records are merged, each field any of them has is there, with a value of one of them or of all', () => {
  fc.assert(
    fc.property(fc.array(anySource, { minLength: 1, maxLength: 4 }), (sources) => {
      const records = sources.map((s) => s.record);
      const { from } = planMerge(records);
      const merged = mergedRecord(records, from) as unknown as Record<string, unknown>;
      for (const record of records)
        for (const [field, value] of Object.entries(record)) {
          if (field === 'custom') continue;
          const values = records.map((r) => JSON.stringify((r as unknown as Record<string, unknown>)[field]));
          if (from[field] === ALL_OF_THEM) {
            // Every letter of it is in what they came to.
            const kept = String(merged[field])
              .replace(/[^\p{L}\p{N}]/gu, '')
              .toLowerCase();
            const words = String(value).match(/[\p{L}\p{N}]+/gu) ?? [];
            if (field === 'note') for (const w of words) expect(kept).toContain(w.toLowerCase());
          } else expect(values).toContain(JSON.stringify(merged[field]));
        }
      expect(mergedRecord([merged as unknown as SourceRecord], planMerge([merged as unknown as SourceRecord]).from)).toEqual(merged); // prettier-ignore
    }),
  );
});
