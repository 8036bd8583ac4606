/** What is asked for by saved searches. */
import type { Actor } from '../access/principal.ts';
import type { Db } from '../database/connect.ts';
import { entriesOf } from '../lists/store.ts';
import { NOTHING } from '../searching/facets.ts';
import type { FieldsOf } from '../searching/fields.ts';
import { savedNamed, seenSet, watchesOf } from './store.ts';

async function suggest(
  db: Db,
  actor: Actor,
  fits: (name: string) => boolean,
): Promise<{ value: string; says?: string }[]> {
  const found = (await entriesOf(db, actor, 'saved')).filter((f) => fits(f.value.name));
  return found.map((f) => ({ value: f.value.name, says: String(f.value.describes ?? '') }));
}

export const savedFields: FieldsOf<'saved' | 'new'> = {
  saved: {
    async condition(text, { db, scope, inner }) {
      const found = await savedNamed(db, scope, text);
      return found && inner(found);
    },
    suggest,
  },
  new: {
    async condition(text, { db, scope, inner, set }) {
      const found = await savedNamed(db, scope, text);
      const condition = found && (await inner(found));
      if (!found || !condition) return undefined;
      // What is not watched has nothing that was not seen.
      if (!(await watchesOf(db, scope)).has(found.id)) return NOTHING;
      const seen = set(seenSet(scope.workspaceId, scope.userId, found.id));
      return { is: 'and', parts: [condition, { is: 'not', part: seen }] };
    },
    suggest,
  },
};
