/** Conditions that facets tell: those chosen under Narrow, and those a field names by the names of their values. */
import { eq, sql } from 'drizzle-orm';
import type { Ask } from '@pandecta/contract';
import type { Presence } from '@pandecta/core/changes';
import type { Condition } from '@pandecta/core/narrowing';
import { fold } from '@pandecta/core/words';
import type { Db } from '../database/connect.ts';
import { number, rows } from '../database/read.ts';
import { table } from '../database/sql.ts';
import { within } from '../database/within.ts';
import { Refusal } from '../errors.ts';
import { keptAs } from '../indexing/facet.ts';
import { facetKind } from '../indexing/facets.ts';
import { facets } from '../indexing/tables.ts';
import { pathsOf } from '../places/store.ts';

export interface Scope {
  workspaceId: string;
  workspaceNumber: number;
  presence: Presence;
  /** Who asks: what is each member's own is told of them. */
  member: string;
}

type Who = Pick<Scope, 'workspaceId' | 'member'>;

/** Matches nothing: a query of words none of which can be searched, or of a name nothing has. */
export const NOTHING: Condition = { is: 'none' };

/** Sources that bear at least one of these facets. */
export function anyFacet(ids: number[]): Condition {
  return ids.length ? { is: 'facets', ids } : NOTHING;
}

/** What a facet is kept under, for this member. */
function keptType(type: string, member: string): string {
  const kind = facetKind(type);
  return kind ? keptAs(kind, member) : type;
}

export async function facetIds(
  db: Db,
  { workspaceId, member }: Who,
  pairs: (readonly [type: string, key: string])[],
): Promise<number[]> {
  if (!pairs.length) return [];
  const kept = pairs.map(([type]) => keptType(type, member));
  const found = await rows(
    db,
    { id: number },
    sql`select f.id from ${table('u', { type: ['text', kept], key: ['text', pairs.map((p) => p[1])] })}
    join facets f on f.workspace_id = ${workspaceId} and f.type = u.type and f.key = u.key`,
  );
  return found.map((f) => f.id);
}

/**
 * Facets by the name of their value: "résumé" finds the tag "Resume"; where no name is just this, its beginning is
 * enough, but for what was written in quotation marks. A collection may be named by its path.
 */
export async function facetsNamed(
  db: Db,
  { workspaceId, member }: Who,
  type: string,
  text: string,
  exactly: boolean,
): Promise<number[]> {
  const { id, key, type: of } = facets;
  const known = await within(db, workspaceId).all(facets, { id, key }, eq(of, keptType(type, member)));
  const names = await namesOf(
    db,
    workspaceId,
    type,
    known.map((k) => k.key),
  );
  const wanted = fold(text)
    .replace(/\s*[›>/]\s*/g, ' › ')
    .trim();
  if (!wanted) return [];
  const called = (holds: (name: string) => boolean): number[] =>
    known.filter((k) => [k.key, ...(names.get(k.key) ?? [])].some((n) => holds(fold(n)))).map((k) => k.id);
  const exact = called((name) => name === wanted);
  return exact.length || exactly ? exact : called((name) => name.startsWith(wanted));
}

/** What the values of a facet are called, each by its names. */
async function namesOf(db: Db, workspaceId: string, type: string, keys: string[]): Promise<Map<string, string[]>> {
  const named = keys.length ? await facetKind(type)?.names?.(db, workspaceId, keys) : undefined;
  const out = new Map([...(named ?? [])].map(([key, name]) => [key, [name]]));
  if (type === 'in' || type === 'filed')
    for (const [key, paths] of await pathsOf(db, workspaceId)) out.set(key, [...(out.get(key) ?? []), ...paths]);
  return out;
}

/** What is narrowed to beside the words: the facets, the collection, the years are left out. */
export async function narrowing(db: Db, scope: Who, ask: Ask): Promise<Condition[]> {
  const pair = (text: string): [string, string] => {
    const at = text.indexOf('=');
    if (at < 1) throw new Refusal('invalid', `“${text}” is not a facet`);
    return [text.slice(0, at), text.slice(at + 1)];
  };
  const include = (ask.include ?? []).map(pair);
  if (ask.collection) include.push([ask.below === false ? 'filed' : 'in', ask.collection]);
  if (ask.scope === 'loose') include.push(['loose', 'yes']);
  // Values of one kind of facet widen, except of those a source has many of: there one asks for two at once.
  const groups = new Map<string, [string, string][]>();
  include.forEach((p, i) => {
    const name = facetKind(p[0])?.many ? `${p[0]} ${i}` : p[0];
    groups.set(name, [...(groups.get(name) ?? []), p]);
  });
  const included = await Promise.all([...groups.values()].map((group) => facetIds(db, scope, group)));
  const excluded = await facetIds(db, scope, (ask.exclude ?? []).map(pair));
  return [
    ...included.map(anyFacet),
    ...(excluded.length ? [{ is: 'not', part: anyFacet(excluded) } satisfies Condition] : []),
  ];
}

export const inYears = ({ yearFrom, yearTo }: Ask): Condition[] =>
  yearFrom !== undefined || yearTo !== undefined ? [{ is: 'years', from: yearFrom, to: yearTo }] : [];
