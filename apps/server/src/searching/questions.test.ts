/** Any question, answered by indexes and columns, beside one read through all records by the rules in plain words. */
import fc from 'fast-check';
import { afterAll, beforeAll, expect, test } from 'vitest';
import type { SourceRow } from '@pandecta/contract';
import { parseYears, printQuery, type Node } from '@pandecta/core/query';
import { nameSpoken, type SourceRecord } from '@pandecta/core/source';
import { questionsOf } from '@pandecta/core/testing';
import { tokens } from '@pandecta/core/words';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

const WORDS = ['barrier', 'barriers', 'tidal', 'Gate', 'closing', 'closed', 'ébb', 'marsh', 'of', '1872', 'sea-wall'];
const PEOPLE = ['Okonjo', 'Okonjo-Reed', 'van der Zande', 'Müller'];
const TAGS = ['used', 'to check'];

let server: TestServer;
let me: Person;
const library: { id: string; record: SourceRecord; tags: string[] }[] = [];

beforeAll(async () => {
  server = await startTestServer();
  me = await server.person('steward');
  // The same library every time: only the questions are left to chance.
  let seed = 7;
  const next = (below: number): number => (seed = (seed * 48_271) % 2_147_483_647) % below;
  const text = (least: number, most: number): string =>
    Array.from({ length: least + next(most) }, () => WORDS[next(WORDS.length)]).join(' ');
  const items = Array.from({ length: 60 }, (_, i) => ({
    type: (['book', 'article-journal', 'legal_case'] as const)[i % 3],
    title: text(1, 4),
    author: [{ family: PEOPLE[next(PEOPLE.length)], given: 'A.' }],
    ...(next(2) ? { abstract: text(2, 6) } : {}),
    ...(next(4) ? { issued: { 'date-parts': [[1870 + next(5)]] } } : {}),
    note: `n${i}`,
  }));
  await me.import({ 'library.json': JSON.stringify(items) });
  const { rows } = await me.ask('', '&count=100');
  for (const name of TAGS) {
    const ids = rows.filter((_, i) => (i + name.length) % 3 === 0).map((r) => r.id);
    await me.at('POST', '/tagging', { ids, name, present: true });
  }
  await server.settle();
  for (const { id, tags } of (await me.ask('', '&count=100')).rows) {
    const { record } = await me.at<{ record: SourceRecord }>('GET', `/sources/${id}`);
    library.push({ id, record, tags: tags.map((t) => t.name) });
  }
}, 60_000);
afterAll(() => server.close());

const stems = (text: string): string[] => tokens(text).map((t) => t.stem);
const textsOf = ({ record }: { record: SourceRecord }, field?: string): string[] => {
  const all: Record<string, string[]> = {
    title: [record.title!],
    author: record.author!.map(nameSpoken),
    abstract: record.abstract ? [record.abstract] : [],
    rest: [record.note!, String(record.issued?.['date-parts']?.[0]?.[0] ?? '')],
  };
  return field ? all[field]! : Object.values(all).flat();
};

/** Whether a source answers a question: each word somewhere, a phrase without a gap, a year in its range. */
function answers(s: (typeof library)[number], node: Node): boolean {
  const hasAll = (texts: string[], wanted: string[]): boolean => {
    const there = new Set(texts.flatMap(stems));
    return wanted.every((w) => there.has(w));
  };
  const hasRun = (texts: string[], wanted: string[]): boolean =>
    texts.some((t) => stems(t).some((_, i, all) => wanted.every((w, k) => all[i + k] === w)));
  switch (node.is) {
    case 'all':
      return true;
    case 'and':
      return node.parts.every((p) => answers(s, p));
    case 'or':
      return node.parts.some((p) => answers(s, p));
    case 'not':
      return !answers(s, node.part);
    case 'word':
      return hasAll(textsOf(s), stems(node.text));
    case 'phrase':
      return hasRun(textsOf(s), stems(node.text));
    case 'field': {
      if (node.field === 'tag') return s.tags.includes(node.text);
      if (node.field === 'year') {
        const year = s.record.issued?.['date-parts']?.[0]?.[0];
        const { from = -Infinity, to = Infinity } = parseYears(node.text)!;
        return year !== undefined && from <= year && year <= to;
      }
      if (node.field === 'kind') return s.record.type === node.text;
      return (node.phrase ? hasRun : hasAll)(textsOf(s, node.field), stems(node.text));
    }
  }
}

const word = fc.constantFrom(...WORDS);
const run = fc.array(word, { minLength: 2, maxLength: 3 }).map((w) => w.join(' '));
const field = (name: 'title' | 'author' | 'abstract' | 'tag' | 'year' | 'kind', text: fc.Arbitrary<string>) =>
  text.map((t): Node => ({ is: 'field', field: name, text: t, phrase: /\s/.test(t) }));
const leaf: fc.Arbitrary<Node> = fc.oneof(
  word.map((text): Node => ({ is: 'word', text })),
  run.map((text): Node => ({ is: 'phrase', text })),
  field('title', fc.oneof(word, run)),
  field('abstract', word),
  field('author', fc.constantFrom('okonjo', 'muller', 'zande')),
  field('tag', fc.constantFrom(...TAGS)),
  field('year', fc.constantFrom('1870', '1871-1873', '-1872', '>1872')),
  field('kind', fc.constantFrom('book', 'legal_case')),
);
const question = questionsOf(leaf);

test('any question finds what reading through all records finds, in whatever order', async () => {
  const titleOf = (ids: string[]): string[] => ids.map((id) => library.find((s) => s.id === id)!.record.note!).sort();
  await fc.assert(
    fc.asyncProperty(question, fc.constantFrom('', '&sort=title', '&sort=-year,author'), async (node, sort) => {
      const q = printQuery(node);
      const { rows, total } = await me.ask(q, `&count=100${sort}`);
      const expected = library.filter((s) => answers(s, node)).map((s) => s.id);
      expect([q, titleOf(rows.map((r: SourceRow) => r.id))]).toEqual([q, titleOf(expected)]);
      expect(total).toBe(expected.length);
    }),
    { numRuns: 150 },
  );
}, 60_000);
