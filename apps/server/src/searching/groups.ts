/** Answers in groups: by the values of a kind of facet, in the order of their names, or by year. */
import { inArray } from 'drizzle-orm';
import type { SourceGroup } from '@pandecta/contract';
import type { GroupBy } from '@pandecta/core/narrowing';
import type { Db } from '../database/connect.ts';
import { within } from '../database/within.ts';
import { facets } from '../indexing/tables.ts';
import type { ColumnsAnswer } from '../workers/columns.ts';
import { keptTypes, type Scope } from './facets.ts';
import type { Question } from './match.ts';
import { namedFacets } from './named.ts';

/** Names in the order of the language (Unicode Collation Algorithm), numbers in theirs. */
const inOrder = new Intl.Collator('en', { numeric: true });

/** The values of the kind as the groups stand. */
export async function groupBy(db: Db, scope: Scope, group: string): Promise<GroupBy> {
  if (group === 'year') return 'year';
  const { id, type } = facets;
  const of = await within(db, scope.workspaceId).all(facets, { id }, inArray(type, keptTypes(group, scope.userId)));
  const named = await namedFacets(
    db,
    scope,
    of.map((f) => f.id),
  );
  const byKey = new Map<string, { name: string; facets: number[] }>();
  for (const [facet, { key, name }] of named)
    byKey.set(key, { name, facets: [...(byKey.get(key)?.facets ?? []), facet] });
  return [...byKey.values()].sort((a, b) => inOrder.compare(a.name, b.name)).map((g) => g.facets);
}

/** The groups of lines for a person. */
export async function namedGroups(
  db: Db,
  { scope, group }: Question,
  groups: ColumnsAnswer['groups'],
): Promise<SourceGroup[]> {
  const ids = [...new Set(groups.flatMap(([of]) => (of === null ? [] : [of])))];
  const named = group === 'year' ? undefined : await namedFacets(db, scope, ids);
  return groups.map(([of, count]) => {
    if (of === null) return { key: '', name: '', count };
    const { key, name } = named?.get(of) ?? { key: String(of), name: String(of) };
    return { key, name, count };
  });
}
