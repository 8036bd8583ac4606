/** Any question, answered by indexes and columns, beside one read through all records by the rules in plain words. */
import fc from 'fast-check';
import { afterAll, beforeAll, expect, test } from 'vitest';
import type { Changed, SourceRow } from '@pandecta/contract';
import {
  parseQuery,
  parseYears,
  printQuery,
  type FieldNode,
  type Node,
  type PhraseNode,
  type QueryField,
  type WordNode,
} from '@pandecta/core/query';
import { nameSpoken, type SourceRecord } from '@pandecta/core/source';
import { questionsOf } from '@pandecta/core/testing';
import { tokens } from '@pandecta/core/words';
import { startTestServer, type Person, type TestServer } from '../testing/server.ts';

const WORDS = ['barrier', 'barriers', 'tidal', 'Gate', 'closing', 'closed', 'ébb', 'marsh', 'of', '1872', 'sea-wall'];
const PEOPLE = ['Okonjo', 'Okonjo-Reed', 'van der Zande', 'Müller'];
const TAGS = ['used', 'to check'];

let server: TestServer;
let me: Person;
interface Known {
  id: string;
  record: SourceRecord;
  tags: string[];
  label: boolean;
  rating: number | null;
}
const library: Known[] = [];
/** What the saved search of this name asks. */
const SAVED = 'Gates, but no books';
const SAVED_ASK = { q: 'gate -kind:book' };

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
    ...(next(4) ? { issued: { 'date-parts': [[1870 + next(5), ...(next(2) ? [1 + next(12)] : [])]] } } : {}),
    ...(next(2) ? { language: ['en', 'de', 'nl'][next(3)] } : {}),
    ...(next(3) ? {} : { editor: [{ family: PEOPLE[next(PEOPLE.length)], given: 'E.' }], ISBN: '978-0-00-712345-?' }),
    note: `n${i}`,
  }));
  await me.import({ 'library.json': JSON.stringify(items) });
  const { rows } = await me.ask('', '&count=100');
  for (const name of TAGS) {
    const ids = rows.filter((_, i) => (i + name.length) % 3 === 0).map((r) => r.id);
    await me.at('POST', '/tagging', { ids, name, present: true });
  }
  const ids = rows.map((r) => r.id);
  const { id: label } = await me.at<Changed>('POST', '/labels', { name: 'Key authority', letter: 'K', tint: 'plum' });
  await me.at('POST', '/labelling', { ids: ids.filter((_, i) => i % 4 === 1), label, present: true });
  for (const rating of [2, 4]) await me.at('POST', '/ratings', { ids: ids.filter((_, i) => i % 5 === rating), rating });
  await me.at('POST', '/saved', { name: SAVED, ask: SAVED_ASK });
  await server.settle();
  for (const { id, tags, labels, rating } of (await me.ask('', '&count=100')).rows) {
    const { record } = await me.at<{ record: SourceRecord }>('GET', `/sources/${id}`);
    library.push({ id, record, tags: tags.map((t) => t.name), label: labels.length > 0, rating });
  }
});
afterAll(() => server.close());

const stems = (text: string): string[] => tokens(text).map((t) => t.stem);
const textsOf = ({ record }: { record: SourceRecord }, field?: string): string[] => {
  const all: Record<string, string[]> = {
    title: [record.title!],
    author: record.author!.map(nameSpoken),
    editor: (record.editor ?? []).map(nameSpoken),
    abstract: record.abstract ? [record.abstract] : [],
    rest: [
      record.note!,
      record.language ?? '',
      record.ISBN ?? '',
      String(record.issued?.['date-parts']?.[0]?.[0] ?? ''),
    ],
  };
  if (field === 'person') return [...all.author!, ...all.editor!];
  return field ? all[field]! : Object.values(all).flat();
};

/** How many letters one must alter, add or take away (Levenshtein), counted as the definition has it. */
function apart(a: string, b: string): number {
  if (!a || !b) return a.length + b.length;
  if (a[0] === b[0]) return apart(a.slice(1), b.slice(1));
  return 1 + Math.min(apart(a.slice(1), b), apart(a, b.slice(1)), apart(a.slice(1), b.slice(1)));
}

/** Whether a stem of a text is what a word asks for. */
function isMeant(word: WordNode, stem: string, isLast = true): boolean {
  const wanted = stems(word.text).at(-1)!;
  if (stem === wanted) return true;
  if (!word.close || !isLast || stem.length < 3) return false;
  return /^\p{L}+$/u.test(stem) && apart(stem, wanted) <= (wanted.length <= 5 ? 1 : 2);
}

/** The places of a text, of its first word and its last, at which a word or a phrase stands. */
function standsAt(text: string, node: WordNode | PhraseNode): [number, number][] {
  const there = stems(text);
  const wanted = stems(node.text);
  return there.flatMap((_, i): [number, number][] =>
    wanted.every((w, k) =>
      node.is === 'word' ? k < wanted.length - 1 || isMeant(node, there[i + k] ?? '') : there[i + k] === w,
    )
      ? [[i, i + wanted.length - 1]]
      : [],
  );
}

