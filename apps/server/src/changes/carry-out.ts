/**
 * Carries a Change out in SQL, as `core/source/library.ts` says what each one means. Returns the change as far as it
 * altered anything, so that its inverse alters just that, and what must be derived again.
 */
import { sql } from 'drizzle-orm';
import {
  editRecord,
  same,
  type Change,
  type EditChange,
  type MarkEditChange,
  type PresenceChange,
  type ReadingChange,
  type SourceRecord,
} from '@pandecta/core/source';
import { array, one, rows, type Db } from '../database/connect.ts';
import { deriveAncestors, holdTree, type Altered } from '../indexing/derive.ts';
import { Refusal } from '../errors.ts';

export interface Outcome {
  change: Change;
  altered: Altered;
}

const idsOf = (found: { id: string }[]): string[] => found.map((f) => f.id);

export async function carryOut(tx: Db, workspaceId: string, change: Change): Promise<Outcome> {
  switch (change.do) {
    case 'all': {
      const outcomes: Outcome[] = [];
      for (const part of change.changes) outcomes.push(await carryOut(tx, workspaceId, part));
      return {
        change: { ...change, changes: outcomes.map((o) => o.change) },
        altered: {
          records: outcomes.flatMap((o) => o.altered.records ?? []),
          facets: outcomes.flatMap((o) => o.altered.facets ?? []),
        },
      };
    }
    case 'presence':
      return presence(tx, workspaceId, change);
    case 'edit':
      return edit(tx, workspaceId, change);
    case 'reading':
      return reading(tx, workspaceId, change);
    case 'tag': {
      const sources = await link(tx, workspaceId, LINKS.tag, change.tag, change);
      return { change: { ...change, sources }, altered: change.subject ? { records: sources } : { facets: sources } };
    }
    case 'file': {
      const sources = await link(tx, workspaceId, LINKS.collection, change.collection, change);
      return { change: { ...change, sources }, altered: { facets: sources } };
    }
    case 'attach': {
      if (change.present)
        await tx.execute(
          sql`insert into source_files (workspace_id, source_id, file_id) values (${workspaceId}, ${change.source}, ${change.file}) on conflict do nothing`,
        );
      else
        await tx.execute(
          sql`delete from source_files where workspace_id = ${workspaceId} and source_id = ${change.source} and file_id = ${change.file}`,
        );
      return { change, altered: { records: [change.source] } };
    }
    case 'collection':
      await holdTree(tx, workspaceId);
      await tx.execute(sql`insert into collections (workspace_id, id, name, present) values (${workspaceId}, ${change.collection}, ${change.name}, ${change.present})
        on conflict (workspace_id, id) do update set present = excluded.present`);
      return { change, altered: { facets: await replaced(tx, workspaceId, change.collection) } };
    case 'placement':
      await holdTree(tx, workspaceId);
      await tx.execute(sql`insert into placements (workspace_id, id, collection_id, parent_id, present) values (${workspaceId}, ${change.placement}, ${change.collection}, ${change.parent}, ${change.present})
        on conflict (workspace_id, id) do update set present = excluded.present`);
      return { change, altered: { facets: await replaced(tx, workspaceId, change.collection) } };
    case 'rename':
      await tx.execute(
        sql`update collections set name = ${change.name.after} where workspace_id = ${workspaceId} and id = ${change.collection}`,
      );
      return { change, altered: {} };
    case 'mark':
      await tx.execute(
        sql`update marks set present = ${change.present} where workspace_id = ${workspaceId} and id = ${change.mark}`,
      );
      return { change, altered: { records: [change.source] } };
    case 'mark-edit':
      return editMark(tx, workspaceId, change);
  }
}

/** Where a source is tied to a tag, and to a collection. */
const LINKS = {
  tag: { table: sql`source_tags`, column: sql`tag_id` },
  collection: { table: sql`collection_sources`, column: sql`collection_id` },
} as const;

/** Ties sources to a tag or a collection, or unties them. @returns those for which that was not so already */
async function link(
  tx: Db,
  workspaceId: string,
  { table, column }: (typeof LINKS)[keyof typeof LINKS],
  to: string,
  { sources, present }: { sources: string[]; present: boolean },
): Promise<string[]> {
  const ids = array(sources, 'uuid');
  const query = present
    ? sql`insert into ${table} (workspace_id, source_id, ${column})
        select ${workspaceId}::uuid, s.id, ${to}::uuid from sources s where s.workspace_id = ${workspaceId} and s.id = any(${ids})
        on conflict do nothing returning source_id as id`
    : sql`delete from ${table} where workspace_id = ${workspaceId} and ${column} = ${to} and source_id = any(${ids})
        returning source_id as id`;
  return idsOf(await rows<{ id: string }>(tx, query));
}

