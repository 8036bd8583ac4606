/** A document with its marks; making, changing and removing marks. */
import { sql } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import { routes, type Mark } from '@pandecta/contract';
import type { Sense } from '@pandecta/core/marks';
import { answer, commitWithin } from '../changes/commit.ts';
import { commit } from '../changes/service.ts';
import { one, rows, transact, type Db } from '../database/connect.ts';
import { Refusal } from '../errors.ts';
import { findFile } from '../files/routes.ts';
import type { Declare } from '../http/route.ts';
import type { Services } from '../services.ts';

export function markRoutes(declare: Declare, services: Services): void {
  const { db, indexer } = services;
  declare(routes.marks.document, async ({ workspace, params }) => {
    const file = await findFile(db, workspace.id, params.file);
    await attached(db, workspace.id, params.source, file.id);
    return {
      fileId: file.id,
      sourceId: params.source,
      name: file.name,
      state: file.state,
      pages: file.pages,
      marks: await marksOf(db, workspace.id, params.source, file.id),
      senses: await sensesOf(db, workspace.id),
    };
  });
  declare(routes.marks.make, async ({ workspace, actor, params, body }) => {
    await attached(db, workspace.id, params.source, params.file);
    await sense(db, workspace.id, body.sense);
    const id = uuidv7();
    const committed = await transact(db, async (tx) => {
      await tx.execute(sql`insert into marks (workspace_id, id, source_id, file_id, page, sense_id, quote, rects, gloss, present, made_by)
          values (${workspace.id}, ${id}, ${params.source}, ${params.file}, ${body.page}, ${body.sense}, ${JSON.stringify(body.quote)}::jsonb, ${JSON.stringify(body.rects)}::jsonb, ${body.gloss ?? ''}, false, ${actor.userId})`);
      return commitWithin(tx, actor, { do: 'mark', mark: id, source: params.source, present: true });
    });
    indexer.kick();
    return { ...answer(committed), id };
  });
  declare(routes.marks.edit, async ({ workspace, actor, params, body }) => {
    const mark = await findMark(db, workspace.id, params.mark);
    if (body.sense) await sense(db, workspace.id, body.sense);
    const fields = {
      ...(body.gloss !== undefined && body.gloss !== mark.gloss
        ? { gloss: { before: body.seen?.gloss ?? mark.gloss, after: body.gloss } }
        : {}),
      ...(body.sense !== undefined && body.sense !== mark.sense_id
        ? { sense: { before: body.seen?.sense ?? mark.sense_id, after: body.sense } }
        : {}),
    };
    return answer(
      await commit(services, actor, { do: 'mark-edit', mark: params.mark, source: mark.source_id, fields }),
    );
  });
  declare(routes.marks.remove, async ({ workspace, actor, params }) => {
    const mark = await findMark(db, workspace.id, params.mark);
    return answer(
      await commit(services, actor, { do: 'mark', mark: params.mark, source: mark.source_id, present: false }),
    );
  });
}

async function attached(db: Db, workspaceId: string, source: string, file: string): Promise<void> {
  if (
    !(await one(
      db,
      sql`select 1 from source_files where workspace_id = ${workspaceId} and source_id = ${source} and file_id = ${file}`,
    ))
  )
    throw new Refusal('no_such_file');
}

async function sense(db: Db, workspaceId: string, id: string): Promise<void> {
  if (!(await one(db, sql`select 1 from senses where workspace_id = ${workspaceId} and id = ${id}`)))
    throw new Refusal('invalid', 'there is no such sense');
}

async function findMark(
  db: Db,
  workspaceId: string,
  id: string,
): Promise<{ gloss: string; sense_id: string; source_id: string }> {
  const found = await one<{ gloss: string; sense_id: string; source_id: string }>(
    db,
    sql`select gloss, sense_id, source_id from marks where workspace_id = ${workspaceId} and id = ${id} and present`,
  );
  if (!found) throw new Refusal('no_such_mark');
  return found;
}

async function marksOf(db: Db, workspaceId: string, source: string, file: string): Promise<Mark[]> {
  return rows<Mark>(
    db,
    sql`select m.id, m.file_id as "fileId", m.source_id as "sourceId", m.page, m.sense_id as sense, m.quote, m.rects, m.gloss, u.name as by, m.made_at as at
    from marks m join users u on u.id = m.made_by where m.workspace_id = ${workspaceId} and m.file_id = ${file} and m.source_id = ${source} and m.present order by m.page, (m.rects->0->>'y0')::real`,
  );
}

async function sensesOf(db: Db, workspaceId: string): Promise<Sense[]> {
  return rows<Sense>(
    db,
    sql`select id, name, key, colour from senses where workspace_id = ${workspaceId} order by key`,
  );
}
