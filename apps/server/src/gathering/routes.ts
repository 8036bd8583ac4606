/** Gathering: files come in, a job reads them, a report says what became of them. */
import { eq, sql } from 'drizzle-orm';
import { Destination, ImportReport, routes, THROUGH, type JobInfo, type Through, type Way } from '@pandecta/contract';
import type { FastifyRequest } from 'fastify';
import { checkColumns, type Columns } from '@pandecta/core/formats';
import { formatNumber } from '@pandecta/core/wording';
import type { Db } from '../database/connect.ts';
import { json, orNull, rows, text, truth } from '../database/read.ts';
import { within } from '../database/within.ts';
import { cut } from '@pandecta/core/text';
import type { Storage } from '../storage/storage.ts';
import { Refusal } from '../errors.ts';
import { check } from '../http/check.ts';
import { may } from '../access/permissions.ts';
import { nameOfActor } from '../access/people.ts';
import type { Acting } from '../access/principal.ts';
import { arriving } from '../http/parts.ts';
import type { Declare } from '../http/route.ts';
import { pathsOf } from '../places/store.ts';
import type { Services } from '../services.ts';
import { bringClip } from './clip.ts';
import type { FileInput, Input } from './inputs.ts';
import { listKeys, makeKey, revokeKey } from '../access/keys.ts';
import { importJob } from './jobs.ts';
import { nameOf } from './names.ts';
import type { StoredReport } from './report.ts';
import { gatherSettingsOf, setGatherSettings } from './settings.ts';
import { startImport, type Setting } from './start.ts';
import { importMessages } from './tables.ts';
import { findUploads, keepUploads, spendUploads } from './uploads.ts';

export function gatherRoutes(declare: Declare, services: Services): void {
  const { db, storage } = services;
  declare(routes.gather.import, async ({ actor, request }) => {
    const set: Setting = {};
    const inputs = await filesOf(request, storage, async (field, value) => {
      if (field === 'destination') set.destination = await readDestination(value);
      else if (field === 'through') set.through = readThrough(value);
    });
    return startImport(services, actor, inputs, set);
  });
  declare(routes.gather.upload, async ({ actor, request }) => ({
    uploads: await keepUploads(db, actor, await filesOf(request, storage)),
  }));
  declare(routes.gather.begin, async ({ actor, body: { uploads: ids, ...set } }) => {
    if (!ids.length) throw new Refusal('no_files');
    const inputs = await findUploads(db, actor, ids);
    return startImport(services, actor, inputs, { ...set, also: (tx) => spendUploads(tx, actor, ids) });
  });
  declare(routes.gather.typed, async ({ actor, body }) => {
    const parts = await services.workers.run('takeApart', body.text);
    const inputs = parts.map((part): Input => ({
      name: cut(part.text.replace(/\s+/g, ' ').trim(), 120),
      part,
    }));
    if (!inputs.length) throw new Refusal('invalid', 'there is nothing in it to bring in');
    const title = inputs.length === 1 ? inputs[0]!.name : `Pasted: ${formatNumber(inputs.length)} parts`;
    return startImport(services, actor, inputs, { ...body, way: 'typed', title });
  });
  declare(routes.gather.clip, ({ actor, body }) => bringClip(services, actor, body));
  declare(routes.gather.keys, ({ actor }) => listKeys(db, actor));
  declare(routes.gather.makeKey, ({ actor, body }) => makeKey(db, actor, body.name));
  declare(routes.gather.revokeKey, ({ actor, params }) => revokeKey(db, actor, params.key));
  declare(routes.gather.holder, ({ user, workspace }) => ({ name: user.name, workspace: workspace.name }));
  declare(routes.gather.settings, ({ workspace }) => gatherSettingsOf(db, workspace.id));
  declare(routes.gather.set, ({ workspace, body }) => setGatherSettings(db, workspace.id, body));
  declare(routes.gather.imports, async (call) => ({
    imports: await findImports(db, call, sql`true`, 0),
  }));
  declare(routes.gather.report, async (call) => {
    const [found] = await findImports(db, call, sql`i.id = ${call.params.import}`, 1000);
    if (!found) throw new Refusal('no_such_import');
    return found;
  });
}

