/** Before the licence of a document ends, whoever brought it in is written to, once. */
import { sql } from 'drizzle-orm';
import { dateShort, lastDayOf, withoutMarkup, type SourceRecord } from '@pandecta/core/source';
import { json, rows, text } from '../database/read.ts';
import { within } from '../database/within.ts';
import { eachDue } from '../queue/due.ts';
import type { Services } from '../services.ts';
import { accessReminders } from '../records/tables.ts';

/** So many days before. */
const AHEAD = 14;
const DAY = 86_400_000;

export async function remindOfAccess({ db, mail, report }: Services, now = Date.now()): Promise<void> {
  const found = await rows(
    db,
    { workspaceId: text(), userId: text(), id: text(), record: json<SourceRecord>(), told: json<string[]>() },
    sql`select s.workspace_id as "workspaceId", s.added_by as "userId", s.id, s.record,
        (select coalesce(jsonb_agg(r.until), '[]') from access_reminders r where r.workspace_id = s.workspace_id and r.source_id = s.id) as told
      from sources s where s.presence = 'live' and s.record ? 'access-until'`,
  );
  const [today, soon] = [now, now + AHEAD * DAY].map((at) => new Date(at).toISOString().slice(0, 10)) as [
    string,
    string,
  ];
  const due = new Map<string, typeof found>();
  for (const source of found) {
    const until = lastDayOf(source.record['access-until']);
    if (!until || until < today || until > soon || source.told.includes(until)) continue;
    due.set(source.userId, [...(due.get(source.userId) ?? []), source]);
  }
  const remind = async ([userId, sources]: [string, typeof found]): Promise<void> => {
    const lines = sources.map(
      ({ record }) => `- ${withoutMarkup(record.title ?? 'Untitled')}: until ${dateShort(record['access-until'])}`,
    );
    const one = sources.length === 1;
    const subject = one ? 'Access to a document ends' : `Access to ${sources.length} documents ends`;
    const failed = await mail.tell(
      userId,
      subject,
      ['After these days their licences no longer cover them:', '', ...lines].join('\n'),
    );
    // What could not be sent is tried again the next day.
    if (failed) return;
    for (const { workspaceId, id, record } of sources)
      await within(db, workspaceId)
        .insert(accessReminders, { sourceId: id, until: lastDayOf(record['access-until'])! })
        .onConflictDoNothing();
  };
  // One that fails stays due.
  await eachDue([...due], { work: remind, failed: async () => {}, report });
}
