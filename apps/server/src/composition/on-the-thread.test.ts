/** What may run on the thread that answers everybody takes time in proportion to what it is given: all of it, doubled. */
import { Session } from 'node:inspector';
import { setFlagsFromString } from 'node:v8';
import { describe, expect, test } from 'vitest';
import * as changes from '@pandecta/core/changes';
import { freeCitationKey } from '@pandecta/core/citation-key';
import { confidenceOf, packWords, rectsOf, unpackWords, type PageWord } from '@pandecta/core/documents';
import { checkColumns } from '@pandecta/core/formats';
import { bestOf, bestOfField } from '@pandecta/core/matching';
import { mostAlike } from '@pandecta/core/narrowing';
import * as notes from '@pandecta/core/notes';
import { withPictures } from '@pandecta/core/pages';
import type { SourceRecord } from '@pandecta/core/source';
import * as text from '@pandecta/core/text';
import { alike, writeSkos, writeVocabularyTable } from '@pandecta/core/vocabulary';
import { excerpt, findLit, Lexemes, snippet, tokens } from '@pandecta/core/words';
import { ON_THE_THREAD } from '../../on-the-thread.mjs';

// Calls that the compiler inlines are not counted, so optimisation is turned off.
setFlagsFromString('--no-opt');

/**
 * Counts how often the most executed block of each of our functions ran. It grows as running time does, but is the same on
 * every machine. Work inside one built-in call (`sort`, `splice`) is not counted.
 */
function stepsOf(work: () => unknown): number {
  const session = new Session();
  session.connect();
  const ask = <T>(method: string, params?: object): T => {
    let reply: T | undefined;
    session.post(method, params, (error, result) => {
      if (error) throw error;
      reply = result as T;
    });
    return reply!;
  };
  ask('Profiler.enable');
  ask('Profiler.startPreciseCoverage', { callCount: true, detailed: true });
  // What is met for the first time is counted otherwise.
  work();
  ask('Profiler.takePreciseCoverage');
  work();
  const { result } = ask<{
    result: { url: string; functions: { ranges: { count: number }[] }[] }[];
  }>('Profiler.takePreciseCoverage');
  ask('Profiler.stopPreciseCoverage');
  session.disconnect();
  return result
    .filter(({ url }) => !/node_modules|^node:/.test(url))
    .flatMap(({ functions }) => functions.map(({ ranges }) => Math.max(...ranges.map((r) => r.count))))
    .reduce((a, b) => a + b, 0);
}

const list = <T>(n: number, of: (i: number) => T): T[] => Array.from({ length: n }, (_, i) => of(i));
const MEMBER = '00000000-0000-4000-8000-000000000001';
const id = (i: number): string => `00000000-0000-4000-8000-${String(i).padStart(12, '0')}`;
const change = (n: number): changes.Change => ({
  do: 'all',
  says: '',
  changes: list(n, (i) => ({
    do: 'edit',
    source: id(i),
    fields: { title: { before: 'Tides', after: `Ebb ${i}` } },
  })),
});
const stored = { version: 1 } as never;
const records = (n: number): SourceRecord[] =>
  list(n, (i) => ({ type: 'book', title: `Tides ${i}`, publisher: `Quillback ${i % 7}`, note: `Copy ${i}` }));
const words = (n: number): PageWord[] =>
  list(n, (i) => ({
    start: i * 6,
    end: i * 6 + 5,
    box: { x0: i % 500, y0: (i >> 3) % 700, x1: (i % 500) + 4, y1: ((i >> 3) % 700) + 9 },
  }));
const prose = (n: number): string => list(n, (i) => `tide ${i} ebbs`).join(' ');
const sought = { stems: new Set(['tide']), prefixes: ['eb'], phrases: [['tide', 'ebb']] };
const concepts = (n: number) =>
  list(n, (i) => ({
    id: id(i),
    name: `Gate ${i}`,
    says: '',
    heading: `Kind ${i % 9}`,
    broader: i ? id(i - 1) : undefined,
  }));

const origin = (i: number): notes.Origin => ({ source: id(i), file: null, page: i, cited: String(i), mark: null });
const note = (n: number): notes.DocNode => ({
  type: 'doc',
  content: list(n, (i) => notes.quotation(origin(i), `tide ${i}`)),
});