async function presence(tx: Db, workspaceId: string, change: PresenceChange): Promise<Outcome> {
  if (change.made) return { change: withoutMade(change), altered: { records: change.sources } };
  const done = await rows<{ id: string }>(
    tx,
    sql`
    update sources set presence = ${change.to}, changed_at = case when ${change.to} = 'live' and ${change.from} = 'none' then changed_at else now() end
    where workspace_id = ${workspaceId} and presence = ${change.from} and id = any(${array(change.sources, 'uuid')}) returning id`,
  );
  return { change: { ...change, sources: idsOf(done) }, altered: { records: idsOf(done) } };
}

/** Sets each field to its `after` where it still is what `before` says; a field that is not is a conflict. */
async function edit(tx: Db, workspaceId: string, change: EditChange): Promise<Outcome> {
  const found = await one<{ record: SourceRecord }>(
    tx,
    sql`select record from sources where workspace_id = ${workspaceId} and id = ${change.source} for update`,
  );
  if (!found) throw new Refusal('no_such_source');
  const record = found.record as Record<string, unknown>;
  const moved = Object.entries(change.fields).filter(([f, v]) => !same(record[f] ?? null, v.before));
  if (moved.length) throw new Refusal('undo_conflict', `${moved.map(([f]) => f).join(', ')} changed since then`);
  const fields = Object.fromEntries(Object.entries(change.fields).filter(([, v]) => !same(v.before, v.after)));
  if (!Object.keys(fields).length) return { change: { ...change, fields }, altered: {} };
  const after = editRecord(found.record, fields);
  await tx.execute(sql`update sources set record = ${JSON.stringify(after)}::jsonb, version = version + 1, changed_at = now(),
    provenance = provenance || ${JSON.stringify(Object.fromEntries(Object.keys(fields).map((f) => [f, { from: 'person', sure: 1 }])))}::jsonb
    where workspace_id = ${workspaceId} and id = ${change.source}`);
  return { change: { ...change, fields }, altered: { records: [change.source] } };
}

async function reading(tx: Db, workspaceId: string, change: ReadingChange): Promise<Outcome> {
  const ids = Object.keys(change.states);
  const before = new Map(
    (
      await rows<{ id: string; reading: string | null }>(
        tx,
        sql`
    select id, reading from sources where workspace_id = ${workspaceId} and id = any(${array(ids, 'uuid')}) for update`,
      )
    ).map((r) => [r.id, r.reading]),
  );
  const states = Object.fromEntries(
    Object.entries(change.states)
      .filter(([id, s]) => before.has(id) && before.get(id) !== s.after)
      .map(([id, s]) => [id, { before: before.get(id) as typeof s.before, after: s.after }]),
  );
  const altered = Object.keys(states);
  await tx.execute(sql`update sources s set reading = u.state
    from unnest(${array(altered, 'uuid')}, ${array(
      altered.map((id) => states[id]!.after),
      'text',
    )}) as u(id, state)
    where s.workspace_id = ${workspaceId} and s.id = u.id`);
  return { change: { ...change, states }, altered: { facets: altered } };
}

async function editMark(tx: Db, workspaceId: string, change: MarkEditChange): Promise<Outcome> {
  const { gloss, sense } = change.fields;
  const found = await one<{ gloss: string; sense_id: string }>(
    tx,
    sql`select gloss, sense_id from marks where workspace_id = ${workspaceId} and id = ${change.mark} for update`,
  );
  if (!found) throw new Refusal('no_such_mark');
  if ((gloss && gloss.before !== found.gloss) || (sense && sense.before !== found.sense_id))
    throw new Refusal('undo_conflict', 'the mark changed since then');
  if (gloss)
    await tx.execute(
      sql`update marks set gloss = ${gloss.after ?? ''} where workspace_id = ${workspaceId} and id = ${change.mark}`,
    );
  if (sense)
    await tx.execute(
      sql`update marks set sense_id = ${sense.after} where workspace_id = ${workspaceId} and id = ${change.mark}`,
    );
  return { change, altered: { records: gloss ? [change.source] : [] } };
}

/** After the tree changed: the sources of the collection and of all that stood or now stands below it. */
async function replaced(tx: Db, workspaceId: string, collection: string): Promise<string[]> {
  const below = (): Promise<{ id: string }[]> =>
    rows<{ id: string }>(
      tx,
      sql`select collection_id as id from collection_ancestors where workspace_id = ${workspaceId} and ancestor_id = ${collection}`,
    );
  const before = idsOf(await below());
  await deriveAncestors(tx, workspaceId);
  const collections = [...new Set([collection, ...before, ...idsOf(await below())])];
  return idsOf(
    await rows<{ id: string }>(
      tx,
      sql`select distinct source_id as id from collection_sources where workspace_id = ${workspaceId} and collection_id = any(${array(collections, 'uuid')})`,
    ),
  );
}

/** Sources an import has just written as they are to be: the change tells of them and has nothing left to do. */
function withoutMade({ made: _made, ...change }: PresenceChange): PresenceChange {
  return change;
}
