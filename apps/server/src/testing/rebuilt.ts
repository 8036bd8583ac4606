/**
 * What is derived from the records of a workspace: as it stands, and made anew. The keys of entries that were read are not: they
 * tell of where a source came from.
 */
import { sql } from 'drizzle-orm';
import { transact, type Db } from '../database/connect.ts';
import { rows, text } from '../database/read.ts';
import { advance, derive, note, numbersOf } from '../indexing/derive.ts';

// What is reserved for a gathering that never ended is no source's, and derived from none.
const DERIVED_KEYS = `key not like 'read:%' and exists (select 1 from sources s where s.workspace_id = source_keys.workspace_id and s.id = source_id)`;

export async function derived(db: Db, workspace: string): Promise<Record<string, unknown[]>> {
  const of = (columns: string, table: string, which = 'true'): Promise<unknown[]> =>
    rows(
      db,
      {},
      sql`select source_id, ${sql.raw(columns)} from ${sql.raw(table)} where workspace_id = ${workspace} and ${sql.raw(which)} order by 1, 2`,
    );
  return {
    sort: await of('presence, title, author, container, kind, year, people', 'source_sort'),
    facets: await of('ids', 'source_facets'),
    text: await of('vector::text', 'source_text'),
    documents: await of('kind || id || part, audience, vector::text', 'documents'),
    keys: await of('key', 'source_keys', DERIVED_KEYS),
  };
}

/** Takes it all away and begins to derive it anew: the followers of a server do the rest. */
export async function deriveAnew(db: Db, workspace: string): Promise<void> {
  const ids = (await rows(db, { id: text() }, sql`select id from sources where workspace_id = ${workspace}`)).map(
    (r) => r.id,
  );
  const before = await numbersOf(db, workspace, ids);
  for (const table of ['source_sort', 'source_facets', 'source_text'])
    await db.execute(sql`delete from ${sql.raw(table)} where workspace_id = ${workspace}`);
  await db.execute(sql`delete from documents where workspace_id = ${workspace} and source_id is not null`);
  await db.execute(sql`delete from source_keys where workspace_id = ${workspace} and ${sql.raw(DERIVED_KEYS)}`);
  await transact(db, async (tx) => {
    await derive(tx, workspace, { records: ids });
    // Deleted by hand: nobody else notes that these numbers are no source's any more.
    await note(tx, workspace, (await advance(tx, workspace)).revision, before, true);
  });
}
