/**
 * Writes scripts/expressions.json: of every expression that sees text from outside, whether the time it takes grows with the text
 * alone. What grows faster is there with the text that shows it, which a test measures. What is known already is not analysed
 * again: with the file deleted it takes a few minutes.
 */
import { existsSync, readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { everyExpression, growthOf, hashOf, written } from './lib/expressions.mjs';
import { ROOT } from './lib/folders.mjs';

const path = join(ROOT, 'scripts/expressions.json');
const known = existsSync(path) ? JSON.parse(readFileSync(path, 'utf8')) : { linear: [], growing: {} };
const all = await everyExpression();
const linear = [];
const growing = {};
let next = 0;
async function some() {
  for (let one = all[next++]; one; one = all[next++]) {
    const hash = hashOf(one);
    const before = known.growing[written(one)];
    const found = known.linear.includes(hash) ? undefined : before?.text ? before : await growthOf(one);
    if (found) growing[written(one)] = found;
    else linear.push(hash);
    if (next % 100 === 0) console.log(`${next} of ${all.length}`);
  }
}
await Promise.all([some(), some()]);
const lines = Object.entries(growing)
  .sort(([a], [b]) => (a < b ? -1 : 1))
  .map(([expression, found]) => `  ${JSON.stringify(expression)}: ${JSON.stringify(found)}`);
writeFileSync(path, `{\n "linear": ${JSON.stringify(linear.sort())},\n "growing": {\n${lines.join(',\n')}\n }\n}\n`);
console.log(`${all.length} expressions, ${lines.length} of which grow faster than their text`);
process.exit(0);
