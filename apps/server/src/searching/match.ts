/** From a question to the set of sources that match it: one SQL expression used by list, order, count and facets. */
import { sql, type SQL } from 'drizzle-orm';
import type { Ask, SortKey } from '@pandecta/contract';
import { SORT_KEYS } from '@pandecta/contract';
import { asTyped, parseQuery, type ParsedQuery } from '@pandecta/core/query';
import { array, type Db } from '../database/connect.ts';
import { Refusal } from '../errors.ts';
import type { Workspace } from '../http/authorise.ts';
import { compile, facetIds, type Compiled, type Scope } from './compile.ts';

export interface Question {
  scope: Scope;
  parsed: ParsedQuery;
  compiled: Compiled;
  /** Conditions on `m`, the row of source_sort, that make up the match; always with the workspace and presence. */
  where: SQL;
  /** True when everything in the scope matches: no words, no narrowing. */
  plain: boolean;
  sort: { key: SortKey; descending: boolean }[];
}

export async function understand(
  db: Db,
  workspace: Workspace,
  ask: Ask,
  leaveOut: { years?: boolean } = {},
): Promise<Question> {
  const parsed = parseQuery(ask.q ?? '');
  const tree = ask.typing ? asTyped(parsed.tree) : parsed.tree;
  const presence = ask.scope === 'bin' ? 'bin' : 'live';
  const scope: Scope = { workspaceId: workspace.id, workspaceNumber: workspace.number, presence };
  const compiled = await compile(db, scope, tree);
  const conditions: SQL[] = [...compiled.conditions];
  const narrowed = await narrowing(db, workspace.id, ask);
  conditions.push(...narrowed);
  if (!leaveOut.years && (ask.yearFrom !== undefined || ask.yearTo !== undefined)) {
    conditions.push(sql`m.year between ${ask.yearFrom ?? -100_000} and ${ask.yearTo ?? 100_000}`);
  }
  // The text condition stands in a materialised part of its own: beside ORDER BY ... LIMIT the planner walks the
  // index of the order and reads every vector on the way.
  const text = compiled.tsquery ? sql`m.source_id in (select source_id from texts)` : undefined;
  const where = sql.join(
    [sql`m.workspace_id = ${workspace.id} and m.presence = ${presence}`, ...(text ? [text] : []), ...conditions],
    sql` and `,
  );
  return {
    scope,
    parsed,
    compiled,
    where,
    plain: !text && !conditions.length,
    sort: readSort(ask.sort, Boolean(compiled.rank)),
  };
}

/** The parts a match is made of: `with ${parts(q)} select … from source_sort m where ${q.where}`. */
export function parts(q: Question): SQL {
  // The lexemes lead with the workspace: a condition on its column would only tempt the planner to the primary key.
  return q.compiled.tsquery
    ? sql`texts as materialized (select source_id from source_text where vector @@ ${q.compiled.tsquery}::tsquery)`
    : sql`nothing as (select 1)`;
}

async function narrowing(db: Db, workspaceId: string, ask: Ask): Promise<SQL[]> {
  const pair = (text: string): [string, string] => {
    const at = text.indexOf('=');
    if (at < 1) throw new Refusal('invalid', `“${text}” is not a facet`);
    return [text.slice(0, at), text.slice(at + 1)];
  };
  const include = (ask.include ?? []).map(pair);
  if (ask.collection) include.push(['in', ask.collection]);
  if (ask.scope === 'loose') include.push(['loose', 'yes']);
  const out: SQL[] = [];
  // Values of one kind of facet widen, except tags: a source has many, and one asks for two at once.
  const MANY = new Set(['tag', 'subject', 'person', 'in', 'loose']);
  const groups = new Map<string, [string, string][]>();
  include.forEach((p, i) => {
    const name = MANY.has(p[0]) ? `${p[0]} ${i}` : p[0];
    groups.set(name, [...(groups.get(name) ?? []), p]);
  });
  const all: number[] = [];
  for (const group of groups.values()) {
    const ids = await facetIds(db, workspaceId, group);
    if (!ids.length) return [sql`false`];
    if (ids.length === 1) all.push(ids[0]!);
    else out.push(sql`m.source_id in (select source_id from source_facets where ids && ${array(ids, 'int')})`);
  }
  if (all.length) out.push(sql`m.source_id in (select source_id from source_facets where ids @> ${array(all, 'int')})`);
  const excluded = await facetIds(db, workspaceId, (ask.exclude ?? []).map(pair));
  if (excluded.length)
    out.push(sql`m.source_id not in (select source_id from source_facets where ids && ${array(excluded, 'int')})`);
  return out;
}

function readSort(text: string | undefined, ranked: boolean): Question['sort'] {
  const keys = (text ?? '')
    .split(',')
    .filter(Boolean)
    .map((part) => {
      const descending = part.startsWith('-');
      const key = part.replace(/^-/, '') as SortKey;
      if (!SORT_KEYS.includes(key)) throw new Refusal('invalid', `the sources cannot be sorted by “${key}”`);
      return { key, descending };
    });
  const useful = keys.filter((k) => k.key !== 'relevance' || ranked);
  return useful.length
    ? useful
    : ranked
      ? [{ key: 'relevance', descending: false }]
      : [{ key: 'added', descending: true }];
}

/** The ORDER BY of a question without its relevance, which is a stage of its own. */
export function orderBy(q: Question): SQL {
  const columns = q.sort
    .filter((s) => s.key !== 'relevance')
    .map(({ key, descending }) => {
      const column = sql.raw(`m.${key}`);
      const last = key === 'year' ? sql`nulls last` : sql``;
      return descending ? sql`${column} desc ${last}` : sql`${column} asc ${last}`;
    });
  const tail = q.sort.at(-1)?.descending ? sql`m.source_id desc` : sql`m.source_id asc`;
  return sql.join([...columns, tail], sql`, `);
}
