import { eq } from 'drizzle-orm';
import { expect, test } from 'vitest';
import { collections } from '../places/tables.ts';
import { tags } from '../tags/tables.ts';
import type { Db } from './connect.ts';
import { within } from './within.ts';

/** What the compiler says of these is the test; none of them is run. */
export const refused = (db: Db): unknown[] => [
  // @ts-expect-error -- a column of another table
  within(db, '').all(tags, { name: collections.name }),
  // @ts-expect-error -- sorted by a column of another table
  within(db, '').first(tags, { name: tags.name }, eq(tags.id, ''), { by: [collections.id] }),
  within(db, '').all(tags, { name: tags.name }, eq(tags.id, ''), { by: [tags.id] }),
];

test('a column of another table does not compile', () => expect(refused).toBeTypeOf('function'));
