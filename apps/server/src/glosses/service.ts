/** Glosses on the whole of a source: written, rewritten and removed. What became part of a source keeps those on it there. */
import { and, eq, sql } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import type { Changed, EditGloss, Glosses, NewGloss } from '@pandecta/contract';
import type { GlossChange } from '@pandecta/core/changes';
import type { Access, Actor } from '../access/principal.ts';
import { nameOfActor } from '../access/people.ts';
import { refuseByRole } from '../changes/carriers.ts';
import { answer, commitWithin } from '../changes/commit.ts';
import { commitByRole } from '../changes/service.ts';
import { transact, type Db } from '../database/connect.ts';
import { rows, text, truth } from '../database/read.ts';
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
    { id: text(), text: text(), by: text(), at: text(), personal: truth },
    sql`${partsOf(w, sql`select ${source}::uuid`)}
      select g.id, g.text, ${nameOfActor} as by, g.made_at as at, g.owner is not null as personal from parts p
      join glosses g on g.workspace_id = ${w} and g.source_id = p.id left join users u on u.id = g.made_by
      where ${visibleTo(viewer, 'gloss', sql`g`)} order by g.id`,
  );
  return { glosses: found };
}

export async function writeGloss(services: Services, actor: Access, source: string, input: NewGloss): Promise<Changed> {
  const id = uuidv7();
  const own = input.personal ? actor.userId : undefined;
  const text = { before: null, after: written(input.text) };
  const change: GlossChange = { do: 'gloss', gloss: id, source, fields: { text }, ...(own && { own }) };
  refuseByRole(actor.role, change);
  const committed = await transact(services.db, async (tx) => {
    // Unseen until the change brings it.
    const row = { id, sourceId: source, present: false, madeBy: actor.userId, owner: own };
    await within(tx, actor.workspaceId).insert(glosses, row);
    return commitWithin(tx, actor, change);
  });
  services.followers.kick();
  return { ...answer(committed), id };
}

export async function editGloss(services: Services, actor: Access, id: string, input: EditGloss): Promise<Changed> {
  const { now, ...one } = await findGloss(services.db, actor, id);
  const text = { before: input.seen ?? now, after: written(input.text) };
  return answer(await commitByRole(services, actor, { ...one, fields: { text } }, { joins: true }));
}

export async function removeGloss(services: Services, actor: Access, id: string): Promise<Changed> {
  const { now, ...one } = await findGloss(services.db, actor, id);
  return answer(await commitByRole(services, actor, { ...one, fields: { text: { before: now, after: null } } }));
}

/** Everyone sees it from now on, and that it was shown. */
export async function shareGloss(services: Services, actor: Access, id: string): Promise<Changed> {
  const { now: _, own, ...one } = await findGloss(services.db, actor, id);
  return answer(
    await commitByRole(services, actor, { ...one, fields: { owner: { before: own ?? null, after: null } } }),
  );
}

function written(text: string): string {
  if (!text.trim()) throw new Refusal('invalid', 'a gloss has some text');
  return text.trim();
}

/** A gloss as a change names it, and its text as it is now. @throws Refusal where it is not there, or may not be seen */
async function findGloss(db: Db, viewer: Actor, id: string): Promise<Omit<GlossChange, 'fields'> & { now: string }> {
  const { sourceId, text: now, owner } = glosses;
  const one = and(eq(glosses.id, id), visibleTo(viewer, 'gloss', sql`glosses`));
  const found = await within(db, viewer.workspaceId).first(glosses, { source: sourceId, now, owner }, one);
  if (!found) throw new Refusal('no_such_gloss');
  const { source, owner: own, ...rest } = found;
  return { do: 'gloss', gloss: id, source, ...(own && { own }), ...rest };
}
