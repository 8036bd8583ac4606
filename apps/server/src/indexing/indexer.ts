/** The indexer: writes the text vectors of sources whose words were altered. */
import { isNull, lt, sql } from 'drizzle-orm';
import type { Db } from '../database/connect.ts';
import { json, list, number, one, orNull, rows, text } from '../database/read.ts';
import { array, table } from '../database/sql.ts';
import { within } from '../database/within.ts';
import type { SourceRecord } from '@pandecta/core/source';
import { NOTED, numbersOf } from './derive.ts';
import { DOCUMENTS, type DocumentName } from './documents.ts';
import type { Following } from './follower.ts';
import { indexQueue, textNotes } from './tables.ts';
import type { Workers } from '../workers/pool.ts';
import type { TextParts } from '../database/lexemes.ts';

/** Any number: with that of a workspace, what those who note for it wait for. */
const NOTING = 4_700_002;

/** Whether words of a workspace were written that the indexer has not come to. */
export function hasUnread(db: Db, workspaceId: string): Promise<boolean> {
  return within(db, workspaceId).has(indexQueue, isNull(indexQueue.after));
}

export const indexing = (workers: Workers): Following => ({
  queue: 'index_queue',
  share: 250,
  news: 'words',
  work: (tx, workspaceId, ids) => write(tx, workers, workspaceId, ids),
  end: note,
});

/** Notes whose text was written, in the order in which it comes to be seen. */
async function note(tx: Db, workspaceId: string, ids: string[]): Promise<void> {
  const numbers = await numbersOf(tx, workspaceId, ids);
  await tx.execute(
    sql`select pg_advisory_xact_lock(${NOTING}, (select number from workspaces where id = ${workspaceId}))`,
  );
  const noted = await one(
    tx,
    { revision: number },
    sql`insert into text_notes (workspace_id, revision, numbers)
        select ${workspaceId}, coalesce(max(revision), 0) + 1, ${array(numbers, 'int')} from text_notes where workspace_id = ${workspaceId}
        returning revision`,
  );
  await within(tx, workspaceId).delete(textNotes, lt(textNotes.revision, noted!.revision - NOTED));
}

async function write(tx: Db, workers: Workers, workspaceId: string, ids: string[]): Promise<void> {
  const parts = await gather(tx, workspaceId, ids);
  const vectors = await workers.run('vectors', parts);
  const read = table('u', {
    id: ['uuid', parts.map((p) => p.id)],
    number: ['int', parts.map((p) => p.number)],
    vector: ['text', vectors.map((v) => v.words)],
    fields: ['text', vectors.map((v) => v.fields)],
    left_out: ['int', vectors.map((v) => v.leftOut)],
  });
  await tx.execute(sql`
      insert into source_text (workspace_id, source_id, number, vector, fields, left_out)
      select ${workspaceId}::uuid, u.id, u.number, u.vector::tsvector, u.fields::tsvector, u.left_out from ${read}
      on conflict (workspace_id, source_id) do update set number = excluded.number, vector = excluded.vector, fields = excluded.fields,
        left_out = excluded.left_out`);
  const written = parts.flatMap((p, i) =>
    p.written.map((one, n) => ({ ...one, source: p.id, vector: vectors[i]!.written[n]! })),
  );
  await writeDocuments(tx, workspaceId, ids, written);
  await keepWords(tx, workspaceId, new Set(vectors.flatMap((v) => v.stems)));
}

