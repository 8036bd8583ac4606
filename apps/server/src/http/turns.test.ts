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
    const turns = new Turns(3);
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
    const turns = new Turns(3);
    const mine = asking(() => turns.take('ida'), 120);
    await settled();
    expect(mine.refused).toHaveLength(16);
    expect(mine.refused[0]).toBeInstanceOf(Refusal);
    expect(mine.refused[0]).toMatchObject({ status: 429, retryAfter: 2 });
  });
});

describe('of questions, where the machine has no room for more', () => {
  test('one of each is in hand at once all the same, and who has the least is first when there is room', async () => {
    const turns = new Turns(3);
    const [ida, kenzo] = ['ida', 'kenzo'].map((who) => asking(() => turns.takeQuestion(who), 10));
    await settled();
    expect([ida!.begun, kenzo!.begun]).toEqual([[0, 1, 2, 3], [0]]);
    const ada = asking(() => turns.takeQuestion('ada'), 2);
    await settled();
    expect(ada.begun).toEqual([0]);
    ida!.ends[3]!();
    await settled();
    expect([ida!.begun, kenzo!.begun, ada.begun]).toEqual([[0, 1, 2, 3], [0, 1], [0]]);
    ida!.ends[2]!();
    await settled();
    expect([ida!.begun, kenzo!.begun, ada.begun]).toEqual([
      [0, 1, 2, 3],
      [0, 1],
      [0, 1],
    ]);
  });

  test('the next of one begins when their last ends, though others have more in hand', async () => {
    const turns = new Turns(3);
    asking(() => turns.takeQuestion('ida'), 10);
    const ada = asking(() => turns.takeQuestion('ada'), 3);
    await settled();
    for (const at of [0, 1, 2]) {
      expect(ada.begun).toHaveLength(at + 1);
      ada.ends[at]!();
      await settled();
    }
  });
});

test('what is no question keeps none waiting, and waits for none', async () => {
  const turns = new Turns(1);
  const others = ['ida', 'kenzo'].map((who) => asking(() => turns.take(who), 5));
  const questions = asking(() => turns.takeQuestion('ida'), 3);
  await settled();
  expect([...others.map((o) => o.begun), questions.begun]).toEqual([
    [0, 1, 2, 3],
    [0, 1, 2, 3],
    [0, 1],
  ]);
});

test('of what is heavy one of a member’s is in hand, and three of all', async () => {
  const turns = new Turns(3);
  const people = ['ida', 'kenzo', 'ada', 'tove'].map((who) => asking(() => turns.takeHeavy(who), 2));
  await settled();
  expect(people.map((p) => p.begun)).toEqual([[0], [0], [0], []]);
  people[0]!.ends[0]!();
  await settled();
  expect(people.map((p) => p.begun)).toEqual([[0], [0], [0], [0]]);
});
