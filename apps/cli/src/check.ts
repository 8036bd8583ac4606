/** Duplicates and faults of a file of references. */
import { writeFile } from 'node:fs/promises';
import { EXPORT_FORMATS, writeSources, type ExportFormat, type ReadSource } from '@pandecta/core/formats';
import { Usage, type Io } from './io.ts';
import { oneOf, read } from './reading.ts';
import { citerFor } from './style.ts';

type Options = Record<string, string | boolean | undefined>;

/** All records of the files named, in their order. */
async function all(positionals: string[], options: Options, io: Io): Promise<ReadSource[]> {
  const out: ReadSource[] = [];
  for (const name of positionals.length ? positionals : ['-']) {
    const result = await read([name], options as Record<string, string | undefined>, io);
    if (result) for (const s of result.sources) out.push(s);
  }
  return out;
}

/** Which records are of one work: a line for each, by its number from 1. */
export async function match(positionals: string[], options: Options, io: Io): Promise<number> {
  const sources = await all(positionals, options, io);
  if (!sources.length) return 1;
  const { matchAll, reasonsOf, standingIn } = await import('@pandecta/core/matching');
  const matched = matchAll(sources.map((s) => s.record));
  const { clusterOf } = matched;
  const lines = ['record\tcluster\tprobability\treasons'];
  for (const i of sources.keys()) {
    const standing = standingIn(matched, i);
    const reasons = standing
      ? reasonsOf(standing)
          .map((r) => (r.for ? r.says : `but ${r.says}`))
          .join(', ')
      : '';
    lines.push([i + 1, clusterOf[i]! + 1, (standing?.probability ?? 1).toFixed(4), reasons].join('\t'));
  }
  const text = `${lines.join('\n')}\n`;
  if (options.out) await writeFile(String(options.out), text);
  else io.out(text);
  return 0;
}

/** What is wrong with records as a style would print them; or the records with what is sure mended. */
export async function proof(positionals: string[], options: Options, io: Io): Promise<number> {
  if (!options.style) throw new Usage('--style takes the name of a style, as `styles` lists them');
  const to = options.to === undefined ? 'csl-json' : oneOf<ExportFormat>('to', String(options.to), EXPORT_FORMATS);
  const citer = await citerFor(String(options.style), options.locale as string | undefined);
  const { amongOf, mended, proof: look, usesByKind } = await import('@pandecta/core/proofing');
  // Findings are the result here, and messages of reading go their own way.
  const { messages: _, ...reading } = options;
  const sources = await all(positionals, reading, io);
  if (!sources.length) return 1;
  const { englishWords } = await import('@pandecta/core/english');
  const english = englishWords();
  const among = amongOf(sources.map((s) => s.record));
  const usesFor = usesByKind(citer);
  const thisYear = new Date().getFullYear();
  const view = (s: ReadSource) => ({ record: s.record, uses: usesFor(s.record.type), among, english, thisYear });
  if (options.mend) {
    io.out(
      writeSources(
        sources.map((s) => ({ ...s, record: mended(view(s)) })),
        to,
      ),
    );
    return 0;
  }
  for (const [i, s] of sources.entries())
    for (const finding of look(view(s))) {
      const { rule, field, severity, what, sure, mend } = finding;
      io.out(`${JSON.stringify({ record: i + 1, id: s.record['citation-key'] ?? s.record.title ?? '', rule, field, severity, what, sure, ...(mend && { mend }) })}\n`); // prettier-ignore
    }
  return 0;
}