/** Whether a source answers a question: each word somewhere, a phrase without a gap, a year in its range. */
function answers(s: Known, node: Node): boolean {
  const hasAll = (texts: string[], wanted: string[]): boolean => {
    const there = new Set(texts.flatMap(stems));
    return wanted.every((w) => there.has(w));
  };
  const hasRun = (texts: string[], wanted: string[]): boolean =>
    texts.some((t) => stems(t).some((_, i, all) => wanted.every((w, k) => all[i + k] === w)));
  const inRange = (text: string, value: number | null | undefined): boolean => {
    const { from = -Infinity, to = Infinity } = parseYears(text)!;
    return typeof value === 'number' && from <= value && value <= to;
  };
  switch (node.is) {
    case 'all':
      return true;
    case 'and':
      return node.parts.every((p) => answers(s, p));
    case 'or':
      return node.parts.some((p) => answers(s, p));
    case 'not':
      return !answers(s, node.part);
    case 'word': {
      const there = textsOf(s).flatMap(stems);
      return stems(node.text).every((w, i, all) =>
        i < all.length - 1 ? there.includes(w) : there.some((t) => isMeant(node, t)),
      );
    }
    case 'phrase':
      return hasRun(textsOf(s), stems(node.text));
    case 'near':
      return textsOf(s).some((text) =>
        standsAt(text, node.left).some(([from, to]) =>
          standsAt(text, node.right).some(
            ([first, last]) =>
              (first > to && first - to <= node.within) || (!node.ordered && from > last && from - last <= node.within),
          ),
        ),
      );
    case 'field':
      return answersField(s, node, { hasAll, hasRun, inRange });
  }
}

function answersField(
  s: Known,
  { field, text, phrase }: FieldNode,
  {
    hasAll,
    hasRun,
    inRange,
  }: Record<'hasAll' | 'hasRun', (texts: string[], wanted: string[]) => boolean> & {
    inRange: (text: string, value: number | null | undefined) => boolean;
  },
): boolean {
  const [year, month] = s.record.issued?.['date-parts']?.[0] ?? [];
  switch (field) {
    case 'tag':
      return s.tags.includes(text);
    case 'label':
      return s.label;
    case 'rating':
      return inRange(text, s.rating);
    case 'year':
      return inRange(text, year);
    case 'date':
      // All the days it may be of lie in the range: of 1872 alone, the year must.
      return text === '1871-03..1872-06'
        ? year !== undefined && year * 100 + (month ?? 1) >= 187_103 && year * 100 + (month ?? 12) <= 187_206
        : year !== undefined && year < 1872;
    case 'kind':
      return s.record.type === text;
    case 'language':
      return s.record.language === text;
    case 'isbn':
      return Boolean(s.record.ISBN);
    case 'has':
      if (text === 'date') return year !== undefined;
      return text === 'abstract' ? Boolean(s.record.abstract) : s.tags.length > 0;
    case 'saved':
      return answers(s, parseQuery(SAVED_ASK.q).tree);
    default:
      return (phrase ? hasRun : hasAll)(textsOf(s, field), stems(text));
  }
}

const word = fc.constantFrom(...WORDS);
const run = fc.array(word, { minLength: 2, maxLength: 3 }).map((w) => w.join(' '));
const field = (name: QueryField, text: fc.Arbitrary<string>) =>
  text.map((t): Node => ({ is: 'field', field: name, text: t, phrase: /\s/.test(t) }));
const aWord = fc.oneof(
  word.map((text): WordNode => ({ is: 'word', text })),
  fc
    .constantFrom('barier', 'marhs', 'tidle', 'closd', 'gat')
    .map((text): WordNode => ({ is: 'word', text, close: true })),
);
const aPhrase = run.map((text): PhraseNode => ({ is: 'phrase', text }));
const leaf: fc.Arbitrary<Node> = fc.oneof(
  aWord,
  aPhrase,
  fc.record({
    is: fc.constant('near' as const),
    left: fc.oneof(aWord, aPhrase),
    right: aWord,
    within: fc.integer({ min: 1, max: 4 }),
    ordered: fc.boolean(),
  }),
  field('title', fc.oneof(word, run)),
  field('abstract', word),
  field('author', fc.constantFrom('okonjo', 'muller', 'zande')),
  field('editor', fc.constantFrom('okonjo', 'muller')),
  field('person', fc.constantFrom('okonjo', 'muller')),
  field('tag', fc.constantFrom(...TAGS)),
  field('label', fc.constant('Key authority')),
  field('rating', fc.constantFrom('2', '3-5', '<4')),
  field('year', fc.constantFrom('1870', '1871-1873', '-1872', '>1872')),
  field('date', fc.constantFrom('1871-03..1872-06', '<1872')),
  field('kind', fc.constantFrom('book', 'legal_case')),
  field('language', fc.constantFrom('de', 'nl')),
  field('has', fc.constantFrom('abstract', 'tag', 'date')),
  field('isbn', fc.constantFrom('978-0-00', '9780007')),
  field('saved', fc.constant(SAVED)),
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
    { numRuns: 300 },
  );
});
