/** Timing, synthetic sources and tables for the measurements. */
import { Chance } from '@pandecta/demo/random';
import type { SourceRecord } from '@pandecta/core/source';
import { formatNumber } from '@pandecta/core/wording';

/** Runs the work several times; the median in seconds. */
export async function median(times: number, work: () => unknown): Promise<number> {
  const all: number[] = [];
  for (let i = 0; i < times; i += 1) {
    const start = performance.now();
    await work();
    all.push((performance.now() - start) / 1000);
  }
  return all.sort((a, b) => a - b)[all.length >> 1]!;
}

export const quantile = (list: number[], q: number): number =>
  [...list].sort((a, b) => a - b)[Math.min(list.length - 1, Math.floor(list.length * q))] ?? NaN;

export function table(title: string, head: string[], lines: (string | number)[][]): void {
  const cells = [head, ...lines].map((l) =>
    l.map((c) => (typeof c === 'number' ? (c >= 100 ? formatNumber(Math.round(c)) : c.toFixed(1)) : c)),
  );
  const widths = head.map((_, i) => Math.max(...cells.map((l) => l[i]!.length)));
  console.log(`\n${title}\n`);
  cells.forEach((l, i) => {
    console.log(`| ${l.map((c, k) => c.padEnd(widths[k]!)).join(' | ')} |`);
    if (i === 0) console.log(`| ${widths.map((w) => '-'.repeat(w)).join(' | ')} |`);
  });
}

/** Words with frequencies after Zipf, as real text has them. */
class Vocabulary {
  private readonly words: string[];

  constructor(size: number) {
    const syllables = [
      'sal',
      'low',
      'mar',
      'ti',
      'dal',
      'es',
      'tu',
      'ar',
      'ga',
      'te',
      'bar',
      'ri',
      'er',
      'sed',
      'im',
      'ent',
      'lo',
      'ck',
      'ver',
      'an',
      'ce',
      'nor',
      'th',
      'qua',
      'y',
    ];
    const chance = new Chance(7);
    const made = new Set<string>();
    const named = ['barrier', 'estuary', 'licence', 'marsh', 'closure', 'sediment', 'harbour', 'tidal'];
    // At these ranks a word stands in about a third of the sources.
    while (made.size < 30) made.add(`${chance.pick(syllables)}${chance.pick(syllables)}${made.size}`);
    for (const word of named) made.add(word);
    while (made.size < size) made.add(Array.from({ length: chance.int(2, 4) }, () => chance.pick(syllables)).join(''));
    this.words = [...made];
  }

  text(chance: Chance, n: number): string {
    return Array.from(
      { length: n },
      () =>
        this.words[
          Math.min(this.words.length - 1, Math.floor(Math.exp(chance.next() * Math.log(this.words.length))) - 1)
        ] ?? 'barrier',
    ).join(' ');
  }
}

const vocabulary = new Vocabulary(30_000);

/** The same sources for the same seed; titles of 12 words, abstracts of `abstract` words. */
export function synthetic(count: number, abstract: number, seed = 1): { record: SourceRecord; subjects: string[] }[] {
  const chance = new Chance(seed);
  const families = Array.from(
    { length: 4000 },
    (_, i) => `${vocabulary.text(new Chance(i), 1).replace(/^./, (c) => c.toUpperCase())}${i % 97}`,
  );
  return Array.from({ length: count }, (_, i) => {
    const from = chance.int(1, 900);
    return {
      subjects: chance.odds(0.6) ? [vocabulary.text(chance, 1)] : [],
      record: {
        type: chance.pick(['article-journal', 'article-journal', 'book', 'chapter', 'legal_case'] as const),
        title: vocabulary.text(chance, 12).replace(/^./, (c) => c.toUpperCase()),
        author: Array.from({ length: chance.int(1, 4) }, () => ({
          family: chance.pick(families),
          given: chance.pick(['Marit', 'Ines', 'Kenzo', 'Ada']),
        })),
        'container-title': `Journal of ${vocabulary.text(chance, 2)}`,
        volume: String(chance.int(1, 60)),
        issue: String(chance.int(1, 6)),
        page: `${from}-${from + chance.int(3, 30)}`,
        issued: { 'date-parts': [[chance.int(1950, 2026)]] },
        DOI: `10.5555/bench.${seed}.${i}`,
        ...(abstract ? { abstract: vocabulary.text(chance, abstract) } : {}),
      },
    };
  });
}
