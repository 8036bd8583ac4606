/** Reading sources: one in full, several in sum, and as records for citing and export. */
import { sql, type SQL } from 'drizzle-orm';
import type { BatchSummary, LabelOnSource, SourceDetail, StateCount } from '@pandecta/contract';
import type { Presence, ReadingState } from '@pandecta/core/changes';
import type { SourceRecord } from '@pandecta/core/source';
import type { Db } from '../database/connect.ts';
import { json, list, number, one, orNull, rows, text, truth } from '../database/read.ts';
import { array } from '../database/sql.ts';
import { Refusal } from '../errors.ts';
import { nameOfActor } from '../access/people.ts';
import type { Actor } from '../access/principal.ts';
import { ownColumns } from '../own/store.ts';
import { labelCounts, stateColumns } from '../assessments/store.ts';
import { chainFrom, partsOf } from '../database/merged.ts';
import { inBounds } from '../subjects/registry.ts';
import { visibleTo } from '../subjects/registry.ts';
import { pathsOf } from '../places/store.ts';

const DETAIL = {
  id: text(),
  record: json<SourceRecord>(),
  provenance: json<SourceDetail['provenance']>(),
  presence: text<Presence>(),
  mergedInto: orNull(text()),
  reading: orNull(text<ReadingState>()),
  starred: truth,
  rating: orNull(number),
  recheck: orNull(text()),
  labels: json<LabelOnSource[] | null>(),
  leftOut: number,
  addedAt: text(),
  addedBy: text(),
  cameFrom: orNull(text()),
  mergedFrom: json<SourceDetail['mergedFrom']>(),
  tags: json<SourceDetail['tags']>(),
  files: json<SourceDetail['files']>(),
  versions: json<SourceDetail['versions']>(),
  collections: orNull(list(text())),
};

/** The live sources said to be versions of the work of `s`; what was said of one holds for what it was merged into. */
const versionsOf = (w: SQL, viewer: Actor): SQL => {
  const said = sql`select * from (${partsOf(w, sql`select s.id`)}
    select r.to_id from relations r join parts p on p.id = r.from_id where r.workspace_id = ${w} and r."as" = 'version of'
    union select r.from_id from relations r join parts p on p.id = r.to_id where r.workspace_id = ${w} and r."as" = 'version of') said`;
  return sql`coalesce((${chainFrom(w, said)}
    select jsonb_agg(jsonb_build_object('id', v.id, 'title', coalesce(v.record->>'title', 'Untitled'), 'kind', v.record->>'type', 'year', ss.year) order by ss.year, v.id)
    from chain join sources v on v.workspace_id = ${w} and v.id = chain.id and v.presence = 'live' and v.id <> s.id and ${inBounds(viewer, sql`v.id`)}
    join source_sort ss on ss.workspace_id = ${w} and ss.source_id = v.id), '[]')`;
};

/** The title of a gathering. It may name everything that came with it, so a bounded member is not shown it. */
const titleOf = ({ bounds }: Actor): SQL => (bounds ? sql`null` : sql`i.title`);

/** What became part of `s`, the first that came first. */
const mergedFrom = (w: SQL, viewer: Actor): SQL => sql`coalesce((${partsOf(w, sql`select s.id`)}
    select jsonb_agg(jsonb_build_object('id', m.id, 'title', coalesce(m.record->>'title', 'Untitled'), 'cameFrom', ${titleOf(viewer)}, 'addedAt', m.added_at, 'addedBy', ${nameOfActor}) order by m.added_at, m.id)
    from parts join sources m on m.workspace_id = ${w} and m.id = parts.id and m.id <> s.id
    left join users u on u.id = m.added_by
    left join imports i on i.workspace_id = ${w} and i.id = m.import_id), '[]')`;

