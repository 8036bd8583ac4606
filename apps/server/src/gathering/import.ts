/** The import job: files in, sources and a report out, in one transaction, as one change that can be undone. */
import { eq, sql } from 'drizzle-orm';
import type { ImportFileReport, ImportMessage } from '@pandecta/contract';
import { countSources, type Change } from '@pandecta/core/changes';
import { withoutMarkup } from '@pandecta/core/source';
import { commitWithin } from '../changes/commit.ts';
import { withoutTimeout, type Db } from '../database/connect.ts';
import { json, number, one, orNull, text, type RowOf } from '../database/read.ts';
import { table } from '../database/sql.ts';
import { within } from '../database/within.ts';
import { Refusal } from '../errors.ts';
import type { Actor } from '../http/authorise.ts';
import type { Work } from '../jobs/kind.ts';
import type { Progress } from '../indexing/derive.ts';
import { findCollection } from '../places/store.ts';
import type { Services } from '../services.ts';
import { insertSources } from '../sources/store.ts';
import { ensureTags, tagName } from '../tags/store.ts';
import { prepare, type Candidate, type Input, type Prepared } from './prepare.ts';
import { fingerprint, settle, type Settled } from './settle.ts';
import { imports } from './tables.ts';

export interface StoredReport {
  added: number;
  known: number;
  attached: number;
  withMessages: number;
  messagesInAll: number;
  files: ImportFileReport[];
}

/** An import as its job finds it. */
const IMPORT = {
  id: text(),
  title: text(),
  collection_id: orNull(text()),
  inputs: json<Input[]>(),
  report: json<StoredReport | null>(),
  made_by: text(),
  number,
};
type ImportRow = RowOf<typeof IMPORT>;

const MOST_MESSAGES = 5000;
const CHUNK = 1000;

export function importWork(services: Services): Work {
  return async (workspaceId, jobId, progress) => {
    const row = await one(
      services.db,
      IMPORT,
      sql`select i.*, w.number from imports i join workspaces w on w.id = i.workspace_id where i.workspace_id = ${workspaceId} and i.job_id = ${jobId}`,
    );
    if (!row) throw new Refusal('no_such_import');
    if (row.report) return summary(row.report);
    const prepared = await prepare(services, { id: workspaceId, number: row.number }, row.inputs, progress);
    const candidates = prepared.flatMap((p) => p.candidates);
    await progress(0, candidates.length, 'Comparing with what is here');
    const report = await withoutTimeout(services.db, async (tx) => {
      const settled = await settle(tx, workspaceId, candidates);
      const actor = { workspaceId, userId: row.made_by };
      await insertFresh(tx, actor, row, settled.fresh, (done) =>
        progress(done, settled.fresh.length, 'Adding sources'),
      );
      const changeId = await commitImport(tx, actor, row, settled, (done, total) =>
        progress(done, total, 'Making them findable'),
      );
      const messages = messagesOf(prepared, settled);
      const report = makeReport(prepared, settled, messages);
      await storeReport(tx, workspaceId, row.id, changeId, report, messages);
      await progress(candidates.length, candidates.length, 'Finishing');
      return report;
    });
    services.indexer.kick();
    return summary(report);
  };
}

async function insertFresh(
  tx: Db,
  actor: Actor,
  row: ImportRow,
  fresh: Candidate[],
  progress: (done: number) => Promise<void>,
): Promise<void> {
  const w = sql`${actor.workspaceId}::uuid`;
  const subjects = await ensureTags(
    tx,
    actor.workspaceId,
    fresh.flatMap((c) => c.subjects),
    true,
  );
  for (let i = 0; i < fresh.length; i += CHUNK) {
    const part = fresh.slice(i, i + CHUNK);
    await insertSources(tx, actor, part, { presence: 'live', importId: row.id });
    const tagged = part
      .flatMap((c) => c.subjects.map((s) => [c.id, subjects.get(tagName(s).toLowerCase())] as const))
      .filter((p) => p[1]);
    await tx.execute(sql`insert into source_tags (workspace_id, source_id, tag_id) select ${w}, u.s, u.t
      from ${table('u', { s: ['uuid', tagged.map((t) => t[0])], t: ['uuid', tagged.map((t) => t[1])] })} on conflict do nothing`);
    const read = part.filter((c) => !c.file);
    await tx.execute(sql`insert into source_keys (workspace_id, source_id, key) select ${w}, u.s, u.k
      from ${table('u', { s: ['uuid', read.map((c) => c.id)], k: ['text', read.map(fingerprint)] })} on conflict do nothing`);
    const filed = part.filter((c) => c.file);
    await tx.execute(sql`insert into source_files (workspace_id, source_id, file_id) select ${w}, u.s, u.f
      from ${table('u', { s: ['uuid', filed.map((c) => c.id)], f: ['uuid', filed.map((c) => c.file!.id)] })} on conflict do nothing`);
    if (row.collection_id) {
      await tx.execute(sql`insert into collection_sources (workspace_id, source_id, collection_id)
        select ${w}, u.s, ${row.collection_id}::uuid from ${table('u', { s: ['uuid', part.map((c) => c.id)] })} on conflict do nothing`);
    }
    await progress(i + part.length);
  }
}

