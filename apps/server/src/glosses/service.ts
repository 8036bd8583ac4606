/** Glosses on the whole of a source: written, rewritten and removed. What became part of a source keeps those on it there. */
import { and, eq, sql } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import type { Changed, EditGloss, Glosses } from '@pandecta/contract';
import type { Actor } from '../access/principal.ts';
import { nameOfActor } from '../access/people.ts';
import { answer, commitWithin } from '../changes/commit.ts';
import { commit } from '../changes/service.ts';
import { transact, type Db } from '../database/connect.ts';
import { rows, text } from '../database/read.ts';
import { within } from '../database/within.ts';
import { Refusal } from '../errors.ts';
import { partsOf } from '../database/merged.ts';
import type { Services } from '../services.ts';
import { visibleTo } from '../subjects/registry.ts';
import { glosses } from './tables.ts';

export async function glossesOf(db: Db, viewer: Actor, source: string): Promise<Glosses> {
  const w = sql`${viewer.workspaceId}::uuid`;
  const found = await rows(
    db,
    { id: text(), text: text(), by: text(), at: text() },
    sql`${partsOf(w, sql`select ${source}::uuid`)}
      select g.id, g.text, ${nameOfActor} as by, g.made_at as at from parts p
      join glosses g on g.workspace_id = ${w} and g.source_id = p.id left join users u on u.id = g.made_by
      where ${visibleTo(viewer, 'gloss', sql`g`)} order by g.id`,
  );
  return { glosses: found };
}

export async function writeGloss(services: Services, actor: Actor, source: string, said: string): Promise<Changed> {
  const id = uuidv7();
  const committed = await transact(services.db, async (tx) => {
    // Unseen until the change brings it.
    const row = { id, sourceId: source, present: false, madeBy: actor.userId };
    await within(tx, actor.workspaceId).insert(glosses, row);
    return commitWithin(tx, actor, { do: 'gloss', gloss: id, source, text: { before: null, after: written(said) } });
  });
  services.followers.kick();
  return { ...answer(committed), id };
}

export async function editGloss(services: Services, actor: Actor, id: string, input: EditGloss): Promise<Changed> {
  const { source, now } = await findGloss(services.db, actor, id);
  const text = { before: input.seen ?? now, after: written(input.text) };
  return answer(await commit(services, actor, { do: 'gloss', gloss: id, source, text }, { joins: true }));
}

export async function removeGloss(services: Services, actor: Actor, id: string): Promise<Changed> {
  const { source, now } = await findGloss(services.db, actor, id);
  return answer(await commit(services, actor, { do: 'gloss', gloss: id, source, text: { before: now, after: null } }));
}

function written(text: string): string {
  if (!text.trim()) throw new Refusal('invalid', 'a gloss has some text');
  return text.trim();
}

async function findGloss(db: Db, { workspaceId }: Actor, id: string): Promise<{ source: string; now: string }> {
  const { sourceId, text: now, present } = glosses;
  const found = await within(db, workspaceId).first(
    glosses,
    { source: sourceId, now },
    and(eq(glosses.id, id), present),
  );
  if (!found) throw new Refusal('no_such_gloss');
  return found;
}
