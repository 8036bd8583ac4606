/**
 * How right duplicates are found: works of bibliographies one names (PANDECTA_BENCH_BIB, with commas between), each once, spoilt
 * several times over, among works that look alike and are not. Half of the files is fitted on (`--fit` prints the weights), the
 * other half, with other faults and other families, is what counts. Beside it: one key of title, first author and year.
 */
import { readFileSync } from 'node:fs';
import { readBibtex } from '@pandecta/core/formats';
import { blockKeys, CERTAIN, features, FEATURES, matchAll, see, titleKey, type Seen } from '@pandecta/core/matching';
import { nameShort, yearOf, type SourceRecord } from '@pandecta/core/source';
import { Chance } from '@pandecta/demo/random';
import { spoil } from './matching/faults.ts';
import { spoilUnseen } from './matching/faults-unseen.ts';
import { fit } from './matching/fit.ts';
import { SEEN, UNSEEN, type Family } from './matching/look-alikes.ts';
import { table } from './measure.ts';

const files = (process.env.PANDECTA_BENCH_BIB ?? '').split(',').filter(Boolean);
if (files.length < 2) throw new Error('PANDECTA_BENCH_BIB names at least two files of BibTeX');
const chance = new Chance(11);

/** Sound records, each work once: those that may be one are left out rather than judged. */
function poolOf(paths: string[]): SourceRecord[] {
  const all = paths
    .flatMap((f) => readBibtex(readFileSync(f, 'utf8')).sources.map((s) => s.record))
    .filter(
      (r) =>
        (r.title ?? '').length > 8 &&
        (r.author ?? r.editor)?.length &&
        r.issued?.['date-parts'] &&
        !/\?\?/.test(JSON.stringify(r)),
    ) // prettier-ignore
    .map(({ custom: _c, note: _n, abstract: _a, 'citation-key': _k, ...r }) => r as SourceRecord);
  const seen = new Set<string>();
  // Few of these bibliographies have DOIs: more than half of the articles are given one.
  for (const [i, r] of all.entries())
    if (!r.DOI && r.type === 'article-journal' && chance.odds(0.55)) r.DOI = `10.5555/${paths.length}.${i}`;
  return all.filter((r) => {
    const s = see(r);
    const keys = [s.letters.slice(0, 25), s.letters.slice(-25), ...s.dois];
    if (keys.some((k) => seen.has(k))) return false;
    keys.forEach((k) => seen.add(k));
    return true;
  });
}
const trainPool = poolOf(files.filter((_, i) => i % 2 === 0));
const testPool = poolOf(files.filter((_, i) => i % 2 === 1));

interface Labelled {
  record: SourceRecord;
  work: number;
  family: string;
}

/** Copies of works, and look-alikes with copies of their own. */
function makeSet(pool: SourceRecord[], families: Record<string, Family>, bad: typeof spoil, works: number): Labelled[] {
  const out: Labelled[] = [];
  let work = 0;
  const add = (record: SourceRecord, family: string, copies: number, most: number): void => {
    for (let i = 0; i < copies; i += 1) out.push({ record: i ? bad(record, chance, most) : record, work, family });
    work += 1;
  };
  const bases = chance.some(pool, Math.min(works, pool.length));
  const names = Object.keys(families);
  for (const [i, base] of bases.entries()) {
    if (i % 3) add(base, '', chance.pick([1, 1, 2, 2, 3, 4]), 5);
    else {
      const name = names[(i / 3) % names.length]!;
      const pair = families[name]!(base, chance, pool);
      if (pair && pair[0].DOI && chance.odds(0.5)) pair[1].DOI ??= `${pair[0].DOI}.${name}`;
      if (pair) for (const r of pair) add(r, name, chance.pick([1, 2, 2, 3]), 3);
      else add(base, '', 2, 4);
    }
  }
  return out;
}

if (process.argv.includes('--fit')) {
  const rows: Float64Array[] = [];
  const labels: number[] = [];
  for (let round = 0; round < 3; round += 1) {
    const set = makeSet(trainPool, SEEN, spoil, trainPool.length);
    const seen = set.map((l) => see(l.record));
    const took = new Set<string>();
    const blocks = new Map<number, number[]>();
    seen.forEach((s: Seen, i) => {
      const { identifiers, others } = blockKeys(s);
      for (const k of [...identifiers, ...others]) void (blocks.get(k)?.push(i) ?? blocks.set(k, [i]));
    });
    for (const block of blocks.values()) {
      if (block.length > 30) continue;
      for (const [n, a] of block.entries())
        for (const b of block.slice(n + 1)) {
          const key = `${a} ${b}`;
          const same = set[a]!.work === set[b]!.work;
          // Of the many that are of two works, one in six.
          if (took.has(key) || (!same && !set[a]!.family && chance.next() > 0.17)) continue;
          took.add(key);
          rows.push(features(seen[a]!, seen[b]!).values);
          labels.push(Number(same));
        }
    }
  }
  const weights = fit(rows, labels, 2);
  console.log(`${rows.length} pairs, ${labels.filter(Boolean).length} of one work`);
  console.log(FEATURES.map((f, i) => `  ${/^\w+$/.test(f) ? f : `'${f}'`}: ${weights[i]!.toFixed(2)},`).join('\n'));
}

