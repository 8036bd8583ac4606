/** The import job: files in, sources and a report out, in one transaction, as one change that can be undone. */
import { sql } from 'drizzle-orm';
import type { Destination, ImportMessage, GatherSettings, Through } from '@pandecta/contract';
import { countSources, type Change } from '@pandecta/core/changes';
import { lacksOf } from '@pandecta/core/intake';
import { formatNumber } from '@pandecta/core/wording';
import { commitWithin } from '../changes/commit.ts';
import { withoutTimeout, type Db } from '../database/connect.ts';
import { json, number, one, orNull, text, type RowOf } from '../database/read.ts';
import { table } from '../database/sql.ts';
import { within } from '../database/within.ts';
import { Refusal } from '../errors.ts';
import type { Actor } from '../access/principal.ts';
import type { Job, Progress as JobProgress } from '../queue/kind.ts';
import { enter } from '../queue/once.ts';
import type { Progress } from '../indexing/derive.ts';
import { broughtTo, findDestination, type Places } from '../sources/destination.ts';
import type { Services } from '../services.ts';
import { releaseCitationKeys, reserveCitationKeys, type KeyedRecord } from '../records/citation-keys.ts';
import { insertSources } from '../records/store.ts';
import { MARKS_ON, type Coming } from '../files/marks-on.ts';
import { ensureTags, tagName } from '../tags/store.ts';
import { fileByFolder } from './folders.ts';
import { isFile, type Input } from './inputs.ts';
import { prepare, type Candidate } from './prepare/index.ts';
import { forgetReadings } from './prepare/readings.ts';
import { makeReport, messagesOf, storeReport, summary, type StoredReport } from './report.ts';
import { gatherSettingsOf } from './settings.ts';
import { fingerprint, settle, type Settled } from './settle.ts';
import { unpack } from './unpack.ts';
import { sourceOrigins } from './tables.ts';

/** An import as its job finds it. */
const IMPORT = {
  id: text(),
  title: text(),
  destination: orNull(json<Destination>()),
  through: orNull(text<Through>()),
  inputs: json<Input[]>(),
  report: json<StoredReport | null>(),
  made_by: text(),
  number,
};
type ImportRow = RowOf<typeof IMPORT>;

const CHUNK = 1000;

export async function importWork(
  services: Services,
  { workspaceId, jobId }: Job<null>,
  progress: JobProgress,
): Promise<string> {
  const row = await one(
    services.db,
    IMPORT,
    sql`select i.*, w.number from imports i join workspaces w on w.id = i.workspace_id where i.workspace_id = ${workspaceId} and i.job_id = ${jobId}`,
  );
  if (!row) throw new Refusal('no_such_import');
  if (row.report) return summary(row.report);
  const { inputs, messages: unpacking } = await unpack(services.storage, row.inputs, progress);
  const prepared = await prepare(services, { id: workspaceId, number: row.number }, row.id, inputs, progress);
  const read = inTheirOrder(prepared.flatMap((p) => p.candidates));
  const candidates = await reserveCitationKeys(services.db, workspaceId, read);
  await progress(0, candidates.length, 'Comparing with what is here');
  const report = await withoutTimeout(services.db, async (tx) => {
    await enter(tx, workspaceId, jobId);
    const before = await one(tx, { report: json<StoredReport | null>() }, sql`select report from imports where workspace_id = ${workspaceId} and id = ${row.id}`); // prettier-ignore
    if (before?.report) return before.report;
    await oneAtATime(tx, workspaceId);
    const settled = await settle(tx, workspaceId, candidates, waitsBy(row, await gatherSettingsOf(tx, workspaceId)));
    const actor = { workspaceId, userId: row.made_by };
    const notNew = [...settled.known, ...settled.attach].map((k) => k.candidate.id);
    await releaseCitationKeys(tx, workspaceId, notNew);
    const destination = await findDestination(tx, actor, row.destination, 'left out');
    const coming = settled.fresh.length + settled.waiting.length;
    const insert = (list: Keyed[], presence: 'live' | 'intake', before: number): Promise<void> =>
      insertNew(tx, actor, row, destination, presence, list, (done) =>
        progress(before + done, coming, 'Adding sources'),
      );
    await insert(settled.fresh, 'live', 0);
    if (row.destination?.folders) noteFolders(settled.waiting, inputs);
    await insert(settled.waiting, 'intake', settled.fresh.length);
    const changeId = await commitImport(tx, services, actor, row, destination, inputs, settled, (done, total) =>
      progress(done, total, 'Indexing'),
    );
    const messages = [
      ...unpacking,
      ...folderMessages(row, inputs, settled),
      ...messagesOf(prepared, settled, Boolean(row.destination?.known)),
    ];
    const report = makeReport(prepared, settled, messages);
    await storeReport(tx, workspaceId, row.id, changeId, report, messages);
    await forgetReadings(tx, workspaceId, row.id);
    await progress(candidates.length, candidates.length, 'Finishing');
    return report;
  });
  services.followers.kick();
  return summary(report);
}