/** What was merged into another leads there, however often that was. */
export async function findSource(db: Db, actor: Actor, id: string): Promise<SourceDetail> {
  const { workspaceId, userId } = actor;
  const w = sql`${workspaceId}::uuid`;
  const found = await one(
    db,
    DETAIL,
    sql`
      select s.id, s.record, s.provenance, s.presence, s.merged_into as "mergedInto",
        ${ownColumns(w, userId)}, ${stateColumns(w)},
        coalesce((select left_out from source_text t where t.workspace_id = ${w} and t.source_id = s.id), 0) as "leftOut",
        s.added_at as "addedAt", ${nameOfActor} as "addedBy",
        (select ${titleOf(actor)} from imports i where i.workspace_id = ${w} and i.id = s.import_id) as "cameFrom",
        ${mergedFrom(w, actor)} as "mergedFrom",
        coalesce((select jsonb_agg(jsonb_build_object('id', t.id, 'name', t.name, 'subject', t.subject, 'says', nullif(t.says, '')) order by t.subject, lower(t.name)) from source_tags st
          join tags t on t.workspace_id = ${w} and t.id = st.tag_id where st.workspace_id = ${w} and st.source_id = s.id), '[]') as tags,
        coalesce((select jsonb_agg(jsonb_build_object('id', f.id, 'name', f.name, 'bytes', f.bytes, 'mediaType', f.media_type, 'state', f.state, 'pages', f.pages, 'address', f.address, 'main', coalesce(f.id = s.main_file, false),
          'marks', (select count(*) from marks m where m.workspace_id = ${w} and m.file_id = f.id and m.source_id = s.id and ${visibleTo(actor, 'mark', sql`m`)})) order by (f.id = s.main_file) desc nulls last, f.name) from source_files sf
          join files f on f.workspace_id = ${w} and f.id = sf.file_id where sf.workspace_id = ${w} and sf.source_id = s.id), '[]') as files,
        ${versionsOf(w, actor)} as versions,
        (select array_agg(collection_id) from collection_sources cs where cs.workspace_id = ${w} and cs.source_id = s.id) as collections
      from sources s left join users u on u.id = s.added_by where s.workspace_id = ${w} and s.id = ${id} and s.presence <> 'none'`,
  );
  if (!found) throw new Refusal('no_such_source');
  const { collections, mergedInto, labels, ...rest } = found;
  if (mergedInto) return findSource(db, actor, mergedInto);
  const paths = await pathsOf(db, actor, collections ?? []);
  const places = (collections ?? []).flatMap((c) => (paths.get(c) ?? []).map((path) => ({ id: c, path })));
  return { ...rest, labels: labels ?? [], places: places.sort((a, b) => a.path.localeCompare(b.path)) };
}

export async function summarise(db: Db, actor: Actor, ids: string[]): Promise<BatchSummary> {
  const { workspaceId, userId } = actor;
  const w = sql`${workspaceId}::uuid`;
  const chosen = sql`select u.id from unnest(${array(ids, 'uuid')}) as u(id)`;
  const [general, kinds, reading, tags, labels, collections, paths] = await Promise.all([
    one(
      db,
      { count: number, withFile: number, starred: number, yearFrom: orNull(number), yearTo: orNull(number) },
      sql`select count(*)::int as count, min(year) as "yearFrom", max(year) as "yearTo",
      count(*) filter (where exists (select 1 from source_files sf where sf.workspace_id = ${w} and sf.source_id = m.source_id))::int as "withFile",
      count(*) filter (where exists (select 1 from source_stars r where r.workspace_id = ${w} and r.source_id = m.source_id and r.user_id = ${userId}))::int as starred
      from source_sort m where m.workspace_id = ${w} and m.source_id in (${chosen})`,
    ),
    rows(
      db,
      { name: text(), count: number },
      sql`select kind as name, count(*)::int as count from source_sort m where m.workspace_id = ${w} and m.source_id in (${chosen}) group by 1 order by 2 desc, 1`,
    ),
    rows(
      db,
      { state: text<StateCount['state']>(), count: number },
      sql`select coalesce(r.state, 'none') as state, count(*)::int as count from sources m
      left join source_reading r on r.workspace_id = ${w} and r.source_id = m.id and r.user_id = ${userId}
      where m.workspace_id = ${w} and m.id in (${chosen}) group by 1 order by 2 desc`,
    ),
    rows(
      db,
      { id: text(), name: text(), subject: truth, count: number },
      sql`select t.id, t.name, t.subject, count(*)::int as count from source_tags st join tags t on t.workspace_id = ${w} and t.id = st.tag_id
      where st.workspace_id = ${w} and st.source_id in (${chosen}) group by 1, 2, 3 order by 3, 4 desc, lower(t.name) limit 30`,
    ),
    labelCounts(db, workspaceId, ids),
    rows(
      db,
      { id: text(), count: number },
      sql`select collection_id as id, count(*)::int as count from collection_sources cs
      where cs.workspace_id = ${w} and cs.source_id in (${chosen}) group by 1 order by 2 desc limit 30`,
    ),
    pathsOf(db, actor),
  ]);
  return {
    ...general!,
    kinds,
    reading,
    tags,
    labels,
    collections: collections.flatMap((c) => (paths.get(c.id)?.[0] ? [{ ...c, path: paths.get(c.id)![0]! }] : [])),
  };
}
