/** The machine fails in the middle of each work: afterwards it is there whole or not at all, once, and all is well by itself. */
import { afterAll, beforeAll, expect, test } from 'vitest';
import { layGround, type Ground } from './ground.ts';
import { HARMS } from './harm.ts';
import { trial, undisturbed } from './trial.ts';
import { WORKS } from './works.ts';

let ground: Ground;
const spans = new Map<string, number>();
beforeAll(async () => {
  ground = await layGround();
  for (const work of WORKS) spans.set(work.name, await undisturbed(ground, work));
}, 180_000);
afterAll(() => ground?.close(), 60_000);

test.for(HARMS.flatMap((harm) => WORKS.map((work) => [harm.name, work.name, harm, work] as const)))(
  '%s in the middle of %s: all of it or nothing, once, and well again',
  { timeout: 120_000 },
  async ([, , harm, work], { skip }) => {
    // Who may not mount has no small disk to fill.
    skip(harm.name.startsWith('the disk') && !ground.disks);
    const nth = HARMS.indexOf(harm) * WORKS.length + WORKS.indexOf(work);
    // When it falls is no matter of chance in a test: a third, a half or two thirds through.
    const chance = { when: [1 / 3, 1 / 2, 2 / 3][nth % 3]!, how: ((nth * 7) % 10) / 10 };
    expect((await trial(ground, work, harm, chance, spans.get(work.name)!)).wrong).toEqual([]);
  },
);
