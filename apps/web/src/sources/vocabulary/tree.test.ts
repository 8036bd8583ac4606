import { expect, test } from 'vitest';
import type { VocabularyTerm } from '@pandecta/contract';
import { sinceInWords } from '../values.ts';
import { rootOf, standing } from './tree.ts';

const term = (id: string, broader: string | null = null): VocabularyTerm => ({ id, name: id, subject: false, says: '', heading: '', count: 0, broader }); // prettier-ignore

test('narrower terms stand under the broader ones that are there, deeper each; those of another list for themselves', () => {
  const all = [term('a'), term('b', 'c'), term('c', 'a'), term('d', 'elsewhere')];
  expect(standing(all).map((s) => `${' '.repeat(s.depth)}${s.term.id}`)).toEqual(['a', ' c', '  b', 'd']);
  const byId = new Map(all.map((t) => [t.id, t]));
  expect(all.map((t) => rootOf(t, byId).id)).toEqual(['a', 'a', 'a', 'd']);
});

test('what came of two who made a circle ends', () => {
  const byId = new Map([term('a', 'b'), term('b', 'a')].map((t) => [t.id, t]));
  expect(['a', 'b']).toContain(rootOf(byId.get('a')!, byId).id);
  expect(standing([...byId.values()]).map((s) => [s.term.id, s.depth])).toEqual([['a', 0], ['b', 1]]); // prettier-ignore
});

test('a time within the last days is told by the day of the week, an earlier one by its date', () => {
  const now = Date.parse('2026-11-27T12:00:00Z');
  expect(sinceInWords('2026-11-23T12:00:00Z', now)).toBe('Monday');
  expect(sinceInWords('2026-11-20T12:00:00Z', now)).toBe('20 Nov 2026');
});
