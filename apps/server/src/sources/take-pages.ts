/** Pages of a document as a source of their own, related to the whole as its part. */
import { Readable } from 'node:stream';
import { eq, sql } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import type { Changed, TakenPages, TakePages } from '@pandecta/contract';
import { NOTHING_SAID, type Change } from '@pandecta/core/changes';
import { citedPage, type CitedPages } from '@pandecta/core/page-numbers';
import type { SourceRecord } from '@pandecta/core/source';
import { counted } from '@pandecta/core/wording';
import type { Access, Actor } from '../access/principal.ts';
import { defineJob } from '../capability.ts';
import { commitWithin } from '../changes/commit.ts';
import type { Db } from '../database/connect.ts';
import { list, number, rows, text } from '../database/read.ts';
import { within } from '../database/within.ts';
import { Refusal } from '../errors.ts';
import { MARKS_ON } from '../files/marks-on.ts';
import { numbersOf } from '../files/numbers.ts';
import { asSentences, readOrRecognise } from '../files/scans/read.ts';
import { findFile, findFileOf } from '../files/store.ts';
import { files } from '../files/tables.ts';
import type { Job, Progress } from '../queue/kind.ts';
import { doOnce } from '../queue/once.ts';
import { reserveCitationKeys } from '../records/citation-keys.ts';
import { refuseWrong } from '../records/refuse-wrong.ts';
import { workspaceOf } from '../records/workspace.ts';
import { findRecords, insertSources } from '../records/store.ts';
import type { Services } from '../services.ts';
import { broughtTo, findDestination } from './destination.ts';
import { tagsOfPages } from './sorting.ts';

interface Taking {
  source: string;
  file: string;
  pages: number[];
  record: Record<string, unknown>;
}

/** @throws Refusal where the file has no such pages, or the record may not be kept */
export async function takePages(
  services: Services,
  actor: Access,
  { source, file: id }: { source: string; file: string },
  { pages, record }: TakePages,
): Promise<Changed> {
  const file = await findFileOf(services.db, actor, source, id);
  const wanted = [...new Set(pages)].sort((a, b) => a - b);
  const beyond = wanted.find((page) => page > file.pages);
  if (beyond) throw new Refusal('invalid', `the file has no page ${beyond}`);
  if (file.mediaType !== 'application/pdf') throw new Refusal('invalid', 'pages are taken from a PDF');
  refuseWrong(record);
  if (!record.type) throw new Refusal('invalid', 'the kind is missing');
  const title = `Taking ${counted(wanted.length, 'page')} of ${file.name}`;
  const input: Taking = { source, file: id, pages: wanted, record };
  const jobId = await services.jobs.queue(takePagesJob, actor, title, input);
  return { changeId: null, says: `${title}; the new source is added when they have been read`, jobId };
}

/** Of pages that follow each other the first and the last, as they are cited: "5–6, 9". */
function inWords(pages: number[], numbers: CitedPages): string {
  const runs: [number, number][] = [];
  for (const page of pages) {
    const last = runs.at(-1);
    if (last && page === last[1] + 1) last[1] = page;
    else runs.push([page, page]);
  }
  const called = (page: number): string => citedPage(numbers, page);
  return runs.map(([a, b]) => (a === b ? called(a) : `${called(a)}–${called(b)}`)).join(', ');
}