/** What is written on these sources, each by itself: what is there no more goes. */
async function writeDocuments(
  tx: Db,
  workspaceId: string,
  sources: string[],
  written: (Written & { source: string; vector: string })[],
): Promise<void> {
  const read = table('u', {
    kind: ['text', written.map((d) => d.kind)],
    id: ['uuid', written.map((d) => d.id)],
    source: ['uuid', written.map((d) => d.source)],
    audience: ['uuid', written.map((d) => d.audience)],
    vector: ['text', written.map((d) => d.vector)],
  });
  await tx.execute(sql`delete from documents d where d.workspace_id = ${workspaceId} and d.source_id = any(${array(sources, 'uuid')})
    and not exists (select 1 from ${read} where u.kind = d.kind and u.id = d.id)`);
  await tx.execute(sql`
    insert into documents (workspace_id, kind, id, part, source_id, audience, vector)
    select ${workspaceId}::uuid, u.kind, u.id, 0, u.source, u.audience, u.vector::tsvector from ${read} order by u.kind, u.id
    on conflict (workspace_id, kind, id, part) do update
      set source_id = excluded.source_id, audience = excluded.audience, vector = excluded.vector
      where (documents.source_id, documents.audience, documents.vector) is distinct from (excluded.source_id, excluded.audience, excluded.vector)`);
}

/** Keeps the words there are, in one order so that no two wait for each other. None is ever taken away. */
async function keepWords(tx: Db, workspaceId: string, words: Set<string>): Promise<void> {
  await tx.execute(sql`
    insert into index_words (workspace_id, word)
    select ${workspaceId}::uuid, u.word from unnest(${array([...words].sort(), 'text')}) u(word)
    where not exists (select 1 from index_words k where k.workspace_id = ${workspaceId} and k.word = u.word)
    on conflict do nothing`);
}

async function gather(
  tx: Db,
  workspaceId: string,
  ids: string[],
): Promise<(Omit<TextParts, 'written'> & { id: string; number: number; written: Written[] })[]> {
  const w = sql`${workspaceId}::uuid`;
  const found = await rows(
    tx,
    {
      id: text(),
      record: json<SourceRecord>(),
      workspace: number,
      number: number,
      subjects: orNull(list(text())),
      stems: orNull(list(text())),
    },
    sql`select s.id, s.record, w.number as workspace, ss.number,
        (select array_agg(t.name) from source_tags st join tags t on t.workspace_id = ${w} and t.id = st.tag_id and t.subject
          where st.workspace_id = ${w} and st.source_id = s.id) as subjects,
        (select array_agg(distinct split_part(l, ':', 2)) from source_files sf
          join documents p on p.workspace_id = ${w} and p.kind = 'page' and p.id = sf.file_id, unnest(tsvector_to_array(p.vector)) l
          where sf.workspace_id = ${w} and sf.source_id = s.id) as stems
      from sources s join workspaces w on w.id = s.workspace_id
      join source_sort ss on ss.workspace_id = ${w} and ss.source_id = s.id
      where s.workspace_id = ${w} and s.id = any(${array(ids, 'uuid')})`,
  );
  const written = await writtenOn(tx, workspaceId, ids);
  return found.map((f) => ({
    id: f.id,
    number: f.number,
    workspace: f.workspace,
    record: f.record,
    subjects: f.subjects ?? [],
    written: written.get(f.id) ?? [],
    pageStems: f.stems ?? [],
  }));
}

/** A document that a member wrote. */
interface Written {
  kind: DocumentName;
  id: string;
  /** Who alone finds it; null where everyone does. */
  audience: string | null;
  text: string;
}

/** What members wrote on each source. What is on one that became part of another stands on that. */
async function writtenOn(tx: Db, workspaceId: string, ids: string[]): Promise<Map<string, Written[]>> {
  const w = sql`${workspaceId}::uuid`;
  const each = Object.entries(DOCUMENTS.all).flatMap(([kind, { written }]) =>
    written
      ? [
          sql`select ${kind}::text, x.* from (${written({ workspace: w, ids: array(ids, 'uuid') })}) x(source, id, audience, text)`,
        ]
      : [],
  );
  const found = await rows(
    tx,
    { kind: text<DocumentName>(), source: text(), id: text(), audience: orNull(text()), text: text() },
    sql`select * from (${sql.join(each, sql` union all `)}) d(kind, source, id, audience, text)
      where not exists (select 1 from sources s where s.workspace_id = ${w} and s.id = d.source and s.merged_into is not null) order by kind, id`,
  );
  const out = new Map<string, Written[]>();
  for (const { source, ...one } of found) out.set(source, [...(out.get(source) ?? []), one]);
  return out;
}