/** The files of a form, each with the columns that were said before it. @throws Refusal where there are none */
async function filesOf(
  request: FastifyRequest,
  storage: Storage,
  also: (field: string, value: string) => Promise<void> = async () => {},
): Promise<FileInput[]> {
  const inputs: FileInput[] = [];
  let columns: Columns | undefined;
  for await (const part of arriving(request, storage)) {
    if ('file' in part) {
      inputs.push({ ...nameOf(part.path), ...part.file, ...(columns && { columns }) });
      columns = undefined;
    } else if (part.field === 'columns') columns = readColumns(part.value);
    else await also(part.field, part.value);
  }
  if (!inputs.length) throw new Refusal('no_files');
  return inputs;
}

/** @throws Refusal with what is wrong with it */
function readDestination(text: string): Promise<Destination> {
  try {
    return check(Destination, JSON.parse(text));
  } catch {
    throw new Refusal('invalid', 'the destination is not JSON');
  }
}

/** Of the table that follows: a field for each heading. @throws Refusal with what is wrong with it */
function readColumns(text: string): Columns {
  try {
    return checkColumns(JSON.parse(text));
  } catch (error) {
    throw new Refusal('invalid', `the columns: ${(error as Error).message}`);
  }
}

function readThrough(text: string): Through {
  if (!(THROUGH as readonly string[]).includes(text)) throw new Refusal('invalid', '“through” is intake or straight');
  return text as Through;
}

/** Who may not gather is shown the gatherings that added something, and of each no more than what was added. */
async function findImports(
  db: Db,
  { actor, workspace: { role } }: Acting,
  where: ReturnType<typeof sql>,
  messages: number,
): Promise<ImportReport[]> {
  const { workspaceId } = actor;
  const seesIntake = may(role, 'gather');
  const found = await rows(
    db,
    {
      id: text(),
      title: text(),
      at: text(),
      by: text(),
      job: json<Omit<JobInfo, 'rests'>>(),
      report: orNull(json<StoredReport>()),
      changeId: orNull(text()),
      undoable: truth,
      destination: orNull(json<Destination>()),
      way: text<Way>(),
    },
    sql`
    select i.id, i.title, i.made_at as at, ${nameOfActor} as by, i.report, i.change_id as "changeId", i.destination, i.way,
      coalesce(ch.undone_by is null and ch.id is not null, false) as undoable,
      jsonb_build_object('id', j.id, 'kind', j.kind, 'title', j.title, 'state', j.state, 'done', j.done, 'total', j.total, 'says', j.says, 'createdAt', j.made_at, 'importId', i.id) as job
    from imports i join jobs j on j.workspace_id = i.workspace_id and j.id = i.job_id left join users u on u.id = i.made_by
    left join changes ch on ch.workspace_id = i.workspace_id and ch.id = i.change_id
    where i.workspace_id = ${workspaceId} and ${where} and (${seesIntake} or (i.report->>'added')::int > 0) order by i.id desc limit 30`,
  );
  const chosen = found.flatMap((f) => f.destination?.collections ?? []);
  const paths = await pathsOf(db, actor, [...new Set(chosen)]);
  const empty: Required<StoredReport> = {
    added: 0,
    waiting: 0,
    known: 0,
    attached: 0,
    withMessages: 0,
    messagesInAll: 0,
    files: [],
    fresh: [],
  };
  return Promise.all(
    found.map(async ({ report, destination, job, ...rest }) => ({
      ...rest,
      job: { ...job, rests: importJob.rests ?? false },
      ...empty,
      ...report,
      ...(seesIntake ? {} : { files: report?.files.filter((f) => f.added) ?? [] }),
      destination: destinationInWords(destination, paths),
      note: destination?.note ?? null,
      messages:
        messages && seesIntake
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

/** "Licensing › Chapter 2, #to check, to read"; null where nothing was chosen. */
function destinationInWords(destination: Destination | null, paths: Map<string, string[]>): string | null {
  const { collections = [], tags = [], reading } = destination ?? {};
  const words = [...collections.flatMap((c) => paths.get(c)?.[0] ?? []), ...tags, ...(reading ? [reading] : [])];
  return words.join(', ') || null;
}