const key = (r: SourceRecord): string => `${titleKey(r.title ?? '')} ${nameShort((r.author ?? r.editor ?? [{}])[0]!)} ${yearOf(r.issued)}`.toLowerCase(); // prettier-ignore

function measure(name: string, set: Labelled[]): string[] {
  const { clusterOf, pairs } = matchAll(set.map((l) => l.record));
  const keys = set.map((l) => key(l.record));
  const count = { right: 0, wrong: 0, missed: 0, keyRight: 0, keyWrong: 0, all: 0 };
  const families = new Map<string, { wrong: number; works: Set<number> }>();
  const byWork = new Map<number, number[]>();
  set.forEach((l, i) => void (byWork.get(l.work)?.push(i) ?? byWork.set(l.work, [i])));
  const missedKinds = new Map<string, number>();
  for (const members of byWork.values())
    for (const [n, a] of members.entries())
      for (const b of members.slice(n + 1)) {
        count.all += 1;
        if (keys[a] === keys[b]) count.keyRight += 1;
        if (clusterOf[a] === clusterOf[b]) count.right += 1;
        else {
          count.missed += 1;
          missedKinds.set(set[a]!.record.type, (missedKinds.get(set[a]!.record.type) ?? 0) + 1);
          if (process.env.SHOW === 'missed' && chance.odds(0.05))
            console.log(JSON.stringify([set[a]!.record, set[b]!.record], null, 0));
        }
      }
  const byCluster = new Map<number, number[]>();
  clusterOf.forEach((c, i) => void (byCluster.get(c)?.push(i) ?? byCluster.set(c, [i])));
  for (const { family, work } of set) {
    const f = families.get(family) ?? families.set(family, { wrong: 0, works: new Set() }).get(family)!;
    f.works.add(work);
  }
  const wrongWorks = new Map<string, Set<string>>();
  for (const members of byCluster.values())
    for (const [n, a] of members.entries())
      for (const b of members.slice(n + 1))
        if (set[a]!.work !== set[b]!.work) {
          count.wrong += 1;
          const family = set[a]!.family || set[b]!.family;
          (wrongWorks.get(family) ?? wrongWorks.set(family, new Set()).get(family)!).add([set[a]!.work, set[b]!.work].sort().join()); // prettier-ignore
          if (process.env.SHOW === 'wrong' && chance.odds(0.2))
            console.log(family, JSON.stringify([set[a]!.record, set[b]!.record]));
        }
  const seenKeys = new Map<string, number[]>();
  keys.forEach((k, i) => void (seenKeys.get(k)?.push(i) ?? seenKeys.set(k, [i])));
  for (const members of seenKeys.values())
    for (const [n, a] of members.entries()) for (const b of members.slice(n + 1)) if (set[a]!.work !== set[b]!.work) count.keyWrong += 1; // prettier-ignore
  const sure = pairs.filter((p) => p.probability >= CERTAIN);
  const sureRight = sure.filter((p) => set[p.a]!.work === set[p.b]!.work).length;
  for (const [family, works] of wrongWorks)
    console.log(`  ${family || 'others'}: ${works.size} of ${families.get(family)!.works.size / 2} put together`);
  const share = (a: number, b: number): string => (a / Math.max(1, b)).toFixed(4);
  return [
    name,
    String(set.length),
    share(count.right, count.right + count.wrong),
    share(count.right, count.all),
    `${share(sureRight, sure.length)} of ${sure.length}`,
    `${share(count.keyRight, count.keyRight + count.keyWrong)} / ${share(count.keyRight, count.all)}`,
  ];
}

const started = performance.now();
const rows = [
  measure('fitted on', makeSet(trainPool, SEEN, spoil, 3000)),
  measure('unseen', makeSet(testPool, { ...SEEN, ...UNSEEN }, spoilUnseen, 3000)),
  measure('unseen families', makeSet(testPool, UNSEEN, spoilUnseen, 3000)),
];
table('Duplicates', ['set', 'records', 'precision', 'recall', 'surest', 'key: precision / recall'], rows);
console.log(`${((performance.now() - started) / 1000).toFixed(1)} s`);
