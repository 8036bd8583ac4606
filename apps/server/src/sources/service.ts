/** What a person does to sources: edit, add by hand, set the reading state, remove and restore. */
import { and, eq, ne } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import { countSources, type Change } from '@pandecta/core/changes';
import { same, type SourceRecord } from '@pandecta/core/source';
import type { Changed, Destination } from '@pandecta/contract';
import { answer, commitWithin } from '../changes/commit.ts';
import { commit } from '../changes/service.ts';
import { transact } from '../database/connect.ts';
import { within } from '../database/within.ts';
import { Refusal } from '../errors.ts';
import type { Actor } from '../access/principal.ts';
import { broughtTo, findDestination } from './destination.ts';
import type { Services } from '../services.ts';
import { binDays } from '../records/bin-days.ts';
import { freshCitationKey, reserveCitationKeys } from '../records/citation-keys.ts';
import { insertSources } from '../records/store.ts';
import { refuseWrong } from '../records/refuse-wrong.ts';
import { sources } from '../records/tables.ts';

/**
 * @param seen what the fields held when the person began; what they hold now where it is not said
 * @throws Refusal `stale_edit` where another value came into one of them since
 */
export async function editRecord(
  services: Services,
  actor: Actor,
  id: string,
  fields: Record<string, unknown>,
  seen: Record<string, unknown> = {},
): Promise<Changed> {
  refuseWrong(fields);
  refuseWrong(seen);
  const seenBy = and(eq(sources.id, id), ne(sources.presence, 'none'));
  const found = await within(services.db, actor.workspaceId).first(sources, { record: sources.record }, seenBy);
  if (!found) throw new Refusal('no_such_source');
  // Whoever empties the key is given one anew.
  if (fields['citation-key'] === null)
    fields = { ...fields, 'citation-key': await freshCitationKey(services.db, actor.workspaceId, found.record) };
  const now = (field: string): unknown => (found.record as Record<string, unknown>)[field] ?? null;
  // Where both came to the same value there is nothing to do, and nothing to be told.
  const changed = Object.entries(fields).filter(([f, v]) => !same(now(f), v));
  const change: Change = {
    do: 'edit',
    source: id,
    fields: Object.fromEntries(
      changed.map(([f, v]) => [f, { before: (f in seen ? seen[f] : now(f)) as never, after: v as never }]),
    ),
  };
  return answer(await commit(services, actor, change, { joins: true }));
}

export async function addByHand(
  { db, followers }: Services,
  actor: Actor,
  input: Record<string, unknown>,
  destination?: Destination,
): Promise<Changed> {
  refuseWrong(input);
  if (!input.type) throw new Refusal('invalid', 'the kind is missing');
  const id = uuidv7();
  const provenance = Object.fromEntries(Object.keys(input).map((f) => [f, { from: 'person', sure: 1 }]));
  const one = { id, record: input as unknown as SourceRecord, provenance };
  const keyed = await reserveCitationKeys(db, actor.workspaceId, [one]);
  const committed = await transact(db, async (tx) => {
    await insertSources(tx, actor, keyed, {
      presence: 'none',
      importId: null,
    });
    const places = await findDestination(tx, actor, destination, 'refused');
    const { reading } = places;
    const changes: Change[] = [
      { do: 'presence', sources: [id], from: 'none', to: 'live' },
      ...broughtTo(places, [id]),
      ...(reading
        ? [{ do: 'reading', member: actor.userId, states: { [id]: { before: null, after: reading } } } satisfies Change]
        : []),
    ];
    return commitWithin(tx, actor, {
      do: 'all',
      says: `Added “${String(input.title ?? 'a source')}” by hand`,
      changes,
    });
  });
  followers.kick();
  return { ...answer(committed), id };
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
        ? `Moved ${n} to the bin, kept there ${await binDays(services.db, actor.workspaceId)} days with files, marks and tags`
        : `Restored ${n} with tags, marks and places`,
  };
}
