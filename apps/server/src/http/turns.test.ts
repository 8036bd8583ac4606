/** Whoever asks very much waits for themselves. */
import { describe, expect, test } from 'vitest';
import { Refusal } from '../errors.ts';
import { Turns, type End } from './turns.ts';

/** Asks for turns and tells which have begun. */
function asking(take: () => Promise<End>, count: number): { begun: number[]; ends: End[]; refused: unknown[] } {
  const out = { begun: [] as number[], ends: [] as End[], refused: [] as unknown[] };
  for (let i = 0; i < count; i += 1)
    take().then(
      (end) => {
        out.begun.push(i);
        out.ends.push(end);
      },
      (error: unknown) => out.refused.push(error),
    );
  return out;
}
const settled = async (): Promise<void> => {
  for (let i = 0; i < 50; i += 1) await Promise.resolve();
};

describe('of one who asks a hundred things at once', () => {
  test('four are in hand, the others follow in their order as those end, and others are not kept waiting', async () => {
    const turns = new Turns();
    const mine = asking(() => turns.take('ida'), 100);
    const theirs = asking(() => turns.take('kenzo'), 1);
    await settled();
    expect([mine.begun, theirs.begun]).toEqual([[0, 1, 2, 3], [0]]);
    mine.ends[2]!();
    mine.ends[2]!();
    await settled();
    expect(mine.begun).toEqual([0, 1, 2, 3, 4]);
    while (mine.begun.length < 100) {
      mine.ends[mine.begun.length - 1]!();
      await settled();
    }
    expect(mine.begun).toEqual([...Array(100).keys()]);
  });

  test('what is more than can wait is refused with a time to come back', async () => {
    const turns = new Turns();
    const mine = asking(() => turns.take('ida'), 120);
    await settled();
    expect(mine.refused).toHaveLength(16);
    expect(mine.refused[0]).toBeInstanceOf(Refusal);
    expect(mine.refused[0]).toMatchObject({ status: 429, retryAfter: 2 });
  });
});

test('of what is heavy one of a member’s is in hand, and three of all', async () => {
  const turns = new Turns();
  const people = ['ida', 'kenzo', 'ada', 'tove'].map((who) => asking(() => turns.takeHeavy(who), 2));
  await settled();
  expect(people.map((p) => p.begun)).toEqual([[0], [0], [0], []]);
  people[0]!.ends[0]!();
  await settled();
  expect(people.map((p) => p.begun)).toEqual([[0], [0], [0], [0]]);
});