async function takePagesWork(
  services: Services,
  { workspaceId, jobId, userId, input }: Job<Taking>,
  progress: Progress,
): Promise<string> {
  const { db, storage, workers, followers } = services;
  const actor: Actor = { workspaceId, userId };
  const whole = await findFile(db, actor, input.file);
  const here = { sourceId: input.source, fileId: input.file };
  const places = inWords(input.pages, (await numbersOf(db, workspaceId, [here]))(here));
  const title = String(input.record.title ?? 'Pages');
  const name = `${
    title
      .replace(/[/\\:*?"<>|]/g, ' ')
      .slice(0, 120)
      .trim() || 'Pages'
  }.pdf`;
  const bytes = await workers.run('cutPages', { path: storage.path(whole.sha256), pages: input.pages });
  const stored = await storage.put(Readable.from([Buffer.from(bytes)]));
  const { read, recognised } = await readOrRecognise(
    services,
    await workspaceOf(db, workspaceId),
    { ...stored, name, path: storage.path(stored.sha256) },
    asSentences(progress),
    input.source,
  );
  const kept: [string, ...string[]] = recognised ? [recognised.fileId, read.fileId] : [read.fileId];
  const id = uuidv7();
  const provenance = Object.fromEntries(
    Object.keys(input.record).map((f) => [f, { from: 'person' as const, sure: 1 }]),
  );
  const record = input.record as unknown as SourceRecord;
  const keyed = await reserveCitationKeys(db, workspaceId, [{ id, record, provenance }]);
  const { says } = await doOnce(db, { workspaceId, jobId }, async (tx) => {
    await insertSources(tx, actor, keyed, { presence: 'none', importId: null });
    for (const file of kept)
      await within(tx, workspaceId).update(
        files,
        { takenFrom: { file: input.file, pages: input.pages } },
        eq(files.id, file),
      );
    const destination = await findDestination(
      tx,
      actor,
      {
        collections: await collectionsOf(tx, workspaceId, input.source),
        tags: await tagsOfPages(tx, workspaceId, input.file, input.pages),
        reading: null,
      },
      'left out',
    );
    const whatOf = (await findRecords(tx, workspaceId, [input.source])).get(input.source)?.title ?? 'a source';
    const said = { before: null, after: { ...NOTHING_SAID, page: places.slice(0, 200) } };
    const changes: Change[] = [
      { do: 'presence', sources: [id], from: 'none', to: 'live' },
      ...kept.map((file): Change => ({ do: 'attach', source: id, file, name, present: true })),
      ...(await MARKS_ON.all.comeWith(tx, services, actor, [{ source: id, files: kept }])),
      ...broughtTo(destination, [id]),
      { do: 'relate', from: id, to: input.source, as: 'part of', said },
    ];
    const sentence = `Took p. ${places} of “${whatOf}” as “${title}”`;
    const committed = await commitWithin(tx, actor, { do: 'all', says: sentence, changes });
    return { changeId: committed.changeId, says: committed.says };
  });
  followers.kick();
  return says;
}

export const takePagesJob = defineJob<Taking>({
  kind: 'take-pages',
  nothing: 'no source was made',
  failed: 'The pages could not be taken from the document; no source was made. The document is as it was.',
  work: takePagesWork,
});

const collectionsOf = async (tx: Db, workspaceId: string, source: string): Promise<string[]> =>
  (
    await rows(
      tx,
      { id: text() },
      sql`select cs.collection_id as id from collection_sources cs
        join collections c on c.workspace_id = cs.workspace_id and c.id = cs.collection_id and c.present and c.owner is null
        where cs.workspace_id = ${workspaceId} and cs.source_id = ${source}`,
    )
  ).map((c) => c.id);

/** For each source that was made of pages of this file, and is not in the bin: its title and those pages. */
export async function takenPages(
  db: Db,
  actor: Actor,
  { source, file }: { source: string; file: string },
): Promise<TakenPages> {
  await findFileOf(db, actor, source, file);
  const found = await rows(
    db,
    { source: text(), title: text(), pages: list(number) },
    sql`select s.id as source, coalesce(s.record->>'title', 'Untitled') as title, array_agg(distinct p.page::int) as pages
      from files f cross join lateral jsonb_array_elements(f.taken_from->'pages') p(page)
      join source_files sf on sf.workspace_id = f.workspace_id and sf.file_id = f.id
      join sources s on s.workspace_id = f.workspace_id and s.id = sf.source_id and s.presence = 'live'
      where f.workspace_id = ${actor.workspaceId} and f.taken_from->>'file' = ${file} group by 1, 2 order by min(p.page::int)`,
  );
  return { taken: found };
}
