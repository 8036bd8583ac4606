/** From a question to what is asked of the columns: one condition used by list, order, count and facets. */
import { SORT_KEYS, type Ask, type Scope as AskedScope, type SortKey } from '@pandecta/contract';
import type { Presence } from '@pandecta/core/changes';
import type { Condition, SortBy } from '@pandecta/core/narrowing';
import { asTyped, parseQuery, type Node, type ParsedQuery } from '@pandecta/core/query';
import { may } from '../access/permissions.ts';
import type { Db } from '../database/connect.ts';
import { Refusal } from '../errors.ts';
import type { Caller } from '../access/principal.ts';
import { facetKind, facetKinds } from '../indexing/facet.ts';
import { compile, notesOf, type Compiled } from './compile.ts';
import { boundsCondition, facetIds, inYears, type Scope } from './facets.ts';

export interface Question {
  scope: Scope;
  /** What the reader of the question has to say of it. */
  notes: ParsedQuery['notes'];
  /** What is asked; its last word may be a beginning, while it is typed. */
  tree: Node;
  compiled: Compiled;
  condition: Condition;
  /** The same without the range of years: what the years may be chosen from. */
  anyYear: Condition;
  /** Best first; `sort` orders what is not ranked. */
  byRelevance: boolean;
  sort: SortBy[];
  /** What the lines stand in groups of: a kind of facet, or "year". */
  group?: string;
}

/** In which presence is looked for each scope. */
const PRESENCE_OF: Record<AskedScope, Presence> = {
  live: 'live',
  loose: 'live',
  bin: 'bin',
  intake: 'intake',
  aside: 'aside',
};

/** @throws Refusal where what waits is asked for by one who may not gather */
export async function understand(db: Db, { workspace, user }: Caller, ask: Ask): Promise<Question> {
  const parsed = parseQuery(ask.q ?? '');
  const tree = ask.typing ? asTyped(parsed.tree) : parsed.tree;
  const presence = PRESENCE_OF[ask.scope ?? 'live'];
  if ((presence === 'intake' || presence === 'aside') && !may(workspace.role, 'gather'))
    throw new Refusal('not_allowed');
  const scope: Scope = {
    workspaceId: workspace.id,
    workspaceNumber: workspace.number,
    presence,
    userId: user.id,
    bounds: workspace.bounds,
  };
  const compiled = await compile(db, scope, tree, ask);
  const condition: Condition = scope.bounds
    ? { is: 'and', parts: [await boundsCondition(db, scope), compiled.condition] }
    : compiled.condition;
  const years = inYears(ask);
  if (ask.group && !isGroup(ask.group)) throw new Refusal('invalid', `nothing is grouped by “${ask.group}”`);
  // Within groups what is best is not told apart: an order over all is.
  const asked = readSort(ask.sort, compiled.rank !== '' && !ask.group);
  // What waits stands by its gatherings, the newest first, and in each as it was pasted.
  const waits = presence === 'intake' || presence === 'aside';
  const sort = waits && !ask.sort && asked[0]?.key === 'added' ? [...asked, { key: 'came', descending: false }] : asked;
  return {
    scope,
    // That nothing is called so would tell one who sees only a part what there is elsewhere.
    notes: [...parsed.notes, ...(scope.bounds ? [] : notesOf(compiled, parsed.spans))].sort(
      (a, b) => a.start - b.start,
    ),
    tree: compiled.tree,
    compiled,
    condition: { is: 'and', parts: [condition, ...years] },
    anyYear: condition,
    byRelevance: sort[0]?.key === 'relevance',
    sort: await withLevels(
      db,
      scope,
      sort.filter((s) => s.key !== 'relevance'),
    ),
    ...(ask.group && { group: ask.group }),
  };
}

/** What sources are sorted by that facets tell: those of each rank, by type and key. */
const levelsOf = (sort: string): [type: string, key: string][] | undefined => {
  const kind = facetKinds().find((k) => k.levels?.sort === sort);
  return kind?.levels?.keys.map((key) => [kind.type, key]);
};

const withLevels = (db: Db, scope: Scope, sort: SortBy[]): Promise<SortBy[]> =>
  Promise.all(
    sort.map(async (s) => {
      const levels = levelsOf(s.key);
      if (!levels) return s;
      return { ...s, facets: await Promise.all(levels.map((level) => facetIds(db, scope, [level]))) };
    }),
  );

const isGroup = (group: string): boolean => group === 'year' || Boolean(facetKind(group)?.offered);

function readSort(text: string | undefined, ranked: boolean): { key: SortKey; descending: boolean }[] {
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
