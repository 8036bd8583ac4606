/** Files nobody would write, a few of each sort; `npm run bench -- fuzz` reads a hundred thousand. */
import fc from 'fast-check';
import { expect, test } from 'vitest';
import { broken } from './broken.ts';
import { readersOf } from './readers.ts';

const FILES = 200;
const readers = readersOf([
  {
    record: {
      type: 'article-journal',
      title: 'Marsh edges: {T}ides & <i>silt</i>',
      author: [{ family: 'Vance', given: 'Ines' }, { literal: 'Harbour Board' }],
      'container-title': 'Journal of Silt',
      issued: { 'date-parts': [[1999, 5]] },
      page: '1-20',
      DOI: '10.5555/edge',
      abstract: 'The ebb ran late that year.',
    },
    subjects: ['silt', 'ebb tide'],
  },
  {
    record: {
      type: 'chapter',
      title: 'Salt',
      editor: [{ family: 'Ito', given: 'Kenzo' }],
      issued: { season: 2, 'date-parts': [[2001]] },
      custom: { shelf: 7 },
    },
    subjects: [],
  },
]);

test.each(readers.map((r) => [r.name, r] as const))(
  '%s: whatever is broken in it, its reader goes on',
  async (_, r) => {
    const files = fc.sample(broken(r.texts), { numRuns: FILES, seed: 4700 });
    for (const [i, file] of files.entries())
      await expect((async () => r.read(file))(), `the ${i + 1}. file`).resolves.not.toThrow();
  },
);
