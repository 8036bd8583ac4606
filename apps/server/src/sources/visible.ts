/** Which sources a role may see: what waits in the intake or was set aside is for those who may gather. */
import { and, inArray } from 'drizzle-orm';
import { may } from '../access/permissions.ts';
import type { Db } from '../database/connect.ts';
import { oneOf } from '../database/sql.ts';
import { within } from '../database/within.ts';
import type { Workspace } from '../http/authorise.ts';
import { sources } from './tables.ts';

/** Those of the ids that the caller may see, in their order. */
export async function visibleIds(db: Db, workspace: Workspace, ids: string[]): Promise<string[]> {
  if (may(workspace.role, 'gather') || !ids.length) return ids;
  const waiting = await within(db, workspace.id).all(
    sources,
    { id: sources.id },
    and(oneOf(sources.id, ids), inArray(sources.presence, ['intake', 'aside'])),
  );
  const hidden = new Set(waiting.map((w) => w.id));
  return ids.filter((id) => !hidden.has(id));
}
