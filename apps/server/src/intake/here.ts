/** Whether what comes in is here already: sources that share a key or a file with it, by the evidence of the whole records. */
import { sql } from 'drizzle-orm';
import { compare, VERDICTS, type Evidence } from '@pandecta/core/matching';
import type { SourceRecord } from '@pandecta/core/source';
import { findLikely, findMetBy } from '../check/compare.ts';
import type { Db } from '../database/connect.ts';
import { json, list, orNull, rows, text, truth } from '../database/read.ts';
import { table } from '../database/sql.ts';

/** A record that comes in, with the keys and files it may be known by. */
export interface Incoming {
  id: string;
  record: SourceRecord;
  keys: string[];
  files: string[];
}

/** Whether what comes in waits here already and was compared, or is a record of elsewhere. */
type IncomingAs = 'sources' | 'records';

export type HereMatch = Evidence & { here: Here };

/** What is, or may be, a record that comes in; the likeliest first. */
export interface Matches {
  /** Sources here. */
  here: HereMatch[];
  /** Others that wait in the intake. */
  waiting: HereMatch[];
}

/** What is, or may be, what comes in, by its id. */
export async function findMatches(
  db: Db,
  workspaceId: string,
  incoming: Incoming[],
  as: IncomingAs = 'sources',
): Promise<Map<string, Matches>> {
  const records = new Map(incoming.map((x) => [x.id, x.record]));
  const out = new Map<string, Matches>();
  for (const here of await findHere(db, workspaceId, incoming, as)) {
    const match = { here, ...compare(records.get(here.of)!, here.record, here.sameFile) };
    if (match.verdict === 'different') continue;
    const matches = out.get(here.of) ?? { here: [], waiting: [] };
    matches[here.waits ? 'waiting' : 'here'].push(match);
    out.set(here.of, matches);
  }
  // The surest first, and of those that are as sure the one that has more of the record.
  for (const matches of [...out.values()].flatMap((m) => [m.here, m.waiting]))
    matches.sort(
      (a, b) =>
        VERDICTS.indexOf(a.verdict) - VERDICTS.indexOf(b.verdict) ||
        b.probability - a.probability ||
        Object.keys(b.here.record).length - Object.keys(a.here.record).length,
    );
  return out;
}

interface Here {
  id: string;
  /** The one that comes in and may be the same. */
  of: string;
  record: SourceRecord;
  sameFile: boolean;
  addedAt: string;
  /** It waits in the intake too, and came with this gathering. */
  waits: boolean;
  cameWith: string | null;
  /** The collections it stands in, of those that all members see. */
  collections: string[];
}

/** Sources here, and what waits, that share a key or a file with what comes in, or are met otherwise. */
async function findHere(db: Db, workspaceId: string, incoming: Incoming[], as: IncomingAs): Promise<Here[]> {
  if (!incoming.length) return [];
  const met =
    as === 'sources'
      ? await findLikely(
          db,
          workspaceId,
          incoming.map((x) => x.id),
        )
      : await findMetBy(db, workspaceId, incoming);
  const w = sql`${workspaceId}::uuid`;
  const pairs = (of: 'keys' | 'files'): [string[], string[]] => {
    const all = incoming.flatMap((x) => x[of].map((value) => [x.id, value] as const));
    return [all.map((a) => a[0]), all.map((a) => a[1])];
  };
  const [keyOf, keys] = pairs('keys');
  const [fileOf, files] = pairs('files');
  return rows(
    db,
    {
      id: text(),
      of: text(),
      record: json<SourceRecord>(),
      sameFile: truth,
      waits: truth,
      cameWith: orNull(text()),
      addedAt: text(),
      collections: list(text()),
    },
    sql`with shared as (
        select u.of, k.source_id as id, false as file from ${table('u', { of: ['text', keyOf], key: ['text', keys] })}
          join source_keys k on k.workspace_id = ${w} and k.key = u.key
        union all select u.of, f.source_id, true from ${table('u', { of: ['text', fileOf], file: ['uuid', files] })}
          join source_files f on f.workspace_id = ${w} and f.file_id = u.file
        union all select u.of, u.other, false from ${table('u', { of: ['text', met.map((m) => m.of)], other: ['uuid', met.map((m) => m.other)] })})
    select s.id, x.of, s.record, x.file as "sameFile", s.presence = 'intake' as waits,
      (select i.title from imports i where i.workspace_id = ${w} and i.id = s.import_id) as "cameWith", s.added_at as "addedAt",
      array(select c.id::text from collection_sources cs join collections c on c.workspace_id = ${w} and c.id = cs.collection_id and c.present and c.owner is null
        where cs.workspace_id = ${w} and cs.source_id = s.id) as collections
    from (select of, id, bool_or(file) as file from shared group by of, id) x
    join sources s on s.workspace_id = ${w} and s.id = x.id and s.id::text <> x.of and s.presence in ('live', 'intake')`,
  );
}
