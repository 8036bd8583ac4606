/** What is known of what waits: with which gathering it came, where from, what it lacks, and what is here already. */
import { eq, sql } from 'drizzle-orm';
import type { Batch, Origin, Way } from '@pandecta/contract';
import type { Presence } from '@pandecta/core/changes';
import type { Lack } from '@pandecta/core/intake';
import { CERTAIN } from '@pandecta/core/matching';
import type { Span } from '@pandecta/core/references';
import type { SourceRecord } from '@pandecta/core/source';
import { nameOfActor } from '../access/people.ts';
import { openRules } from '../check/facets.ts';
import type { Db } from '../database/connect.ts';
import { json, list, number, orNull, rows, text, truth } from '../database/read.ts';
import { array } from '../database/sql.ts';
import { within } from '../database/within.ts';
import type { Found } from '../catalogues/look-up.ts';
import type { Named } from '../places/placed.ts';
import { sourceOrigins } from '../gathering/tables.ts';

export interface Waiting {
  id: string;
  record: SourceRecord;
  presence: Presence;
  batch: string | null;
  lacks: Lack[];
  /** The rules of proofing that find something in it. */
  finds: string[];
  keys: string[];
  files: string[];
  lookedUp: string | null;
  trouble: string | null;
  came: string | null;
  /** How each field is known. */
  provenance: Partial<Record<string, { from: string; sure: number }>>;
}

/** Those of the sources that wait or are set aside, by id. */
export async function findWaiting(db: Db, workspaceId: string, ids: string[]): Promise<Map<string, Waiting>> {
  const w = sql`${workspaceId}::uuid`;
  const found = await rows(
    db,
    {
      id: text(),
      record: json<SourceRecord>(),
      presence: text<Presence>(),
      batch: orNull(text()),
      lacks: list(text<Lack>()),
      finds: list(text()),
      keys: list(text()),
      files: list(text()),
      lookedUp: orNull(text()),
      trouble: orNull(text()),
      came: orNull(text()),
      provenance: json<Waiting['provenance']>(),
    },
    sql`select s.id, s.record, s.provenance, s.presence, s.import_id as batch, ss.lacks, ${openRules(w)} as finds, o.looked_up as "lookedUp", o.trouble, o.came,
      array(select key from source_keys k where k.workspace_id = ${w} and k.source_id = s.id and key not like 'read:%') as keys,
      array(select file_id::text from source_files f where f.workspace_id = ${w} and f.source_id = s.id) as files
    from sources s join source_sort ss on ss.workspace_id = ${w} and ss.source_id = s.id
    left join source_origins o on o.workspace_id = ${w} and o.source_id = s.id
    where s.workspace_id = ${w} and s.id = any(${array(ids, 'uuid')}) and s.presence in ('intake', 'aside')`,
  );
  return new Map(found.map((f) => [f.id, f]));
}

/** The gatherings, with how many came and how many of them wait. */
export async function findBatches(db: Db, workspaceId: string, ids: string[]): Promise<Batch[]> {
  const w = sql`${workspaceId}::uuid`;
  return rows(
    db,
    {
      id: text(),
      title: text(),
      way: text<Way>(),
      at: text(),
      by: text(),
      note: orNull(text()),
      came: number,
      waiting: number,
    },
    sql`select i.id, i.title, i.way, i.made_at as at, ${nameOfActor} as by, i.destination->>'note' as note,
      coalesce((i.report->>'waiting')::int, 0) as came,
      (select count(*)::int from sources s where s.workspace_id = ${w} and s.import_id = i.id and s.presence = 'intake') as waiting
    from imports i left join users u on u.id = i.made_by where i.workspace_id = ${w} and i.id = any(${array(ids, 'uuid')})`,
  );
}

