/** A stretch of the text one was read from is given to another field; so it is in those of its batch that are made like it. */
import type { Changed, Respan } from '@pandecta/contract';
import type { Change } from '@pandecta/core/changes';
import { applyLearnt, learn, respan, valueOf, type Correction, type Span } from '@pandecta/core/references';
import { same } from '@pandecta/core/source';
import { formatNumber } from '@pandecta/core/wording';
import { answer } from '../changes/commit.ts';
import { commit } from '../changes/service.ts';
import { Refusal } from '../errors.ts';
import type { Actor } from '../access/principal.ts';
import type { Services } from '../services.ts';
import { edited } from '../records/edited.ts';
import { noteSpans } from './origins.ts';
import { isUnread, waitingOne } from './service.ts';
import { findOrigin, findOthersAsTheyCame, findWaiting, type Waiting } from './store.ts';

export async function respanOne(services: Services, actor: Actor, id: string, change: Respan): Promise<Changed> {
  const { db } = services;
  const { workspaceId } = actor;
  const one = await waitingOne(db, workspaceId, id);
  const { came, spans } = await findOrigin(db, workspaceId, id);
  if (came === null || change.start < 0 || change.end > came.length || change.start >= change.end)
    throw new Refusal('invalid', 'the stretch is not of its text');
  const learnt = learn(came, spans, change);
  const mended: Mended[] = [mend(one, came, spans, change)];
  if (learnt && one.batch) {
    const others = await findOthersAsTheyCame(db, workspaceId, one.batch, id);
    const waiting = await findWaiting(db, workspaceId, [...others.keys()]);
    for (const [other, origin] of others) {
      const same = applyLearnt(learnt, origin.came, origin.spans);
      const record = waiting.get(other);
      if (same && record && stillAsRead(record, origin, same))
        mended.push(mend(record, origin.came, origin.spans, same));
    }
  }
  const changes: Change[] = mended.map((m) => m.change);
  const more = mended.length - 1;
  const others = more === 1 ? 'one that is made like it' : `${formatNumber(more)} that are made like it`;
  const done = more
    ? await commit(services, actor, { do: 'all', says: `Corrected it, and ${others}`, changes })
    : await commit(services, actor, changes[0]!);
  for (const m of mended) await noteSpans(db, workspaceId, m.id, m.spans);
  return answer(done);
}

interface Mended {
  id: string;
  spans: Span[];
  change: Change;
}

function mend(one: Waiting, came: string, spans: Span[], change: Correction): Mended {
  const { spans: next, fields } = respan(came, spans, change);
  // What was nothing but its words becomes a reference by having fields.
  const unread = isUnread(one) && fields.title === undefined ? { title: null } : {};
  return { id: one.id, spans: next, change: edited(one.id, one.record, { ...unread, ...fields }) };
}

/** Whether the fields it would touch are still what was read: what a person mended, or a catalogue gave, stands. */
function stillAsRead(
  { record }: Waiting,
  { came, spans }: { came: string; spans: Span[] },
  change: Correction,
): boolean {
  const touched = new Set([
    ...spans.filter((s) => s.start < change.end && s.end > change.start).map((s) => s.field),
    ...(change.field ? [change.field] : []),
  ]);
  return [...touched].every((field) => {
    const span = spans.find((s) => s.field === field);
    const read = span && valueOf(field, came.slice(span.start, span.end));
    const now = (record as Record<string, unknown>)[field];
    return same(now ?? null, read ?? null);
  });
}
