/** What is asked for by the collections it stands in. */
import type { Condition } from '@pandecta/core/narrowing';
import type { Db } from '../database/connect.ts';
import type { Actor } from '../access/principal.ts';
import { called } from '../searching/facets.ts';
import type { FieldContext, FieldDefinition, FieldsOf, Narrowings } from '../searching/fields.ts';
import { pathsOf, rulesWithin } from './store.ts';

/** What stands in any of these collections: what is filed there, and what their rules find; with what is below, or without. */
async function within(collections: string[], below: boolean, to: FieldContext): Promise<Condition> {
  const filed = await to.facet(below ? 'in' : 'filed', collections);
  const parts: Condition[] = [];
  for (const rule of await rulesWithin(to.db, to.scope, collections, below)) {
    const found = await to.inner(rule);
    if (found) parts.push(found);
  }
  return parts.length ? { is: 'or', parts: [filed, ...parts] } : filed;
}

/** Collections by their names, or by their paths; see `called`. */
async function collectionsNamed(db: Db, actor: Actor, text: string, exactly: boolean): Promise<string[]> {
  const paths = await pathsOf(db, actor);
  const named = [...paths].map(
    ([id, all]) => [id, [id, ...all, ...all.map((p) => p.split(' › ').at(-1)!)]] as [string, string[]],
  );
  return called(new Map(named), text.replace(/\s*[›>/]\s*/g, ' › '), exactly);
}

const inCollection = (below: boolean): FieldDefinition => ({
  async condition(text, to, exactly) {
    const found = await collectionsNamed(to.db, to.scope, text, exactly);
    return found.length ? within(found, below, to) : undefined;
  },
});

export const placeFields: FieldsOf<'in' | 'filed' | 'is:loose'> = {
  in: inCollection(true),
  filed: inCollection(false),
  'is:loose': { condition: (_, { facet }) => facet('loose', ['yes']) },
};

export const placeNarrowings: Narrowings = {
  in: (ids, to) => within(ids, true, to),
  filed: (ids, to) => within(ids, false, to),
};