export async function findOrigin(db: Db, workspaceId: string, id: string): Promise<Origin> {
  const { came, spans, found, lookedUp, trouble, items } = sourceOrigins;
  const row = await within(db, workspaceId).first(
    sourceOrigins,
    { came, spans, found, lookedUp, trouble, items },
    eq(sourceOrigins.sourceId, id),
  );
  const where: Found = row?.found ?? {};
  return {
    came: row?.came ?? null,
    spans: row?.spans ?? [],
    lookedUp: row?.lookedUp ?? null,
    trouble: row?.trouble ?? null,
    database: where.database ?? null,
    accession: where.accession ?? null,
    query: where.query ?? null,
    address: where.address ?? null,
    items: row?.items ?? [],
    pdf: where.pdf ?? null,
  };
}

/** More of one batch are not looked through. */
const MOST_OTHERS = 2000;

/** The texts others of a batch were read from, and what was read where. */
export async function findOthersAsTheyCame(
  db: Db,
  workspaceId: string,
  batch: string,
  but: string,
): Promise<Map<string, { came: string; spans: Span[] }>> {
  const found = await rows(
    db,
    { id: text(), came: text(), spans: json<Span[]>() },
    sql`select s.id, o.came, o.spans from sources s
      join source_origins o on o.workspace_id = s.workspace_id and o.source_id = s.id
      where s.workspace_id = ${workspaceId} and s.import_id = ${batch} and s.presence = 'intake' and s.id <> ${but}
        and o.came is not null and o.spans is not null limit ${MOST_OTHERS}`,
  );
  return new Map(found.map(({ id, ...rest }) => [id, rest]));
}

/** The ids of what waits and lacks nothing, the newest first. */
export async function findComplete(db: Db, workspaceId: string): Promise<string[]> {
  const found = await rows(
    db,
    { id: text() },
    sql`select source_id as id from source_sort where workspace_id = ${workspaceId} and presence = 'intake' and cardinality(lacks) = 0`,
  );
  return found.map((f) => f.id);
}

/** Of what waits, or of these, what is one source here for certain and no other; by the pairs that were compared. */
export function findCertain(db: Db, workspaceId: string, ids?: string[]): Promise<{ id: string; to: string }[]> {
  const w = sql`${workspaceId}::uuid`;
  return rows(
    db,
    { id: text(), to: text() },
    sql`with pairs (id, other) as (
        select source_id, other_id from likely_pairs where workspace_id = ${w} and probability >= ${CERTAIN}
        union all select other_id, source_id from likely_pairs where workspace_id = ${w} and probability >= ${CERTAIN})
      select p.id, min(p.other::text) as to from pairs p
      join sources s on s.workspace_id = ${w} and s.id = p.id and s.presence = 'intake'
      join sources o on o.workspace_id = ${w} and o.id = p.other and o.presence = 'live'
      ${ids ? sql`where p.id = any(${array(ids, 'uuid')})` : sql``}
      group by p.id having count(distinct p.other) = 1 order by p.id`,
  );
}

/** The tags, collections and files a source has, for whoever it is joined to. */
export async function findTies(
  db: Db,
  workspaceId: string,
  id: string,
): Promise<{
  tags: { id: string; name: string; subject: boolean }[];
  collections: Named[];
  files: { id: string; name: string }[];
}> {
  const w = sql`${workspaceId}::uuid`;
  const tags = await rows(
    db,
    { id: text(), name: text(), subject: truth },
    sql`select t.id, t.name, t.subject from source_tags st join tags t on t.workspace_id = ${w} and t.id = st.tag_id where st.workspace_id = ${w} and st.source_id = ${id}`,
  );
  const collections = await rows(
    db,
    { id: text(), name: text(), owner: orNull(text()) },
    sql`select c.id, c.name, c.owner from collection_sources cs join collections c on c.workspace_id = ${w} and c.id = cs.collection_id and c.present
    where cs.workspace_id = ${w} and cs.source_id = ${id}`,
  );
  const files = await rows(
    db,
    { id: text(), name: text() },
    sql`select f.id, f.name from source_files sf join files f on f.workspace_id = ${w} and f.id = sf.file_id where sf.workspace_id = ${w} and sf.source_id = ${id}`,
  );
  return { tags, collections, files };
}
