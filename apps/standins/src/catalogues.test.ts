/** The invented catalogues, spoken to by the protocols the server speaks. */
import { expect, test } from 'vitest';
import { PROTOCOLS } from '@pandecta/core/catalogues';
import { Folding } from '@pandecta/core/matching';
import { CATALOGUES, entriesOf } from '@pandecta/demo/catalogues';
import { answerFeed } from './opensearch.ts';
import { CqlError, parseCql } from './cql.ts';
import { answerSru } from './sru.ts';
import { answerWorks } from './works.ts';

const asked = (protocol: keyof typeof PROTOCOLS, words: string, base = 'http://c.example/x'): URLSearchParams =>
  new URL(PROTOCOLS[protocol].address(base, { words }, 0, 20)).searchParams;

test.each(['sru-1.1', 'sru-1.2', 'sru-2.0'] as const)('%s answers with records, and how many there are', (protocol) => {
  const answer = PROTOCOLS[protocol].read(
    answerSru('shoreline', 'Shoreline Index', asked(protocol, 'tidal gate licence'), 0),
  );
  expect(answer.total).toBeGreaterThan(100);
  expect(answer.entries).toHaveLength(20);
  expect(answer.entries[0]).toMatchObject({
    accession: expect.stringMatching(/^SI\d+$/),
    record: { title: expect.any(String) },
  });
});

test('a question it cannot read is refused with a diagnostic', () => {
  const refused = PROTOCOLS['sru-1.2'].read(
    answerSru('shoreline', 'x', new URLSearchParams({ operation: 'searchRetrieve', query: '(gate and' }), 0),
  );
  expect(refused.refused).toContain('Query syntax error');
});

test('the feed and the registry answer the same question', () => {
  const feed = PROTOCOLS.opensearch.read(
    answerFeed(
      'northmere',
      'Northmere',
      asked('opensearch', 'gate licence', 'http://c.example/?q={searchTerms}&start={startIndex}&count={count}'),
      0,
    ),
  );
  const works = PROTOCOLS.works.read(answerWorks(asked('works', 'gate licence'), 0, 'http://c.example'));
  for (const answer of [feed, works]) expect([answer.total > 50, answer.entries.length]).toEqual([true, 20]);
});

test('as days pass there is more', () => {
  const total = (days: number): number =>
    PROTOCOLS.works.read(answerWorks(asked('works', 'at'), days, 'http://c.example')).total;
  expect(total(30)).toBeGreaterThan(total(0));
});

test('words, phrases, fields, brackets and words of joining are read as CQL', () => {
  expect(parseCql('dc.title all "gate lock" and not')).toMatchObject({ is: 'and' });
  expect(parseCql('a or b and c')).toMatchObject({ is: 'and', left: { is: 'or' } });
  for (const wrong of ['(a', 'a)', 'a and'])
    expect(() => parseCql(wrong === 'a and' ? 'a and (' : wrong)).toThrow(CqlError);
});

test('the same work in three catalogues is folded, at 98 of 100 pairs or better', () => {
  const folding = new Folding();
  const groups = new Map<number, number[]>();
  for (const name of CATALOGUES)
    for (const e of entriesOf(name).slice(0, 1500)) {
      const work = folding.add(e.record);
      groups.set(work, [...(groups.get(work) ?? []), e.work]);
    }
  let [right, wrong] = [0, 0];
  for (const list of groups.values())
    list.forEach((a, i) => list.slice(i + 1).forEach((b) => (a === b ? (right += 1) : (wrong += 1))));
  expect(right / (right + wrong)).toBeGreaterThan(0.98);
  expect(right).toBeGreaterThan(500);
});
