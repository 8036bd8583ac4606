/** When a source came into the bin, by whom, and when it goes: told of those in the bin alone. */
import { sql } from 'drizzle-orm';
import type { InBin } from '@pandecta/contract';
import { json, orNull } from '../database/read.ts';
import { binDaysOf } from '../records/bin-days.ts';
import { linePart } from '../searching/line.ts';

export const sourceLine = linePart({
  columns: { bin: orNull(json<InBin>()) },
  select: ({ workspace: w, presence }) =>
    presence !== 'bin'
      ? sql`null::jsonb as bin`
      : sql`(select jsonb_build_object('at', s.changed_at,
    'goes', s.changed_at + make_interval(days => ${binDaysOf}),
    'by', coalesce((select u.name from change_subjects cs join changes c on c.workspace_id = cs.workspace_id and c.id = cs.change_id
      left join users u on u.id = c.actor_id where cs.workspace_id = ${w} and cs.kind = 'source' and cs.subject_id = s.id
      order by c.id desc limit 1), ''))
  from workspaces w where w.id = ${w}) as bin`,
  line: ({ bin }) => ({ ...(bin && { bin }) }),
});
