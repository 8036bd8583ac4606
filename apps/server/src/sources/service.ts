/** What a person does to sources: edit, add by hand, set the reading state, remove and restore. */
import { sql } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import {
  countSources,
  isFieldValue,
  same,
  variableInWords,
  variableLabel,
  type Change,
  type ReadingState,
  type SourceRecord,
} from '@pandecta/core/source';
import type { Changed } from '@pandecta/contract';
import { answer, commitWithin } from '../changes/commit.ts';
import { commit } from '../changes/service.ts';
import { one, transact, type Db } from '../database/connect.ts';
import { Refusal } from '../errors.ts';
import type { Actor } from '../http/authorise.ts';
import type { Services } from '../services.ts';
import { insertSources } from './store.ts';

export async function editRecord(
  services: Services,
  actor: Actor,
  id: string,
  fields: Record<string, unknown>,
  version?: number,
): Promise<Changed> {
  const wrong = Object.entries(fields).filter(([f, v]) => (v === null ? f === 'type' : !isFieldValue(f, v)));
  if (wrong.length)
    throw new Refusal('invalid', wrong.map(([f]) => `${variableLabel(f)} cannot hold this value`).join('; '));
  const found = await one<{ record: SourceRecord; version: number }>(
    services.db,
    sql`select record, version from sources where workspace_id = ${actor.workspaceId} and id = ${id} and presence <> 'none'`,
  );
  if (!found) throw new Refusal('no_such_source');
  const record = found.record as Record<string, unknown>;
  const changed = Object.entries(fields).filter(([f, v]) => !same(record[f] ?? null, v));
  if (version !== undefined && version !== found.version)
    await refuseStale(
      services.db,
      actor,
      id,
      version,
      changed.map(([f]) => f),
      found.version,
    );
  const change: Change = {
    do: 'edit',
    source: id,
    fields: Object.fromEntries(
      changed.map(([f, v]) => [f, { before: (record[f] ?? null) as never, after: v as never }]),
    ),
  };
  const { changeId, says } = await commit(services, actor, change);
  return { changeId, says, version: changeId ? found.version + 1 : found.version };
}

/** An edit made on an older version is refused only if someone changed the same fields since. */
async function refuseStale(
  db: Db,
  actor: Actor,
  id: string,
  version: number,
  fields: string[],
  current: number,
): Promise<void> {
  const since = await one<{ fields: string[] | null }>(
    db,
    sql`
    select array_agg(distinct k) as fields from (
      select c.change from change_sources cs join changes c on c.workspace_id = cs.workspace_id and c.id = cs.change_id
      where cs.workspace_id = ${actor.workspaceId} and cs.source_id = ${id} and c.change->>'do' = 'edit' order by c.id desc limit ${current - version}) e,
      jsonb_object_keys(e.change->'fields') k`,
  );
  const both = fields.filter((f) => since?.fields?.includes(f));
  if (both.length) throw new Refusal('stale_edit', both.map(variableInWords).join(', '));
}

export async function addByHand(
  { db, indexer }: Services,
  actor: Actor,
  input: Record<string, unknown>,
  collection?: { id: string; name: string },
): Promise<Changed> {
  const wrong = Object.entries(input).filter(([f, v]) => !isFieldValue(f, v));
  if (!input.type || wrong.length)
    throw new Refusal(
      'invalid',
      wrong.map(([f]) => `${variableLabel(f)} cannot hold this value`).join('; ') || 'the kind is missing',
    );
  const id = uuidv7();
  const provenance = Object.fromEntries(Object.keys(input).map((f) => [f, { from: 'person', sure: 1 }]));
  const committed = await transact(db, async (tx) => {
    await insertSources(tx, actor, [{ id, record: input as unknown as SourceRecord, provenance }], {
      presence: 'none',
      importId: null,
    });
    const changes: Change[] = [{ do: 'presence', sources: [id], from: 'none', to: 'live' }];
    if (collection)
      changes.push({ do: 'file', collection: collection.id, name: collection.name, sources: [id], present: true });
    return commitWithin(tx, actor, {
      do: 'all',
      says: `Added “${String(input.title ?? 'a source')}” by hand`,
      changes,
    });
  });
  indexer.kick();
  return { ...answer(committed), id };
}

export async function setReading(
  services: Services,
  actor: Actor,
  ids: string[],
  state: ReadingState | null,
): Promise<Changed> {
  const states = Object.fromEntries(ids.map((id) => [id, { before: null, after: state }]));
  return answer(await commit(services, actor, { do: 'reading', states }));
}

/** Into the bin, or back out of it with all it had. */
export async function setPresence(
  services: Services,
  actor: Actor,
  ids: string[],
  to: 'live' | 'bin',
): Promise<Changed> {
  const committed = await commit(services, actor, {
    do: 'presence',
    sources: ids,
    from: to === 'bin' ? 'live' : 'bin',
    to,
  });
  const { changeId, change } = committed;
  if (!changeId || change.do !== 'presence') return answer(committed);
  const n = countSources(change.sources.length);
  return {
    changeId,
    says:
      to === 'bin'
        ? `Moved ${n} to the bin, kept there 30 days with files, marks and tags`
        : `Restored ${n} with tags, marks and places`,
  };
}
