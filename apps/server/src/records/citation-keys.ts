/** The citation key of every source: given as it comes in, kept from then on, and held by no other work. */
import { sql } from 'drizzle-orm';
import { freeCitationKey, KEPT_CITATION_KEY, keptCitationKey, wantedCitationKey } from '@pandecta/core/citation-key';
import type { EditChange } from '@pandecta/core/changes';
import { withoutMarkup, type SourceRecord } from '@pandecta/core/source';
import { isUnavailable, transact, type Db } from '../database/connect.ts';
import { json, rows, text } from '../database/read.ts';
import { array, table } from '../database/sql.ts';
import { Refusal } from '../errors.ts';
import { chainFrom } from '../database/merged.ts';

/** Keys of a workspace are given by one transaction after the other. */
const inTurn = (tx: Db, workspaceId: string): Promise<unknown> =>
  tx.execute(sql`select pg_advisory_xact_lock(hashtextextended(${`citation keys ${workspaceId}`}, 0))`);

/** A record with its key. */
export type KeyedRecord = SourceRecord & { 'citation-key': string };
type Keyed<S extends { record: SourceRecord }> = S & { record: KeyedRecord };

/** So many are given keys before others have their turn. */
const AT_ONCE = 2000;

/**
 * Gives each source a citation key: its own if no other source has it, else the next free one. The keys are reserved in a
 * transaction of their own, so that the write that follows, however long it takes, blocks nobody. What does not become a
 * source releases its key (`releaseCitationKeys`); a key that is never used is freed after a day (`forgetReservedKeys`).
 */
export async function reserveCitationKeys<S extends { id: string; record: SourceRecord }>(
  db: Db,
  workspaceId: string,
  list: S[],
): Promise<Keyed<S>[]> {
  const out: Keyed<S>[] = [];
  for (let i = 0; i < list.length; i += AT_ONCE) {
    const part = list.slice(i, i + AT_ONCE);
    out.push(...(await transact(db, (tx) => giveKeys(tx, workspaceId, part))));
  }
  return out;
}

export async function releaseCitationKeys(tx: Db, workspaceId: string, ids: string[]): Promise<void> {
  await tx.execute(
    sql`delete from source_keys where workspace_id = ${workspaceId} and source_id = any(${array(ids, 'uuid')}) and key like ${`${KEPT_CITATION_KEY}%`}`,
  );
}

/** Keys reserved for a gathering that never ended are free again after a day: an id tells when it was made (RFC 9562, 5.7). */
export const forgetReservedKeys = (db: Db): Promise<unknown> =>
  db.execute(sql`delete from source_keys k where k.key like ${`${KEPT_CITATION_KEY}%`}
    and not exists (select 1 from sources s where s.workspace_id = k.workspace_id and s.id = k.source_id)
    and ('x' || substr(replace(k.source_id::text, '-', ''), 1, 12))::bit(48)::bigint < extract(epoch from now() - interval '1 day') * 1000`);

async function giveKeys<S extends { id: string; record: SourceRecord }>(
  tx: Db,
  workspaceId: string,
  list: S[],
): Promise<Keyed<S>[]> {
  await inTurn(tx, workspaceId);
  // Those of a try that failed.
  await releaseCitationKeys(
    tx,
    workspaceId,
    list.map((s) => s.id),
  );
  const wanted = list.map((s) => wantedCitationKey(s.record));
  const begun = [...new Set(wanted.map(keptCitationKey))];
  const found = await rows(
    tx,
    { key: text() },
    // The keys that begin with a wanted one: what letters would lead to.
    sql`select distinct k.key from unnest(${array(begun, 'text')}) b (key)
      join source_keys k on k.workspace_id = ${workspaceId} and k.key >= b.key and k.key < b.key || '{'`,
  );
  const taken = new Set(found.map((f) => f.key));
  const given = list.map((source, i): Keyed<S> => {
    const key = freeCitationKey(wanted[i]!, (k) => taken.has(keptCitationKey(k)));
    taken.add(keptCitationKey(key));
    return { ...source, record: { ...source.record, 'citation-key': key } };
  });
  await tx.execute(sql`insert into source_keys (workspace_id, source_id, key) select ${workspaceId}::uuid, u.id, u.key
    from ${table('u', {
      id: ['uuid', given.map((s) => s.id)],
      key: ['text', given.map((s) => keptCitationKey(s.record['citation-key']))],
    })} on conflict do nothing`);
  return given;
}

