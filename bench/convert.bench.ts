/** Memory of the command line on a file of 50,000 entries, beside bibutils on the same file. */
import { spawnSync } from 'node:child_process';
import { mkdtempSync, rmSync, statSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { eachWritten, EXPORT_FORMATS, type ExportFormat } from '@pandecta/core/formats';
import { formatNumber } from '@pandecta/core/wording';
import { synthetic, table } from './measure.ts';

const COUNT = 50_000;
const folder = mkdtempSync(join(tmpdir(), 'pandecta-convert-'));
const path = (format: ExportFormat): string => join(folder, `refs.${format}`);

/** What /usr/bin/time says of a program: its largest resident set in MB and its seconds. */
function measured(program: string, args: string[]): [megabytes: number, seconds: number] {
  const { stderr, status } = spawnSync('/usr/bin/time', ['-f', '%M %e', program, ...args], {
    stdio: ['ignore', 'ignore', 'pipe'],
    encoding: 'utf8',
    maxBuffer: 1 << 28,
  });
  if (status !== 0) throw new Error(`${program} ${args.join(' ')}: ${stderr.slice(-300)}`);
  const [kilobytes, seconds] = stderr.trim().split('\n').at(-1)!.split(' ').map(Number) as [number, number];
  return [kilobytes / 1024, seconds];
}

try {
  const sources = synthetic(COUNT, 60);
  for (const format of EXPORT_FORMATS) writeFileSync(path(format), [...eachWritten(sources, format)].join(''));
  const program = join(import.meta.dirname, '../cli/main.js');
  const lines: (string | number)[][] = [];
  for (const [from, to] of [
    ['bibtex', 'csl-json'],
    ['bibtex', 'ris'],
    ['ris', 'biblatex'],
    ['csl-json', 'bibtex'],
  ] as [ExportFormat, ExportFormat][])
    lines.push([
      `convert ${from} to ${to}`,
      statSync(path(from)).size / 1e6,
      ...measured(process.execPath, [program, 'convert', path(from), '--to', to]),
    ]);
  lines.push(['bib2xml (bibutils)', statSync(path('bibtex')).size / 1e6, ...measured('bib2xml', [path('bibtex')])]);
  lines.push(['ris2xml (bibutils)', statSync(path('ris')).size / 1e6, ...measured('ris2xml', [path('ris')])]);
  table(`Memory of ${formatNumber(COUNT)} entries`, ['what', 'file, MB', 'largest, MB', 'seconds'], lines);
} finally {
  rmSync(folder, { recursive: true, force: true });
}
