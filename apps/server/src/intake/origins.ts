/** What is noted of where one came from, after it came. */
import { eq, sql } from 'drizzle-orm';
import type { Db } from '../database/connect.ts';
import { within } from '../database/within.ts';
import type { LookedUp } from '../catalogues/registry.ts';
import { sourceOrigins } from '../gathering/tables.ts';
import type { Span } from '@pandecta/core/references';

/** After so many tries in vain nobody is asked again by itself; a person still may. */
export const MOST_TRIES = 10;

/** What came of looking one up stands with where it came from; after silence the next try waits twice as long. */
export async function noteLookUp(db: Db, workspaceId: string, id: string, { state, why }: LookedUp): Promise<void> {
  const { tries } = sourceOrigins;
  const again =
    state === 'silent'
      ? { tries: sql`${tries} + 1`, nextTry: sql`now() + least(power(2, ${tries}), 144) * interval '10 minutes'` }
      : {};
  await within(db, workspaceId).update(
    sourceOrigins,
    { lookedUp: state, trouble: why ?? null, ...again },
    eq(sourceOrigins.sourceId, id),
  );
}

/** Which stretch of its text is which field, as a person has it now. */
export async function noteSpans(db: Db, workspaceId: string, id: string, spans: Span[]): Promise<void> {
  await within(db, workspaceId).update(sourceOrigins, { spans }, eq(sourceOrigins.sourceId, id));
}
