/** What is said of a gathering when it has ended: figures, what became of each file, and the messages. */
import { eq, sql } from 'drizzle-orm';
import type { ImportedSource, ImportFileReport, ImportMessage } from '@pandecta/contract';
import { countSources } from '@pandecta/core/changes';
import { withoutMarkup } from '@pandecta/core/source';
import { counted, formatNumber } from '@pandecta/core/wording';
import type { Db } from '../database/connect.ts';
import { within } from '../database/within.ts';
import { isFile } from './inputs.ts';
import type { Candidate, Prepared } from './prepare/index.ts';
import type { Settled } from './settle.ts';
import { imports } from './tables.ts';

export interface StoredReport {
  added: number;
  /** Missing from reports written before there was an intake. */
  waiting?: number;
  known: number;
  attached: number;
  withMessages: number;
  messagesInAll: number;
  files: ImportFileReport[];
  /** Missing from reports written before they were told. */
  fresh?: ImportedSource[];
}

const MOST_MESSAGES = 5000;
/** So many of the new ones are told by name; all of them are in Sources. */
const MOST_FRESH = 200;

/** All there is to say of the files: what reading them found, and which of their entries are already here. */
export function messagesOf(prepared: Prepared[], { known }: Settled, isBrought: boolean): ImportMessage[] {
  const here = known
    .filter((k) => !k.candidate.file)
    .map(({ candidate, title, because }): ImportMessage => ({
      file: prepared[candidate.input]!.input.name,
      severity: 'info',
      rule: 'already-here',
      line: candidate.line,
      column: 1,
      what: `“${named(candidate)}” is already here (${because})`,
      done: isBrought
        ? `nothing was added; “${withoutMarkup(title)}” was brought to the destination`
        : `nothing was added; “${withoutMarkup(title)}” stays where it is`,
    }));
  return [...prepared.flatMap((p) => p.messages), ...here];
}

const named = ({ record }: Candidate): string => withoutMarkup(record.title ?? 'An entry without a title');

export function makeReport(prepared: Prepared[], settled: Settled, messages: ImportMessage[]): StoredReport {
  const freshBy = countBy(settled.fresh);
  const waitingBy = countBy(settled.waiting);
  const files = prepared.map((p, i): ImportFileReport => {
    const added = freshBy.get(i) ?? 0;
    const waiting = waitingBy.get(i) ?? 0;
    const known = settled.known.filter((k) => k.candidate.input === i);
    const attached = settled.attach.filter((k) => k.candidate.input === i);
    const sourceId = [
      ...settled.fresh.filter((c) => c.input === i && c.file).map((c) => c.id),
      ...known.map((k) => k.source),
      ...attached.map((a) => a.source),
    ][0];
    return {
      name: p.input.name,
      format: p.format,
      added,
      known: known.length,
      messages: p.messages.length + known.filter((k) => !k.candidate.file).length,
      outcome: outcomeOf(p, { added, waiting }, known, attached),
      ...(p.trouble ? { trouble: p.trouble } : {}),
      ...(sourceId ? { sourceId } : {}),
    };
  });
  return {
    added: settled.fresh.length,
    waiting: settled.waiting.length,
    known: settled.known.length,
    attached: settled.attach.length,
    files,
    fresh: settled.fresh.slice(0, MOST_FRESH).map((c) => ({ id: c.id, title: named(c) })),
    withMessages: new Set(messages.filter((m) => m.severity !== 'info').map((m) => `${m.file}:${m.line}`)).size,
    messagesInAll: messages.length,
  };
}

function outcomeOf(
  p: Prepared,
  { added, waiting }: { added: number; waiting: number },
  known: Settled['known'],
  attached: Settled['attach'],
): string {
  if (p.trouble) return p.trouble;
  const pdf = p.candidates[0]?.file;
  const pages = pdf ? ` (${fileWords(pdf)})` : '';
  if (attached[0]) return `Attached to “${withoutMarkup(attached[0].title)}”${pages}: ${attached[0].because}`;
  if (pdf && known[0]) return `Already here as “${withoutMarkup(known[0].title)}”: ${known[0].because}`;
  if (pdf) return `${waiting ? 'In the intake:' : 'New source'} “${named(p.candidates[0]!)}”${pages}`;
  if (!isFile(p.input) && waiting === 1) return `In the intake: “${named(p.candidates[0]!)}”`;
  const here = known.length ? `, ${formatNumber(known.length)} already here` : '';
  if (waiting) return `${formatNumber(waiting)} in the intake${added ? `, ${countSources(added)} new` : ''}${here}`;
  return `${countSources(added)} new${here}`;
}

/** "2 pages", "1 page, image only", "locked with a password" */
function fileWords({ state, pages }: NonNullable<Candidate['file']>): string {
  if (state === 'encrypted') return 'locked with a password, not read';
  return `${counted(pages, 'page')}${state === 'image only' ? ', image only' : ''}`;
}

function countBy(candidates: Candidate[]): Map<number, number> {
  const out = new Map<number, number>();
  for (const c of candidates) out.set(c.input, (out.get(c.input) ?? 0) + 1);
  return out;
}

export async function storeReport(
  tx: Db,
  workspaceId: string,
  importId: string,
  changeId: string | null,
  report: StoredReport,
  messages: ImportMessage[],
): Promise<void> {
  await within(tx, workspaceId).update(imports, { report, changeId }, eq(imports.id, importId));
  const order = { error: 0, warning: 1, info: 2 } as const;
  const kept = messages.toSorted((a, b) => order[a.severity] - order[b.severity]).slice(0, MOST_MESSAGES);
  await tx.execute(sql`insert into import_messages (workspace_id, import_id, ordinal, message)
    select ${workspaceId}::uuid, ${importId}::uuid, m.ordinality, m.value from jsonb_array_elements(${JSON.stringify(kept)}::jsonb) with ordinality as m(value, ordinality)`);
}

/** "12 sources new, 3 already here, 2 with messages" */
export function summary(report: StoredReport): string {
  return [
    ...(report.added || !report.waiting ? [`${countSources(report.added)} new`] : []),
    ...(report.waiting ? [`${formatNumber(report.waiting)} in the intake`] : []),
    ...(report.known ? [`${formatNumber(report.known)} already here`] : []),
    ...(report.attached ? [`${counted(report.attached, 'file')} attached to sources already here`] : []),
    ...(report.withMessages ? [`${formatNumber(report.withMessages)} with messages`] : []),
  ].join(', ');
}
