/** Conditions that facets tell: those chosen under Narrow, and those a field names by the names of their values. */
import { and, eq, inArray, sql } from 'drizzle-orm';
import type { Ask } from '@pandecta/contract';
import type { Presence } from '@pandecta/core/changes';
import type { Condition } from '@pandecta/core/narrowing';
import { fold } from '@pandecta/core/words';
import type { Actor } from '../access/principal.ts';
import type { Db } from '../database/connect.ts';
import { number, rows } from '../database/read.ts';
import { table } from '../database/sql.ts';
import { within } from '../database/within.ts';
import { Refusal } from '../errors.ts';
import { keptUnder } from '../indexing/facet.ts';
import { facetKind } from '../indexing/facet.ts';
import { facets } from '../indexing/tables.ts';
import type { FieldDefinition } from './fields.ts';

/** Who asks, and among which sources: what is each member's own is told of them. */
export interface Scope extends Actor {
  workspaceNumber: number;
  presence: Presence;
}

/** Matches nothing: a query of words none of which can be searched, or of a name nothing has. */
export const NOTHING: Condition = { is: 'none' };

/** Sources that bear at least one of these facets. */
export function anyFacet(ids: number[]): Condition {
  return ids.length ? { is: 'facets', ids } : NOTHING;
}

/**
 * What facets of a type are kept under, for this member.
 * @throws Refusal where no kind of facet is called so: what they are kept under names members, and is nobody's to ask for
 */
export function keptTypes(type: string, member: string): string[] {
  const kind = facetKind(type);
  if (!kind) throw new Refusal('invalid', `nothing is narrowed by “${type}”`);
  return keptUnder(kind, member);
}

export async function facetIds(
  db: Db,
  { workspaceId, userId }: Actor,
  pairs: (readonly [type: string, key: string])[],
): Promise<number[]> {
  if (!pairs.length) return [];
  const kept = pairs.flatMap(([type, key]) => keptTypes(type, userId).map((t) => [t, key] as const));
  const found = await rows(
    db,
    { id: number },
    sql`select f.id from ${table('u', { type: ['text', kept.map((k) => k[0])], key: ['text', kept.map((k) => k[1])] })}
    join facets f on f.workspace_id = ${workspaceId} and f.type = u.type and f.key = u.key`,
  );
  return found.map((f) => f.id);
}

/** The sources someone sees who sees only part of the workspace: those that stand there for all members. */
export async function boundsCondition(db: Db, { workspaceId, bounds }: Actor): Promise<Condition> {
  if (!bounds) return { is: 'all' };
  const { id, type, key } = facets;
  const one = and(eq(type, 'in'), eq(key, bounds.collection));
  const found = await within(db, workspaceId).all(facets, { id }, one);
  return anyFacet(found.map((f) => f.id));
}

/** Facets by the name of their value; see `called`. */
async function facetsNamed(
  db: Db,
  { workspaceId, userId }: Actor,
  type: string,
  text: string,
  exactly: boolean,
): Promise<number[]> {
  const { id, key, type: of } = facets;
  const known = await within(db, workspaceId).all(facets, { id, key }, inArray(of, keptTypes(type, userId)));
  const keys = known.map((k) => k.key);
  const names = keys.length ? await facetKind(type)?.names?.(db, workspaceId, keys) : undefined;
  const named = new Map(known.map((k) => [k.id, [k.key, ...(names?.has(k.key) ? [names.get(k.key)!] : [])]]));
  return called(named, text, exactly);
}

/**
 * Those one means by a name: "résumé" is the tag "Resume"; where no name is just this, its beginning is enough, but for
 * what was written in quotation marks.
 */
export function called<K>(named: Map<K, string[]>, text: string, exactly: boolean): K[] {
  const wanted = fold(text).trim();
  if (!wanted) return [];
  const those = (holds: (name: string) => boolean): K[] =>
    [...named].flatMap(([key, names]) => (names.some((n) => holds(fold(n))) ? [key] : []));
  const exact = those((name) => name === wanted);
  return exact.length || exactly ? exact : those((name) => name.startsWith(wanted));
}

export type FacetPair = [type: string, key: string];

/** "tag=…" taken apart. */
export function pairOf(text: string): FacetPair {
  const at = text.indexOf('=');
  if (at < 1) throw new Refusal('invalid', `“${text}” is not a facet`);
  return [text.slice(0, at), text.slice(at + 1)];
}

/**
 * What is narrowed to, in groups of which one each is enough: values of one kind of facet widen, except of those a
 * source has many of, where one asks for two at once.
 */
export function included(ask: Ask): FacetPair[][] {
  const include = (ask.include ?? []).map(pairOf);
  if (ask.collection) include.push([ask.below === false ? 'filed' : 'in', ask.collection]);
  if (ask.scope === 'loose') include.push(['loose', 'yes']);
  const groups = new Map<string, FacetPair[]>();
  include.forEach((p, i) => {
    const name = facetKind(p[0])?.many ? `${p[0]} ${i}` : p[0];
    groups.set(name, [...(groups.get(name) ?? []), p]);
  });
  return [...groups.values()];
}

export const inYears = ({ yearFrom, yearTo }: Ask): Condition[] =>
  yearFrom !== undefined || yearTo !== undefined ? [{ is: 'years', from: yearFrom, to: yearTo }] : [];

/** A query field whose value is the name of a value of a facet, as in `tag:used`. */
export const namedFacet = (type: string): FieldDefinition => ({
  async condition(text, { db, scope }, exactly) {
    const found = await facetsNamed(db, scope, type, text, exactly);
    return found.length ? anyFacet(found) : undefined;
  },
});