/** Each with how it is called with something of size n. */
const TRIED: Record<string, (n: number) => unknown> = {
  'changes.describe': (n) => changes.describe(change(n)),
  'changes.fromJson': (n) => changes.fromJson(change(n), stored),
  'changes.invert': (n) => changes.invert(change(n)),
  'changes.isEmpty': (n) => changes.isEmpty(change(n)),
  'changes.kindsIn': (n) => changes.kindsIn(change(n)),
  'changes.makes': (n) => changes.makes(change(n)),
  'changes.ownerOf': (n) => changes.ownerOf(change(n)),
  'changes.ownersIn': (n) => changes.ownersIn(change(n)),
  'changes.seenBy': (n) => changes.seenBy(change(n), MEMBER),
  'changes.sourcesOf': (n) => changes.sourcesOf(change(n)),
  'changes.toJson': (n) => changes.toJson(change(n)),
  'changes.touches': (n) => changes.touches(change(n)),
  'changes.yieldTo': (n) => {
    const moved = [{ what: 'title', field: 'title', yours: 'Ebb', theirs: 'Flood' }];
    return changes.yieldTo(change(n), { subject: { kind: 'source', id: id(1) }, moved } as never);
  },
  'citation-key.freeCitationKey': (n) => {
    const taken = new Set([...list(n, (i) => `vale1990${i}`), ...'abcdefghijklmnopqrstuvwxyz'].map((k) => `${k}`));
    return freeCitationKey('vale1990', (key) => taken.has(key));
  },
  'documents.confidenceOf': (n) => confidenceOf(Array(n).fill('gate'), Array(n).fill({ text: 'weir', confidence: 9 })),
  'documents.packWords': (n) => packWords(words(n)),
  'documents.rectsOf': (n) => rectsOf(words(n), 0, n * 6),
  'documents.unpackWords': (n) => unpackWords(packWords(words(n))),
  'formats.checkColumns': (n) => checkColumns(Object.fromEntries(list(n, (i) => [`Column ${i}`, 'title']))),
  'matching.bestOf': (n) => bestOf(records(n)),
  'matching.bestOfField': (n) => bestOfField('title', records(n)),
  'narrowing.mostAlike': (n) =>
    mostAlike([{ count: n, weight: 1, has: list(n, id) }, { count: n, weight: 2, has: list(n, (i) => id(i * 2)) }], 3 * n, 10), // prettier-ignore
  'notes.faultOf': (n) => notes.faultOf(note(n)),
  'notes.joinTexts': (n) => notes.joinTexts(note(n), note(n), 'Ebb'),
  'notes.lengthOf': (n) => notes.lengthOf(note(n)),
  'notes.linksIn': (n) => notes.linksIn(note(n)),
  'notes.plainText': (n) => notes.plainText(note(n)),
  'notes.quotationsIn': (n) => notes.quotationsIn(note(n)),
  'notes.sourcesIn': (n) => notes.sourcesIn(note(n)),
  'notes.takeOut': (n) => notes.takeOut(note(n), 10, n * 3),
  'notes.titleFrom': (n) => notes.titleFrom(note(n)),
  'pages.withPictures': (n) =>
    withPictures(list(n, (i) => `<img data-picture="${i}">`).join(''), new Map(list(n, (i) => [i, 'data:,x']))),
  'text.hasHalfEscapes': (n) => text.hasHalfEscapes(`${'\\ud83d'.repeat(n)}`),
  'text.jsonWithoutNul': (n) => text.jsonWithoutNul(JSON.stringify('a\u0000'.repeat(n))),
  'text.wholeCharacters': (n) => text.wholeCharacters('a\ud83d'.repeat(n)),
  'text.withoutNul': (n) => text.withoutNul('a\u0000'.repeat(n)),
  'vocabulary.alike': (n) => alike(concepts(n)),
  'vocabulary.writeSkos': (n) => writeSkos(concepts(n) as never),
  'vocabulary.writeVocabularyTable': (n) => writeVocabularyTable(concepts(n) as never),
  'words.Lexemes': (n) => {
    const found = new Lexemes();
    found.add('', prose(n));
    return found.toString();
  },
  'words.excerpt': (n) => {
    const lit = findLit(prose(n), sought);
    return excerpt(prose(n), lit, lit[0]!, 160);
  },
  'words.findLit': (n) => findLit(prose(n), sought),
  'words.snippet': (n) => snippet(prose(n), sought),
  'words.tokens': (n) => tokens(prose(n)),
};

const listed = Object.entries(ON_THE_THREAD).flatMap(([folder, { grows = [] }]) =>
  grows.map((name) => `${folder}.${name}`),
);

test('all that grows with what it is given is tried', () => {
  expect(Object.keys(TRIED).sort()).toEqual(listed.sort());
});

test('what is quadratic is seen', () => {
  const everyPair = (n: number): number => {
    let pairs = 0;
    for (let i = 0; i < n; i += 1) for (let j = 0; j < n; j += 1) pairs += 1;
    return pairs;
  };
  expect(stepsOf(() => everyPair(400)) / stepsOf(() => everyPair(200))).toBeGreaterThan(3.5);
});

describe('of twice as much, twice the work', () => {
  test.each(Object.entries(TRIED))('%s', (_, work) => {
    const [once, twice] = [200, 400].map((n) => stepsOf(() => work(n)));
    // Sorting counts the calls of what compares: n log n is a little more than twice.
    expect(twice! / once!).toBeLessThan(2.6);
  });
});
