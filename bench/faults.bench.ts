/**
 * The machine fails in the middle of work, at moments drawn with a seed: each fault in each work BENCH_TIMES times. Said is what was
 * wrong afterwards, and how long it took until all was well again. There is no reference: what is wrong must be nothing.
 * BENCH_FAULT and BENCH_WORK, expressions, choose some.
 */
import { layGround } from '@pandecta/server/testing/faults/ground';
import { HARMS } from '@pandecta/server/testing/faults/harm';
import { trial, undisturbed } from '@pandecta/server/testing/faults/trial';
import { WORKS } from '@pandecta/server/testing/faults/works';
import { Chance } from '@pandecta/demo/random';
import { quantile, table } from './measure.ts';

const TIMES = Number(process.env.BENCH_TIMES ?? 20);
const SEED = Number(process.env.BENCH_SEED ?? 4700);
const chosen = <T extends { name: string }>(all: T[], which: string | undefined): T[] =>
  all.filter(({ name }) => !which || new RegExp(which).test(name));

const lines: (string | number)[][] = [];
for (const harm of chosen(HARMS, process.env.BENCH_FAULT)) {
  // Of each its own: what one leaves is not in the way of the next, and of one machine not too much comes together.
  const ground = await layGround();
  for (const work of chosen(WORKS, process.env.BENCH_WORK)) {
    const draw = new Chance(SEED);
    const span = await undisturbed(ground, work);
    const times: number[] = [];
    let wrong = 0;
    let nothing = 0;
    for (let i = 0; i < TIMES; i += 1) {
      const chance = { when: draw.next(), how: draw.next() };
      const {
        wrong: found,
        undone,
        ms,
      } = await trial(ground, work, harm, chance, span).catch((error: Error) => ({
        wrong: [error.message],
        undone: false,
        ms: NaN,
      }));
      times.push(ms);
      if (undone) nothing += 1;
      for (const what of found) console.log(`${harm.name}, ${work.name}, ${i}, ${chance.when.toFixed(2)}: ${what}`);
      if (found.length) wrong += 1;
    }
    lines.push([harm.name, work.name, TIMES, wrong, nothing, span, quantile(times, 0.5), Math.max(...times)]);
    console.log(lines.at(-1)!.join(' | '));
  }
  await ground.close();
}
table(
  `Each ${TIMES} times, at moments drawn with the seed ${SEED}`,
  [
    'what befell',
    'in the middle of',
    'times',
    'wrong',
    'came to nothing',
    'ms undisturbed',
    'ms until well, median',
    'longest',
  ],
  lines,
);
process.exit(0);
