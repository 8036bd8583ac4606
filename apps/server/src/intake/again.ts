/** Whoever was silent is asked again by itself, until it answers or too often did not. */
import { sql } from 'drizzle-orm';
import { rows, text } from '../database/read.ts';
import type { Services } from '../services.ts';
import { eachDue } from '../queue/due.ts';
import { MOST_TRIES, noteLookUp } from './origins.ts';
import { lookUpOne } from './look-up.ts';

/** Of one turn; the others wait for the next. */
const MOST = 50;

export async function askAgain(services: Services): Promise<void> {
  const due = await rows(
    services.db,
    { workspaceId: text(), userId: text(), id: text() },
    sql`select s.workspace_id as "workspaceId", s.added_by as "userId", s.id from source_origins o
      join sources s on s.workspace_id = o.workspace_id and s.id = o.source_id and s.presence = 'intake'
      where o.looked_up = 'silent' and o.tries < ${MOST_TRIES} and coalesce(o.next_try, o.at + interval '5 minutes') <= now()
      order by o.at limit ${MOST}`,
  );
  await eachDue(due, {
    work: ({ id, ...actor }) => lookUpOne(services, actor, id),
    failed: ({ id, workspaceId }) => noteLookUp(services.db, workspaceId, id, { state: 'silent' }),
    report: services.report,
  });
}
