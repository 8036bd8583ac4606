/** A document with its marks; making, changing and removing marks. */
import { and, eq, sql } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import { routes, type Mark } from '@pandecta/contract';
import type { Sense } from '@pandecta/core/marks';
import { nameOfActor } from '../access/people.ts';
import { answer, commitWithin } from '../changes/commit.ts';
import { commit } from '../changes/service.ts';
import { transact, type Db } from '../database/connect.ts';
import { json, number, rows, text } from '../database/read.ts';
import { within } from '../database/within.ts';
import { Refusal } from '../errors.ts';
import { findFile } from '../files/store.ts';
import { sourceFiles } from '../files/tables.ts';
import type { Declare } from '../http/route.ts';
import type { Services } from '../services.ts';
import { marks, senses } from './tables.ts';

export function markRoutes(declare: Declare, services: Services): void {
  const { db, followers } = services;
  declare(routes.marks.document, async ({ workspace, actor, params }) => {
    const file = await findFile(db, actor, params.file);
    await attached(db, workspace.id, params.source, file.id);
    return {
      fileId: file.id,
      sourceId: params.source,
      name: file.name,
      state: file.state,
      mediaType: file.mediaType,
      pages: file.pages,
      marks: await marksOf(db, workspace.id, params.source, file.id),
      senses: await sensesOf(db, workspace.id),
    };
  });
  declare(routes.marks.make, async ({ workspace, actor, params, body }) => {
    await attached(db, workspace.id, params.source, params.file);
    const { pages } = await findFile(db, actor, params.file);
    if (body.page > Math.max(1, pages)) throw new Refusal('invalid', `the file has no page ${body.page}`);
    await sense(db, workspace.id, body.sense);
    const id = uuidv7();
    const committed = await transact(db, async (tx) => {
      // Unseen until the change brings it.
      await within(tx, workspace.id).insert(marks, {
        id,
        sourceId: params.source,
        fileId: params.file,
        page: body.page,
        senseId: body.sense,
        quote: body.quote,
        rects: body.rects,
        gloss: body.gloss ?? '',
        present: false,
        madeBy: actor.userId,
      });
      return commitWithin(tx, actor, { do: 'mark', mark: id, source: params.source, present: true });
    });
    followers.kick();
    return { ...answer(committed), id };
  });
  declare(routes.marks.edit, async ({ workspace, actor, params, body }) => {
    const mark = await findMark(db, workspace.id, params.mark);
    if (body.sense) await sense(db, workspace.id, body.sense);
    const fields = {
      ...(body.gloss !== undefined && body.gloss !== mark.gloss
        ? { gloss: { before: body.seen?.gloss ?? mark.gloss, after: body.gloss } }
        : {}),
      ...(body.sense !== undefined && body.sense !== mark.sense
        ? { sense: { before: body.seen?.sense ?? mark.sense, after: body.sense } }
        : {}),
    };
    const change = { do: 'mark-edit' as const, mark: params.mark, source: mark.source, fields };
    return answer(await commit(services, actor, change, { joins: true }));
  });
  declare(routes.marks.remove, async ({ workspace, actor, params }) => {
    const mark = await findMark(db, workspace.id, params.mark);
    return answer(
      await commit(services, actor, { do: 'mark', mark: params.mark, source: mark.source, present: false }),
    );
  });
}

async function attached(db: Db, workspaceId: string, source: string, file: string): Promise<void> {
  const where = and(eq(sourceFiles.sourceId, source), eq(sourceFiles.fileId, file));
  if (!(await within(db, workspaceId).has(sourceFiles, where))) throw new Refusal('no_such_file');
}

async function sense(db: Db, workspaceId: string, id: string): Promise<void> {
  if (!(await within(db, workspaceId).has(senses, eq(senses.id, id))))
    throw new Refusal('invalid', 'there is no such sense');
}

async function findMark(
  db: Db,
  workspaceId: string,
  id: string,
): Promise<{ gloss: string; sense: string; source: string }> {
  const found = await within(db, workspaceId).first(
    marks,
    { gloss: marks.gloss, sense: marks.senseId, source: marks.sourceId },
    and(eq(marks.id, id), marks.present),
  );
  if (!found) throw new Refusal('no_such_mark');
  return found;
}

async function marksOf(db: Db, workspaceId: string, source: string, file: string): Promise<Mark[]> {
  return rows(
    db,
    {
      id: text(),
      fileId: text(),
      sourceId: text(),
      page: number,
      sense: text(),
      quote: json<Mark['quote']>(),
      rects: json<Mark['rects']>(),
      gloss: text(),
      by: text(),
      at: text(),
    },
    sql`select m.id, m.file_id as "fileId", m.source_id as "sourceId", m.page, m.sense_id as sense, m.quote, m.rects, m.gloss, ${nameOfActor} as by, m.made_at as at
    from marks m left join users u on u.id = m.made_by where m.workspace_id = ${workspaceId} and m.file_id = ${file} and m.source_id = ${source} and m.present order by m.page, (m.rects->0->>'y0')::real`,
  );
}

function sensesOf(db: Db, workspaceId: string): Promise<Sense[]> {
  const { id, name, key, colour } = senses;
  return within(db, workspaceId).all(senses, { id, name, key, colour }, undefined, { by: [key] });
}
