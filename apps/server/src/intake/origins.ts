/** What is noted of where one came from, after it came. */
import { eq } from 'drizzle-orm';
import type { Db } from '../database/connect.ts';
import { within } from '../database/within.ts';
import type { LookedUp } from '../outside/registry.ts';
import { sourceOrigins } from '../gathering/tables.ts';
import type { Span } from '@pandecta/core/references';

/** What came of looking one up stands with where it came from. */
export async function noteLookUp(db: Db, workspaceId: string, id: string, { state }: LookedUp): Promise<void> {
  await within(db, workspaceId).update(sourceOrigins, { lookedUp: state }, eq(sourceOrigins.sourceId, id));
}

/** Which stretch of its text is which field, as a person has it now. */
export async function noteSpans(db: Db, workspaceId: string, id: string, spans: Span[]): Promise<void> {
  await within(db, workspaceId).update(sourceOrigins, { spans }, eq(sourceOrigins.sourceId, id));
}
