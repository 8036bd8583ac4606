/**
 * Every expression that sees text from outside takes time that grows with the text, or is known to grow faster and bounded all the
 * same. What analyses them is recheck 4.5 (npm); what it found is in expressions.json.
 */
import { expect, test } from 'vitest';
import known from './expressions.json' with { type: 'json' };
import { everyExpression, growthOf, hashOf, textOf, written } from './lib/expressions.mjs';

const linear = new Set(known.linear);

test('an expression that is new takes time that grows with its text; one that must not is written down by `npm run expressions`', async () => {
  const all = await everyExpression();
  expect(all.length).toBeGreaterThan(800);
  const grows = [];
  for (const one of all) {
    if (written(one) in known.growing || linear.has(hashOf(one))) continue;
    const found = await growthOf(one);
    if (found) grows.push(`${one.at} ${written(one)}: ${found.growth}, as by ${JSON.stringify(found.text)}`);
  }
  expect(grows).toEqual([]);
}, 240_000);

test('what grows faster than its text grows as a square of it at most, whatever it meets', async () => {
  const now = new Set((await everyExpression()).map(written));
  const gone = Object.keys(known.growing).filter((e) => !now.has(e));
  expect(gone, 'are no more: npm run expressions').toEqual([]);
  for (const [expression, { text }] of Object.entries(known.growing)) {
    if (!text) continue;
    const end = expression.lastIndexOf('/');
    const made = new RegExp(expression.slice(1, end), expression.slice(end + 1));
    const once = (length) => {
      const long = textOf(text, length);
      const times = [0, 1, 2].map(() => {
        const start = performance.now();
        long.replace(made, '');
        return performance.now() - start;
      });
      return Math.min(...times);
    };
    // Four times the text, sixteen times as long: more would be a cube. Below some milliseconds a clock tells nothing. What grows is
    // slow each time; a machine that others use is slow now and then.
    let [short, longer] = [0, Infinity];
    for (let round = 0; round < 5 && longer >= Math.max(60, 32 * short); round += 1)
      [short, longer] = [once(250), once(1000)];
    expect(longer, expression).toBeLessThan(Math.max(60, 32 * short));
  }
});