/** A candidate with its citation key. */
type Keyed = Candidate & { record: KeyedRecord };

/** Sources of one gathering stand by their ids: what was read first, or answered first, need not have come first. */
function inTheirOrder(candidates: Candidate[]): Candidate[] {
  const ids = candidates.map((c) => c.id).sort();
  for (const [i, candidate] of candidates.entries()) candidate.id = ids[i]!;
  return candidates;
}

/** Of two gatherings of a workspace the second compares with what the first brought in: till its end they take turns. */
const oneAtATime = (tx: Db, workspaceId: string): Promise<unknown> =>
  tx.execute(sql`select pg_advisory_xact_lock(hashtextextended(${`import ${workspaceId}`}, 0))`);

/** By what one said of this gathering; else files of references come in with a report, and all else waits. */
function waitsBy(row: ImportRow, settings: GatherSettings): (candidate: Candidate, isNew: boolean) => boolean {
  if (row.through) return () => row.through === 'intake';
  return ({ record, referenceFile }, isNew) => {
    if (referenceFile) return settings.holdReferences;
    return !(settings.passComplete && isNew && !lacksOf(record).length);
  };
}

async function insertNew(
  tx: Db,
  actor: Actor,
  row: ImportRow,
  { collections, tags, reading }: Places,
  presence: 'live' | 'intake',
  list: Keyed[],
  progress: (done: number) => Promise<void>,
): Promise<void> {
  const w = sql`${actor.workspaceId}::uuid`;
  const subjects = await ensureTags(
    tx,
    actor.workspaceId,
    list.flatMap((c) => c.subjects),
    true,
  );
  for (let i = 0; i < list.length; i += CHUNK) {
    const part = list.slice(i, i + CHUNK);
    const ids = part.map((c) => c.id);
    await insertSources(tx, actor, part, { presence, importId: row.id });
    const tagged = [
      ...part.flatMap((c) => c.subjects.map((s) => [c.id, subjects.get(tagName(s).toLowerCase())] as const)),
      ...ids.flatMap((id) => tags.map((tag) => [id, tag.id] as const)),
    ].filter((p) => p[1]);
    await tx.execute(sql`insert into source_tags (workspace_id, source_id, tag_id) select ${w}, u.s, u.t
      from ${table('u', { s: ['uuid', tagged.map((t) => t[0])], t: ['uuid', tagged.map((t) => t[1])] })} on conflict do nothing`);
    const read = part.filter((c) => !c.file);
    await tx.execute(sql`insert into source_keys (workspace_id, source_id, key) select ${w}, u.s, u.k
      from ${table('u', { s: ['uuid', read.map((c) => c.id)], k: ['text', read.map(fingerprint)] })} on conflict do nothing`);
    const filed = part.flatMap((c) =>
      [c.file, ...(c.beside ?? [])].flatMap((f) => (f ? [{ source: c.id, file: f.id }] : [])),
    );
    await tx.execute(sql`insert into source_files (workspace_id, source_id, file_id) select ${w}, u.s, u.f
      from ${table('u', { s: ['uuid', filed.map((f) => f.source)], f: ['uuid', filed.map((f) => f.file)] })} on conflict do nothing`);
    for (const { id } of collections)
      await tx.execute(sql`insert into collection_sources (workspace_id, source_id, collection_id)
        select ${w}, u.s, ${id}::uuid from ${table('u', { s: ['uuid', ids] })} on conflict do nothing`);
    if (reading)
      await tx.execute(sql`insert into source_reading (workspace_id, source_id, user_id, state)
        select ${w}, u.s, ${actor.userId}::uuid, ${reading} from ${table('u', { s: ['uuid', ids] })} on conflict do nothing`);
    const origins = part.flatMap(({ id, origin }) => (origin ? [{ sourceId: id, ...origin }] : []));
    if (origins.length) await within(tx, actor.workspaceId).insert(sourceOrigins, ...origins);
    await progress(i + part.length);
  }
}