/** What came with the new sources is part of them; what it did to sources already here is part of the change. */
async function commitImport(
  tx: Db,
  actor: Actor,
  row: ImportRow,
  { fresh, known, attach }: Settled,
  progress: Progress,
): Promise<string | null> {
  const changes: Change[] = [];
  if (fresh.length)
    changes.push({ do: 'presence', sources: fresh.map((c) => c.id), from: 'none', to: 'live', made: true });
  const freshIds = new Set(fresh.map((c) => c.id));
  for (const a of attach)
    changes.push({
      do: 'attach',
      source: a.source,
      file: a.candidate.file!.id,
      name: fileName(row, a.candidate),
      present: true,
    });
  if (row.collection_id) {
    const collection = await findCollection(tx, actor.workspaceId, row.collection_id).catch(() => undefined);
    const here = [...new Set([...known, ...attach].map((k) => k.source))].filter((id) => !freshIds.has(id));
    if (collection && here.length)
      changes.push({ do: 'file', collection: collection.id, name: collection.name, sources: here, present: true });
  }
  if (!changes.length) return null;
  const says = `Imported ${row.title}: ${countSources(fresh.length)} new`;
  return (await commitWithin(tx, actor, { do: 'all', says, changes }, { progress })).changeId;
}

const fileName = (row: ImportRow, c: Candidate): string => row.inputs[c.input]!.name;

/** All there is to say of the files: what reading them found, and which of their entries are already here. */
function messagesOf(prepared: Prepared[], { known }: Settled): ImportMessage[] {
  const here = known
    .filter((k) => !k.candidate.file)
    .map(({ candidate, title, because }): ImportMessage => ({
      file: prepared[candidate.input]!.input.name,
      severity: 'info',
      rule: 'already-here',
      line: candidate.line,
      column: 1,
      what: `“${named(candidate)}” is already here (${because})`,
      done: `nothing was added; it stays as “${withoutMarkup(title)}”`,
    }));
  return [...prepared.flatMap((p) => p.messages), ...here];
}

const named = ({ record }: Candidate): string => withoutMarkup(record.title ?? 'An entry without a title');

function makeReport(prepared: Prepared[], settled: Settled, messages: ImportMessage[]): StoredReport {
  const freshBy = countBy(settled.fresh);
  const files = prepared.map((p, i): ImportFileReport => {
    const added = freshBy.get(i) ?? 0;
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
      outcome: outcomeOf(p, added, known, attached),
      ...(p.trouble ? { trouble: p.trouble } : {}),
      ...(sourceId ? { sourceId } : {}),
    };
  });
  return {
    added: settled.fresh.length,
    known: settled.known.length,
    attached: settled.attach.length,
    files,
    withMessages: new Set(messages.filter((m) => m.severity !== 'info').map((m) => `${m.file}:${m.line}`)).size,
    messagesInAll: messages.length,
  };
}

function outcomeOf(p: Prepared, added: number, known: Settled['known'], attached: Settled['attach']): string {
  if (p.trouble) return p.trouble;
  const pdf = p.candidates[0]?.file;
  const pages = pdf ? ` (${fileWords(pdf)})` : '';
  if (attached[0]) return `Attached to “${withoutMarkup(attached[0].title)}”${pages}: ${attached[0].because}`;
  if (pdf && known[0]) return `Already here as “${withoutMarkup(known[0].title)}”: ${known[0].because}`;
  if (pdf) return `New source “${named(p.candidates[0]!)}”${pages}`;
  const here = known.length ? `, ${known.length.toLocaleString('en')} already here` : '';
  return `${countSources(added)} new${here}`;
}

/** "2 pages", "1 page, image only", "locked with a password" */
function fileWords({ state, pages }: NonNullable<Candidate['file']>): string {
  if (state === 'encrypted') return 'locked with a password, not read';
  return `${pages} ${pages === 1 ? 'page' : 'pages'}${state === 'image only' ? ', image only' : ''}`;
}

function countBy(candidates: Candidate[]): Map<number, number> {
  const out = new Map<number, number>();
  for (const c of candidates) out.set(c.input, (out.get(c.input) ?? 0) + 1);
  return out;
}

async function storeReport(
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
    `${countSources(report.added)} new`,
    ...(report.known ? [`${report.known.toLocaleString('en')} already here`] : []),
    ...(report.attached
      ? [`${report.attached} ${report.attached === 1 ? 'file' : 'files'} attached to sources already here`]
      : []),
    ...(report.withMessages ? [`${report.withMessages.toLocaleString('en')} with messages`] : []),
  ].join(', ');
}
