/** A list of an answer: who goes to a line stays there, whatever arrives meanwhile. */
import { createPinia, setActivePinia } from 'pinia';
import { beforeEach, expect, test } from 'vitest';
import { effectScope, nextTick, ref } from 'vue';
import { useLive } from '../data/live.ts';
import { makeList, type Stretch } from './make.ts';

interface Line {
  id: string;
}
/** Answers that wait until a test lets them go, the oldest first. */
let waiting: (() => void)[];
const lines = (from: number, to: number): Line[] =>
  Array.from({ length: to - from }, (_, i) => ({ id: `line ${from + i}` }));
const question = ref('');
let answer: Line[];

function listOf() {
  return effectScope(true).run(() =>
    makeList<string, Line, Stretch<Line>>({
      question: () => question.value,
      async fetch(_, { from, count, find }) {
        await new Promise<void>((resolve) => waiting.push(resolve));
        const at = find ? answer.findIndex((l) => l.id === find) : -1;
        return { total: answer.length, from, rows: answer.slice(from, from + count), ...(at >= 0 && { at }) };
      },
      ids: async (_, from, count) => answer.slice(from, from + count).map((l) => l.id),
      among: async (_, ids) => ids.filter((id) => answer.some((l) => l.id === id)),
      async places(_, ids) {
        await new Promise<void>((resolve) => waiting.push(resolve));
        return ids.map((id) => answer.findIndex((l) => l.id === id));
      },
      concerns: () => true,
      seen: () => true,
    }),
  )!;
}
/** Lets all go that is on its way, and what that asks for in turn. */
async function arrive(): Promise<void> {
  await nextTick();
  await new Promise((resolve) => setImmediate(resolve));
  while (waiting.length) {
    waiting.shift()!();
    await new Promise((resolve) => setImmediate(resolve));
  }
}
const plain = { shiftKey: false, ctrlKey: false, metaKey: false };
const askAnew = (): void => void list.load(true);

let list: ReturnType<typeof listOf>;
beforeEach(async () => {
  setActivePinia(createPinia());
  waiting = [];
  question.value = '';
  answer = lines(0, 100);
  list = listOf();
  list.begin();
  await arrive();
});

test('an answer begins at its first line', () => {
  expect([list.cursor.value, list.place.value, list.total.value]).toEqual(['line 0', 0, 100]);
});

test('a line clicked while the answer to another question is on its way stays chosen where it is in that answer', async () => {
  question.value = 'narrower';
  answer = [...lines(5, 40), ...lines(70, 100)];
  await nextTick();
  await list.click('line 30', plain);
  await arrive();
  expect([list.cursor.value, list.place.value]).toEqual(['line 30', 25]);
});

test('a line clicked meanwhile that is not in the answer gives way to its first', async () => {
  question.value = 'narrower';
  answer = lines(5, 40);
  await nextTick();
  await list.click('line 3', plain);
  await arrive();
  expect([list.cursor.value, list.place.value]).toEqual(['line 5', 0]);
});

test('who walks on while the same is asked anew is not taken back, nor where the line stands far down', async () => {
  askAnew();
  await list.move(1);
  await list.move(1);
  await arrive();
  expect([list.cursor.value, list.place.value]).toEqual(['line 2', 2]);
  await Promise.all([list.go(80), arrive()]);
  askAnew();
  await Promise.all([list.move(1), arrive()]);
  answer = answer.slice(10);
  askAnew();
  await Promise.all([list.move(1), arrive()]);
  expect([list.cursor.value, list.place.value]).toEqual(['line 82', 72]);
});

test('a line one acts on keeps its place, whatever place that gives it in the answer, until something else is asked', async () => {
  await list.click('line 4', plain);
  const shown = (): (string | undefined)[] => [2, 3, 4, 5, 6].map((at) => list.lineAt(at)?.id);
  const before = shown();
  // Sorted by relevance, attaching a file to the line moves it to the top of the answer; done twice in a row.
  for (const acted of [1, 2]) {
    answer = [answer.find((l) => l.id === 'line 4')!, ...answer.filter((l) => l.id !== 'line 4')];
    useLive().tell({ kinds: { source: ['line 4'] }, changeId: `change ${acted}` });
    // News in a burst are answered together, a while later.
    askAnew();
    await arrive();
    expect(shown()).toEqual(before);
    expect([list.cursor.value, list.place.value]).toEqual(['line 4', 4]);
  }
  await list.move(1);
  expect(list.cursor.value).toBe('line 5');
  // Stretches fetched later fit to it.
  await Promise.all([list.ensure(50, 100), arrive()]);
  const all = Array.from({ length: 100 }, (_, at) => list.lineAt(at)?.id);
  expect(new Set(all).size).toBe(100);
  question.value = 'anew';
  await arrive();
  expect(list.lineAt(0)!.id).toBe('line 4');
});

test('where the line one is at has left the answer, the one that took its place is next', async () => {
  await list.click('line 4', plain);
  answer = answer.filter((l) => l.id !== 'line 4');
  askAnew();
  await arrive();
  expect([list.cursor.value, list.place.value]).toEqual(['line 5', 4]);
});

test('a dozen lines acted on one after another all keep their places', async () => {
  const before = Array.from({ length: 20 }, (_, at) => list.lineAt(at)?.id);
  for (let i = 2; i < 14; i += 1) {
    const id = `line ${i}`;
    await list.click(id, plain);
    answer = [answer.find((l) => l.id === id)!, ...answer.filter((l) => l.id !== id)];
    useLive().tell({ kinds: { source: [id] }, changeId: `change ${i}` });
    askAnew();
    await arrive();
    expect([list.cursor.value, list.place.value]).toEqual([id, i]);
  }
  expect(Array.from({ length: 20 }, (_, at) => list.lineAt(at)?.id)).toEqual(before);
});