/** What came with the new sources is part of them; what it did to sources already here is part of the change. */
async function commitImport(
  tx: Db,
  services: Services,
  actor: Actor,
  row: ImportRow,
  destination: Places,
  inputs: Input[],
  { fresh, waiting, known, attach }: Settled,
  progress: Progress,
): Promise<string | null> {
  const changes: Change[] = [];
  const came = (list: Candidate[], to: 'live' | 'intake'): void => {
    if (list.length) changes.push({ do: 'presence', sources: list.map((c) => c.id), from: 'none', to, made: true });
  };
  came(fresh, 'live');
  came(waiting, 'intake');
  const folders = await filedByFolder(tx, actor.workspaceId, row.destination, inputs, [
    // What waits is filed when it is taken in.
    ...fresh.map((candidate) => ({ candidate, source: candidate.id })),
    ...(row.destination?.known ? [...known, ...attach] : []),
  ]);
  changes.push(...folders);
  const fromHere = new Set([...fresh, ...waiting].map((c) => c.id));
  for (const { source, candidate } of attach)
    for (const { id, name } of [candidate.file!, ...(candidate.beside ?? [])])
      changes.push({ do: 'attach', source, file: id, name, present: true });
  const coming = [
    ...[...fresh, ...waiting].map((candidate) => ({ source: candidate.id, candidate })),
    ...attach,
  ].flatMap(({ source, candidate: { file, beside = [] } }): Coming[] =>
    file ? [{ source, files: [file.id, ...beside.map((f) => f.id)] }] : [],
  );
  changes.push(...(await MARKS_ON.all.comeWith(tx, services, actor, coming)));
  const sources = [...new Set([...known, ...attach].map((k) => k.source))].filter((id) => !fromHere.has(id));
  // What is here already stays where it is, unless it is to be brought along.
  if (sources.length && row.destination?.known) changes.push(...broughtTo(destination, sources));
  if (!changes.length) return null;
  const says = waiting.length
    ? `Gathered ${row.title}: ${[...(fresh.length ? [`${countSources(fresh.length)} new`] : []), `${formatNumber(waiting.length)} in the intake`].join(', ')}`
    : `Imported ${row.title}: ${countSources(fresh.length)} new`;
  return (await commitWithin(tx, actor, { do: 'all', says, changes }, { progress })).changeId;
}

/** Which folders become collections, and when. */
function folderMessages(row: ImportRow, inputs: Input[], { fresh, waiting }: Settled): ImportMessage[] {
  if (!row.destination?.folders) return [];
  const of = (list: Candidate[]): string => [...new Set(list.flatMap((c) => folderOf(inputs, c) ?? []))].join(', ');
  const say = (folders: string, done: string): ImportMessage[] =>
    folders
      ? [{ file: row.title, severity: 'info', rule: 'folders', line: 0, column: 0, what: `Folders: ${folders}`, done }]
      : [];
  return [
    ...say(of(fresh), 'each is a collection of that name'),
    ...say(of(waiting), 'each becomes a collection once something of it is taken in'),
  ];
}

/** The folder each came in, for when it is taken in. */
function noteFolders(waiting: Candidate[], inputs: Input[]): void {
  for (const candidate of waiting) {
    const folder = folderOf(inputs, candidate);
    if (folder) candidate.origin = { ...candidate.origin, folder };
  }
}

/** What makes collections of folders and files in them what came from each, where that was chosen. */
async function filedByFolder(
  tx: Db,
  workspaceId: string,
  destination: Destination | null,
  inputs: Input[],
  came: { candidate: Candidate; source: string }[],
): Promise<Change[]> {
  if (!destination?.folders) return [];
  const inFolders = came.flatMap(({ candidate, source }) => {
    const folder = folderOf(inputs, candidate);
    return folder ? [{ folder, source }] : [];
  });
  return fileByFolder(tx, workspaceId, inFolders, destination.collections[0] ?? null);
}

const folderOf = (inputs: Input[], { input }: Candidate): string | undefined => {
  const from = inputs[input];
  return from && isFile(from) ? from.folder : undefined;
};
