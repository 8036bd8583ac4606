/**
 * What sees text from outside takes time that grows with its length, not with a power of it. Each text was found to make an
 * expression take cubic time, or worse; the analysis that found them is of recheck 4.5 (npm). Twice the text may take four
 * times as long, which a quadratic one does; a cubic one takes eight.
 */
import { expect, test } from 'vitest';
import { noticeYear } from '../documents/printed.ts';
import { isPlaceholder } from '../documents/title.ts';
import { readSources } from '../formats/index.ts';
import { normaliseDoi } from '../identifiers/index.ts';
import { proof } from '../proofing/index.ts';
import { readReference, splitReferences } from '../references/index.ts';
import type { SourceRecord } from '../source/index.ts';

const book = (more: object): SourceRecord => ({ type: 'book', title: 'Tides', ...more }) as SourceRecord;
const look = (more: object): unknown => proof({ record: book(more), thisYear: 2026 });

test.each<[string, (n: number) => unknown]>([
  ['a title of a template, over and over', (n) => isPlaceholder(`${'no '.repeat(n / 3)}x`)],
  [
    'a body whose name is of great letters',
    (n) => look({ author: [{ literal: `A${'B'.repeat(n)}, ${'C'.repeat(n)}1` }] }),
  ],
  ['quotation marks that are never closed', (n) => look({ title: `«${' '.repeat(n)}x` })],
  ['quotation marks that are only opened', (n) => look({ title: `„‚`.repeat(n / 2) })],
  ['a DOI behind much space', (n) => normaliseDoi(`doi${' '.repeat(n)}x`)],
  ['names parted by much space', (n) => readReference(`Vance, I.${' '.repeat(n)}x (1999). Tides.`)],
  ['a list with much space at a hyphen', (n) => splitReferences(`[1] tide-${'\n'.repeat(n)}X\n[2] ebb`)],
  ['editors that never come', (n) => readReference(`Vance, I. (1999). Tides. In ${'A. '.repeat(n / 3)}`)],
  ['a notice of copyright that says nothing', (n) => noticeYear(`copyright${' '.repeat(n)}x arxiv:${'['.repeat(n)}`)],
  ['a file of lines that begin a record of YAML', (n) => readSources(`${'---\n'.repeat(n / 4)}x`)],
])('%s', (_, work) => {
  const once = (n: number): number => {
    const times = [0, 1, 2].map(() => {
      const start = performance.now();
      work(n);
      return performance.now() - start;
    });
    return Math.min(...times);
  };
  once(500);
  // Four times the text: 16 times as long if quadratic, 64 if cubic. Below a few milliseconds a clock tells nothing. What grows is
  // slow each time; a machine that others use is slow now and then.
  let [short, long] = [0, Infinity];
  for (let round = 0; round < 5 && long >= Math.max(60, 32 * short); round += 1)
    [short, long] = [once(2000), once(8000)];
  expect(long).toBeLessThan(Math.max(60, 32 * short));
});
