/** What a document lists as its references: read from its pages on request, each looked for among the sources here. */
import { sql } from 'drizzle-orm';
import { countSources, NOTHING_SAID } from '@pandecta/core/changes';
import { matchKeys } from '@pandecta/core/matching';
import type { Changed, ListedSources } from '@pandecta/contract';
import { answer } from '../changes/commit.ts';
import { commit } from '../changes/service.ts';
import type { Db } from '../database/connect.ts';
import { one, rows, text } from '../database/read.ts';
import { Refusal } from '../errors.ts';
import type { Actor } from '../access/principal.ts';
import { findMatches } from '../intake/here.ts';
import type { Services } from '../services.ts';
import { TookTooMuch } from '../workers/pool.ts';
import { findRecords } from '../records/store.ts';
import { visibleIds } from '../subjects/visible.ts';
import { related } from '../relations/service.ts';
import { relationsOf } from '../relations/store.ts';

export async function findListed({ db, workers }: Services, actor: Actor, source: string): Promise<ListedSources> {
  const { workspaceId } = actor;
  const file = await fileWithText(db, workspaceId, source);
  if (!file) return { listed: [], file: null };
  const pages = await rows(
    db,
    { text: text() },
    sql`select text from pages where workspace_id = ${workspaceId} and file_id = ${file.id} order by number`,
  );
  const list = await workers
    .run(
      'readList',
      pages.map((p) => p.text),
    )
    .catch((error: unknown) => {
      if (error instanceof TookTooMuch)
        throw new Refusal('invalid', `reading the list of ${file.name} exceeds the limit of time or memory`);
      throw error;
    });
  const incoming = list.map(({ record }, i) => ({ id: String(i), record, keys: matchKeys(record), files: [] }));
  const [matches, relations] = await Promise.all([
    findMatches(db, workspaceId, incoming, 'records'),
    relationsOf(db, workspaceId, source),
  ]);
  const found = [...matches.values()].flatMap((m) => m.here.map(({ here }) => here.id));
  const seen = new Set(await visibleIds(db, actor, 'source', found));
  const cited = new Set(relations.flatMap((r) => (r.as === 'cites' && r.from === source ? [r.to] : [])));
  return {
    file: file.name,
    listed: list.map(({ text: printed, page }, i) => {
      const match = matches.get(String(i))?.here.find((m) => m.here.id !== source && seen.has(m.here.id));
      return {
        text: printed,
        page,
        here: match ? related(match.here.id, match.here.record) : null,
        unsure: Boolean(match && match.verdict === 'perhaps'),
        said: Boolean(match && cited.has(match.here.id)),
      };
    }),
  };
}

/** @throws Refusal where one of them is not there */
export async function sayCited(services: Services, actor: Actor, source: string, cited: string[]): Promise<Changed> {
  const { db } = services;
  const to = [...new Set(cited)].filter((id) => id !== source);
  if ((await findRecords(db, actor.workspaceId, [source, ...to])).size < to.length + 1)
    throw new Refusal('no_such_source');
  const known = await relationsOf(db, actor.workspaceId, source);
  const fresh = to.filter((id) => !known.some((r) => r.as === 'cites' && r.from === source && r.to === id));
  const changes = fresh.map((id) => ({
    do: 'relate' as const,
    from: source,
    to: id,
    as: 'cites' as const,
    said: { before: null, after: NOTHING_SAID },
  }));
  if (!changes.length) return { changeId: null, says: 'It is said already that it cites them' };
  return answer(await commit(services, actor, { do: 'all', says: `It cites ${countSources(fresh.length)}`, changes }));
}

/** The file that is opened first, or the longest, of those that have text. */
const fileWithText = (db: Db, workspaceId: string, source: string): Promise<{ id: string; name: string } | undefined> =>
  one(
    db,
    { id: text(), name: text() },
    sql`select f.id, f.name from source_files sf join files f on f.workspace_id = sf.workspace_id and f.id = sf.file_id
      join sources s on s.workspace_id = sf.workspace_id and s.id = sf.source_id
      where sf.workspace_id = ${workspaceId} and sf.source_id = ${source} and f.state = 'text'
      order by (f.id = s.main_file) desc nulls last, (f.state = 'text') desc, f.pages desc limit 1`,
  );
