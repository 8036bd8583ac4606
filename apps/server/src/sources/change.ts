/** Carries out what happens to sources themselves: coming and going, and edits of their records. */
import { and, eq, sql } from 'drizzle-orm';
import { editable, editRecord, type EditChange } from '@pandecta/core/changes';
import { NOTHING, type CarriersOf, type Outcome } from '../changes/carry.ts';
import { idsOf, type Db } from '../database/connect.ts';
import { oneOf } from '../database/sql.ts';
import { within } from '../database/within.ts';
import { checkCitationKeys } from '../records/citation-keys.ts';
import { sources } from '../records/tables.ts';

export const sourceChanges: CarriersOf<'presence' | 'edit'> = {
  presence: {
    may: 'edit',
    async carryOut(tx, workspaceId, { made, ...change }) {
      // An import has just written them as they are to be: the change tells of them and has nothing left to do.
      if (made) return { change, altered: { records: change.sources } };
      const { from, to } = change;
      const isNew = from === 'none' && to === 'live';
      const moved = await within(tx, workspaceId)
        .update(
          sources,
          { presence: to, ...(!isNew && { changedAt: sql`now()` }) },
          and(eq(sources.presence, from), oneOf(sources.id, change.sources)),
        )
        .returning({ id: sources.id });
      const ids = idsOf(moved);
      return ids.length ? { change: { ...change, sources: ids }, altered: { records: ids } } : NOTHING;
    },
  },
  edit: {
    may: 'edit',
    async carryOut(tx, workspaceId, change) {
      return (await editMany(tx, workspaceId, [change]))[0]!;
    },
    carryOutMany: editMany,
  },
};

/** Edits of different sources. Each is compared with what stands there before any is written. */
async function editMany(tx: Db, workspaceId: string, changes: EditChange[]): Promise<Outcome<EditChange>[]> {
  await checkCitationKeys(tx, workspaceId, changes);
  const { id, record } = sources;
  const those = oneOf(
    id,
    changes.map((c) => c.source),
  );
  const found = await within(tx, workspaceId).all(sources, { id, record }, those, { by: [id], lock: 'update' });
  const now = new Map(found.map((f) => [f.id, f.record]));
  const outcomes = changes.map((change): Outcome<EditChange> => {
    const stands = now.get(change.source);
    const done = stands ? editable(stands, change) : null;
    return done ? { change: done, altered: { records: [change.source] } } : NOTHING;
  });
  const written = outcomes
    .flatMap(({ change }) => (change ? [change] : []))
    .map(({ source, fields, known }) => ({
      id: source,
      record: editRecord(now.get(source)!, fields),
      provenance: Object.fromEntries(Object.keys(fields).map((f) => [f, known ?? { from: 'person', sure: 1 }])),
    }));
  if (written.length)
    await tx.execute(sql`update sources s set record = w.record, version = s.version + 1, changed_at = now(),
      provenance = s.provenance || w.provenance
      from jsonb_to_recordset(${JSON.stringify(written)}::jsonb) as w(id uuid, record jsonb, provenance jsonb)
      where s.workspace_id = ${workspaceId} and s.id = w.id`);
  return outcomes;
}
