/** One field of many sources altered in one way: seen before it is done, then done as one change. */
import { sql } from 'drizzle-orm';
import { MOST_ALTERED, type AlterField, type AlterPreview, type Changed } from '@pandecta/contract';
import { countSources, type Change } from '@pandecta/core/changes';
import { variableInWords, type FieldValue } from '@pandecta/core/source';
import { answer } from '../changes/commit.ts';
import { commit } from '../changes/service.ts';
import type { Db } from '../database/connect.ts';
import { json, rows, text } from '../database/read.ts';
import { array } from '../database/sql.ts';
import { Refusal } from '../errors.ts';
import type { Acting } from '../access/principal.ts';
import { chosenIds } from '../searching/chosen.ts';
import type { Services } from '../services.ts';

/** How many are shown before they are altered. */
const SHOWN = 200;

interface Holds {
  source: string;
  title: string;
  before: FieldValue | null;
}
interface Becomes extends Holds {
  after: FieldValue | null;
}

export async function previewAltering(services: Services, caller: Acting, asked: AlterField): Promise<AlterPreview> {
  const { all, same } = await becomes(services, caller, asked);
  return {
    altered: all.length,
    same,
    first: all.slice(0, SHOWN),
  };
}

export async function alterSources(services: Services, caller: Acting, asked: AlterField): Promise<Changed> {
  const { all } = await becomes(services, caller, asked);
  if (!all.length) return { changeId: null, says: 'Nothing changed: all have this value already' };
  const { field } = asked;
  const changes = all.map(({ source, before, after }): Change => ({
    do: 'edit',
    source,
    fields: { [field]: { before: before as never, after: after as never } },
  }));
  const says = `Changed ${variableInWords(field)} in ${countSources(all.length)}`;
  return answer(await commit(services, caller.actor, { do: 'all', says, changes }));
}

/** What one field of the live ones among these holds: the records themselves are not read. */
async function fieldOf(db: Db, workspaceId: string, ids: string[], field: string): Promise<Map<string, Holds>> {
  const found = await rows(
    db,
    { source: text(), title: text(), before: json<FieldValue | null>() },
    sql`select id as source, coalesce(record->>'title', record->>'title-short', 'Untitled') as title, record->${field} as before
      from sources where workspace_id = ${workspaceId} and id = any(${array(ids, 'uuid')}) and presence = 'live'`,
  );
  return new Map(found.map((f) => [f.source, f]));
}

/** @throws Refusal where the alteration cannot be, with why */
async function becomes(
  services: Services,
  caller: Acting,
  { field, way, value, find, expression, exactCase, onlyEmpty, ...chosen }: AlterField,
): Promise<{ all: Becomes[]; same: number }> {
  const ids = await chosenIds(services, caller, chosen, MOST_ALTERED);
  const held = await fieldOf(services.db, caller.workspace.id, ids, field);
  const here = ids.flatMap((source) => held.get(source) ?? []);
  const alteration = { field, way, value, find, expression, exactCase, onlyEmpty };
  const found = await services.workers.run('altered', { values: here.map((h) => h.before), alteration });
  if ('cannot' in found) throw new Refusal('invalid', found.cannot);
  const all = here.flatMap((h, i): Becomes[] => {
    const after = found.after[i];
    return after === undefined ? [] : [{ ...h, after }];
  });
  return { all, same: here.length - all.length };
}
