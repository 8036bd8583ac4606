/** The record of a source as it stood earlier: today's, with what was done to it since taken back step by step. */
import { and, eq, ne, sql } from 'drizzle-orm';
import type { VersionsReply } from '@pandecta/contract';
import { editRecord, type EditChange } from '@pandecta/core/changes';
import { json, rows, text } from '../database/read.ts';
import { within } from '../database/within.ts';
import type { Db } from '../database/connect.ts';
import { Refusal } from '../errors.ts';
import { nameOfActor } from '../access/people.ts';
import type { Actor } from '../access/principal.ts';
import { sources } from '../records/tables.ts';
import { changeVisible } from './visible.ts';

/** How many changes to walk back at most. */
const MOST = 200;

export async function versionsOf(db: Db, actor: Actor, source: string): Promise<VersionsReply> {
  const one = and(eq(sources.id, source), ne(sources.presence, 'none'));
  const now = await within(db, actor.workspaceId).first(sources, { record: sources.record }, one);
  if (!now) throw new Refusal('no_such_source');
  // The edits of this source within the changes that touched it, however many sources those were of.
  const found = await rows(
    db,
    { changeId: text(), at: text(), by: text(), says: text(), edits: json<EditChange[] | null>() },
    sql`select c.id as "changeId", c.at, ${nameOfActor} as by, c.says,
        (select jsonb_agg(e) from jsonb_path_query(c.change, 'strict $.** ? (@.do == "edit" && @.source == $id)', jsonb_build_object('id', ${source}::text)) e) as edits
      from change_subjects cs join changes c on c.workspace_id = cs.workspace_id and c.id = cs.change_id left join users u on u.id = c.actor_id
      where cs.workspace_id = ${actor.workspaceId} and cs.kind = 'source' and cs.subject_id = ${source} and ${changeVisible(actor, sql`c`)}
        and (c.kinds is null or 'edit' = any(c.kinds))
      order by c.id desc limit ${MOST}`,
  );
  let { record } = now;
  const versions: VersionsReply['versions'] = [];
  for (const { edits, ...change } of found) {
    if (!edits) continue;
    for (const { fields } of [...edits].reverse())
      record = editRecord(record, Object.fromEntries(Object.entries(fields).map(([f, v]) => [f, { after: v.before }])));
    versions.push({ ...change, fields: [...new Set(edits.flatMap((e) => Object.keys(e.fields)))], record });
  }
  return { versions };
}
