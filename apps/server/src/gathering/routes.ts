/** Gathering: files come in, a job reads them, a report says what became of them. */
import { eq, sql } from 'drizzle-orm';
import { v7 as uuidv7 } from 'uuid';
import { routes, ImportReport, type Started, type JobInfo } from '@pandecta/contract';
import type { Db } from '../database/connect.ts';
import { json, orNull, rows, text, truth } from '../database/read.ts';
import { within } from '../database/within.ts';
import { cut } from '@pandecta/core/text';
import { Refusal } from '../errors.ts';
import type { Actor } from '../http/authorise.ts';
import type { Declare } from '../http/route.ts';
import { findCollection } from '../places/store.ts';
import type { Services } from '../services.ts';
import type { StoredReport } from './import.ts';
import type { Input } from './prepare.ts';
import { importMessages, imports } from './tables.ts';

export const MOST_BYTES = 500 * 1024 ** 2;

export function gatherRoutes(declare: Declare, services: Services): void {
  const { db, storage } = services;
  declare(routes.gather.import, async ({ workspace, actor, request }) => {
    const inputs: Input[] = [];
    let collection: string | null = null;
    for await (const part of request.parts()) {
      if (part.type === 'file') {
        const stored = await storage.put(part.file);
        if (part.file.truncated) throw new Refusal('file_too_large', '500 MB');
        inputs.push({ name: cleanName(part.filename), ...stored });
      } else if (part.fieldname === 'collection' && part.value)
        collection = (await findCollection(db, workspace.id, String(part.value))).id;
    }
    if (!inputs.length) throw new Refusal('no_files');
    return startImport(services, actor, inputs, collection);
  });
  declare(routes.gather.imports, async ({ workspace }) => ({
    imports: await findImports(db, workspace.id, sql`true`, 0),
  }));
  declare(routes.gather.report, async ({ workspace, params }) => {
    const [found] = await findImports(db, workspace.id, sql`i.id = ${params.import}`, 1000);
    if (!found) throw new Refusal('no_such_import');
    return found;
  });
}

const cleanName = (name: string): string =>
  cut((name.split(/[\\/]/).at(-1) ?? '').replace(/[\u0000-\u001f]/g, ''), 255) || 'unnamed';

export async function startImport(
  { jobs }: Services,
  actor: Actor,
  inputs: Input[],
  collection: string | null,
): Promise<Started> {
  const importId = uuidv7();
  const title = inputs.length === 1 ? inputs[0]!.name : `${inputs[0]!.name} and ${inputs.length - 1} more`;
  const jobId = await jobs.queue(actor.workspaceId, actor.userId, 'import', title, async (tx, job) => {
    const row = { id: importId, jobId: job, title, collectionId: collection, inputs, madeBy: actor.userId };
    await within(tx, actor.workspaceId).insert(imports, row);
  });
  return { jobId, importId };
}

async function findImports(
  db: Db,
  workspaceId: string,
  where: ReturnType<typeof sql>,
  messages: number,
): Promise<ImportReport[]> {
  const found = await rows(
    db,
    {
      id: text(),
      title: text(),
      at: text(),
      by: text(),
      job: json<JobInfo>(),
      report: orNull(json<StoredReport>()),
      changeId: orNull(text()),
      undoable: truth,
      destination: orNull(text()),
    },
    sql`
    select i.id, i.title, i.made_at as at, u.name as by, i.report, i.change_id as "changeId", c.name as destination,
      coalesce(ch.undone_by is null and ch.id is not null, false) as undoable,
      jsonb_build_object('id', j.id, 'kind', j.kind, 'title', j.title, 'state', j.state, 'done', j.done, 'total', j.total, 'says', j.says, 'createdAt', j.made_at, 'importId', i.id) as job
    from imports i join jobs j on j.workspace_id = i.workspace_id and j.id = i.job_id join users u on u.id = i.made_by
    left join collections c on c.workspace_id = i.workspace_id and c.id = i.collection_id
    left join changes ch on ch.workspace_id = i.workspace_id and ch.id = i.change_id
    where i.workspace_id = ${workspaceId} and ${where} order by i.id desc limit 30`,
  );
  const empty: StoredReport = { added: 0, known: 0, attached: 0, withMessages: 0, messagesInAll: 0, files: [] };
  return Promise.all(
    found.map(async ({ report, ...rest }) => ({
      ...rest,
      ...(report ?? empty),
      messages: messages
        ? (
            await within(db, workspaceId).all(
              importMessages,
              { message: importMessages.message },
              eq(importMessages.importId, rest.id),
              { by: [importMessages.ordinal], most: messages },
            )
          ).map((m) => m.message)
        : [],
    })),
  );
}