/** A free key for a record whose own was taken away. */
export async function freshCitationKey(db: Db, workspaceId: string, record: SourceRecord): Promise<string> {
  const wanted = wantedCitationKey({ ...record, 'citation-key': undefined });
  const found = await rows(
    db,
    { key: text() },
    sql`select key from source_keys where workspace_id = ${workspaceId} and key >= ${keptCitationKey(wanted)} and key < ${`${keptCitationKey(wanted)}{`}`,
  );
  const taken = new Set(found.map((f) => f.key));
  return freeCitationKey(wanted, (k) => taken.has(keptCitationKey(k)));
}

/**
 * Edits may give no source the key of another work. What became part of a source may have had the key.
 * @throws Refusal `key_taken`
 */
export async function checkCitationKeys(tx: Db, workspaceId: string, changes: EditChange[]): Promise<void> {
  const given = changes.flatMap(({ source, fields }) => {
    const key = fields['citation-key']?.after;
    return typeof key === 'string' ? [{ source, key: keptCitationKey(key) }] : [];
  });
  if (!given.length) return;
  await inTurn(tx, workspaceId);
  const twice = given.find((g, i) => given.findIndex((o) => o.key === g.key) < i);
  if (twice) throw new Refusal('key_taken', twice.key.slice(KEPT_CITATION_KEY.length), 'another of these sources');
  const found = await rows(
    tx,
    { key: text(), title: text() },
    sql`select k.key, coalesce(s.record->>'title', 'Untitled') as title
      from ${table('g', { source: ['uuid', given.map((g) => g.source)], key: ['text', given.map((g) => g.key)] })}
      join source_keys k on k.workspace_id = ${workspaceId} and k.key = g.key and k.source_id <> g.source
      join sources s on s.workspace_id = ${workspaceId} and s.id = k.source_id and s.presence <> 'none'
      where not exists (${chainFrom(workspaceId, sql`select k.source_id`)} select 1 from chain where chain.id = g.source)
      limit 1`,
  );
  if (found[0])
    throw new Refusal('key_taken', found[0].key.slice(KEPT_CITATION_KEY.length), `“${withoutMarkup(found[0].title)}”`);
}

/** Gives keys to the sources of a time before every source had one. */
export async function giveMissingKeys({ db, report }: { db: Db; report: (error: unknown) => void }): Promise<void> {
  const without = sql`not (record ? 'citation-key')`;
  try {
    for (;;) {
      const [next] = await rows(db, { workspace: text() }, sql`select workspace_id as workspace from sources where ${without} limit 1`); // prettier-ignore
      if (!next) return;
      await transact(db, async (tx) => {
        const found = await rows(
          tx,
          { id: text(), record: json<SourceRecord>() },
          sql`select id, record from sources where workspace_id = ${next.workspace} and ${without} order by id limit 500 for update`,
        );
        const given = await giveKeys(tx, next.workspace, found);
        await tx.execute(sql`update sources s set record = s.record || jsonb_build_object('citation-key', u.key)
          from ${table('u', {
            id: ['uuid', given.map((g) => g.id)],
            key: ['text', given.map((g) => g.record['citation-key'])],
          })} where s.workspace_id = ${next.workspace} and s.id = u.id`);
      });
    }
  } catch (error) {
    // The next start goes on with it.
    if (!isUnavailable(error)) report(error);
  }
}
