/** How a value of a field may go on that is being written. */
import { and, inArray, ilike, or } from 'drizzle-orm';
import type { SuggestedValues } from '@pandecta/contract';
import { fieldOf, isTextField, QUERY_FIELDS, type QueryField } from '@pandecta/core/query';
import { isNameVariable } from '@pandecta/core/source';
import { fold } from '@pandecta/core/words';
import { literally } from '../database/sql.ts';
import { within } from '../database/within.ts';
import type { Acting } from '../access/principal.ts';
import { keptUnder } from '../indexing/facet.ts';
import { facetKind } from '../indexing/facet.ts';
import { facets } from '../indexing/tables.ts';
import type { Services } from '../services.ts';
import { boundsCondition } from './facets.ts';
import { FIELDS } from './fields.ts';
import { asOne, seenAmong } from './named.ts';

const MOST = 12;
/** Facets whose values are names themselves, and so many that they are looked for by how they begin. */
const BY_KEY = new Set(['person', 'container', 'publisher', 'court', 'jurisdiction']);
const FOUND = 3000;

/** The facet that holds what a field is asked for; of words, where those it asks for are values as well. */
function facetOf(field: QueryField): string | undefined {
  const { asks } = fieldOf(field);
  if ('facet' in asks) return asks.facet;
  if (!isTextField(field)) return undefined;
  return field === 'person' || isNameVariable(field) ? 'person' : facetKind(field)?.type;
}

export async function suggest(
  services: Services,
  { actor }: Acting,
  field: (typeof QUERY_FIELDS)[number],
  begins: string,
): Promise<SuggestedValues> {
  const { db, columns } = services;
  const wanted = fold(begins).trim();
  const fits = (name: string): boolean => {
    const folded = fold(name);
    return folded.startsWith(wanted) || folded.includes(` ${wanted}`);
  };
  const suggest = isTextField(field) || field === 'is' || field === 'has' ? undefined : FIELDS.all[field].suggest;
  if (suggest) return { values: (await suggest(db, actor, fits)).slice(0, MOST) };
  const type = facetOf(field);
  const kind = type ? facetKind(type) : undefined;
  if (!type || !kind) return { values: [] };
  const kept = keptUnder(kind, actor.userId);
  const like = literally(begins.trim());
  const known = await within(db, actor.workspaceId).all(
    facets,
    { id: facets.id, key: facets.key },
    and(
      inArray(facets.type, kept),
      BY_KEY.has(type) && like ? or(ilike(facets.key, `${like}%`), ilike(facets.key, `% ${like}%`)) : undefined,
    ),
    BY_KEY.has(type) ? { most: FOUND } : {},
  );
  const names = await kind.names?.(
    db,
    actor.workspaceId,
    known.map((k) => k.key),
  );
  const isSeen = await seenAmong(
    db,
    actor,
    kind.subject,
    known.map((k) => k.key),
  );
  const fitting = known
    .filter((k) => isSeen(k.key))
    .map((k) => ({ ...k, value: names?.get(k.key) ?? k.key }))
    .filter((k) => fits(k.value));
  if (!fitting.length) return { values: [] };
  const { counts } = await columns.ask(actor.workspaceId, {
    presence: 'live',
    condition: await boundsCondition(db, actor),
    sets: [],
    count: fitting.map((f) => f.id),
  });
  const { values: summed } = asOne(fitting.map(({ value: key }, i) => ({ key, count: counts[i]! })));
  const values = summed
    .map(({ key: value, count }) => ({ value, count, first: fold(value).startsWith(wanted) }))
    .filter((v) => v.count)
    .sort((a, b) => Number(b.first) - Number(a.first) || b.count - a.count || a.value.localeCompare(b.value, 'en'));
  return { values: values.slice(0, MOST).map(({ value, count }) => ({ value, count })) };
}
