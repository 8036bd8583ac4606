/** Entries a second: parsing alone beside pandoc and bibutils, and end to end into PostgreSQL. */
import { execFileSync } from 'node:child_process';
import { plugins } from '@citation-js/core';
import '@citation-js/plugin-bibtex';
import '@citation-js/plugin-ris';
import { readBibtex, readCslJson, readRis, writeSources } from '@pandecta/core/formats';
import { formatNumber } from '@pandecta/core/wording';
import { median, synthetic, table } from './measure.ts';
import { startBench } from './server.ts';

const COUNT = 10_000;
const sources = synthetic(COUNT, 60);
const texts = {
  ris: writeSources(sources, 'ris'),
  bibtex: writeSources(sources, 'bibtex'),
  'csl-json': writeSources(sources, 'csl-json'),
};
const READ = { ris: readRis, bibtex: readBibtex, 'csl-json': readCslJson };
const tool = (program: string, args: string[], input: string): void =>
  void execFileSync(program, args, { input, maxBuffer: 1 << 30, stdio: ['pipe', 'pipe', 'ignore'] });
/** Of the npm libraries tried on this text (biblatex-csl-converter 750 entries/s), the fastest that reads names too. */
const library = (text: string): void => void plugins.input.chain(text, { generateGraph: false });
const REFERENCE: Record<string, [string, () => void][]> = {
  ris: [
    ['bibutils ris2xml', () => tool('ris2xml', [], texts.ris)],
    ['citation-js', () => library(texts.ris)],
  ],
  bibtex: [
    ['pandoc', () => tool('pandoc', ['-f', 'bibtex', '-t', 'csljson'], texts.bibtex)],
    ['bibutils bib2xml', () => tool('bib2xml', [], texts.bibtex)],
    ['citation-js', () => library(texts.bibtex)],
  ],
  'csl-json': [['pandoc', () => tool('pandoc', ['-f', 'csljson', '-t', 'csljson'], texts['csl-json'])]],
};

const bench = await startBench('import');
const lines: (string | number)[][] = [];
for (const format of ['ris', 'bibtex', 'csl-json'] as const) {
  const parse = COUNT / (await median(5, () => READ[format](texts[format])));
  const runs: number[] = [];
  for (let i = 0; i < 3; i += 1) {
    const text = writeSources(synthetic(COUNT, 60, 100 + i + format.length * 10), format);
    const form = new FormData();
    form.append('file', new Blob([text]), `refs-${i}`);
    const start = performance.now();
    const { jobId } = (await (await bench.post('/imports', form)).json()) as { jobId: string };
    for (;;) {
      const { jobs } = (await (await bench.get('/jobs')).json()) as {
        jobs: { id: string; state: string; says: string }[];
      };
      const job = jobs.find((j) => j.id === jobId);
      if (job?.state === 'done') break;
      if (job?.state === 'failed') throw new Error(job.says);
      await new Promise((r) => setTimeout(r, 10));
    }
    runs.push((performance.now() - start) / 1000);
    await bench.app.services.followers.settle();
  }
  const total = COUNT / runs.sort((a, b) => a - b)[1]!;
  lines.push([
    format,
    parse,
    total,
    REFERENCE[format]!.map(([name, work]) => {
      const start = performance.now();
      work();
      return `${name} ${formatNumber(Math.round(COUNT / ((performance.now() - start) / 1000)))}`;
    }).join(', '),
  ]);
}
table(
  `Import, ${formatNumber(COUNT)} entries with abstracts of 60 words: entries a second (medians)`,
  ['format', 'parse', 'upload to committed', 'reference, reading alone'],
  lines,
);
await bench.close();
process.exit(0);
