/** What a person does with the files of a source: adds, renames, replaces, takes away, says which is opened first. */
import { createHash } from 'node:crypto';
import { and, eq } from 'drizzle-orm';
import type { Changed, EditFile, LinkFile } from '@pandecta/contract';
import { describe, isEmpty, type Change, type FileEditChange } from '@pandecta/core/changes';
import { isPdf, pictureType } from '@pandecta/core/formats';
import { counted } from '@pandecta/core/wording';
import { answer } from '../changes/commit.ts';
import { commit } from '../changes/service.ts';
import type { Db } from '../database/connect.ts';
import { within } from '../database/within.ts';
import { Refusal } from '../errors.ts';
import type { Acting, Actor } from '../access/principal.ts';
import { keepReadable } from './keep-page.ts';
import { MARKS_ON } from './marks-on.ts';
import { addFileJob } from './jobs.ts';
import type { Services } from '../services.ts';
import { sources } from '../records/tables.ts';
import { workspaceOf } from '../records/workspace.ts';
import { ensureFile, finish } from './read-pdf.ts';
import { startOf } from '../storage/storage.ts';
import { files, sourceFiles } from './tables.ts';

/** A file that came for a source, and the one it is to replace. */
export interface Came {
  source: string;
  sha256: string;
  bytes: number;
  name: string;
  instead: string | null;
}

/** Texts one reads and marks: documents of word processors, pages, plain text. */
const READABLE = /\.(?:docx|odt|html?|xhtml|txt|text|md|markdown)$/i;

/** A PDF is read first, which a job does; anything else is kept as it is. */
export async function addFile(services: Services, { actor }: Acting, came: Came): Promise<Changed> {
  const { db, storage, jobs: queue } = services;
  await mainOf(db, actor, came.source);
  if (came.instead) await fileOf(db, actor, came.source, came.instead);
  const start = await startOf(storage.path(came.sha256));
  if (isPdf(start)) {
    const title = `Reading ${came.name}`;
    const jobId = await queue.queue(addFileJob, actor, title, came);
    return { changeId: null, says: `${title}; it is added when it has been read`, jobId };
  }
  const mediaType = pictureType(start) ?? 'application/octet-stream';
  const file = await ensureFile(db, actor.workspaceId, { ...came, mediaType });
  await finish(db, actor.workspaceId, file, 'other', 0);
  // Text is read and marked as a page made of it, which stands before it.
  const text = { path: storage.path(came.sha256), name: came.name };
  const readable = READABLE.test(came.name)
    ? await keepReadable(services, await workspaceOf(db, actor.workspaceId), text)
    : undefined;
  const kept: [string, ...string[]] = readable ? [readable, file] : [file];
  return answer(await commit(services, actor, await attached(db, services, actor, came, kept)));
}

/**
 * The change by which a file that is kept comes to its source, with its annotations as marks. What it replaces goes, its marks
 * stand on the new one, and it is opened first where that was.
 * @param kept the file, and others that come beside it
 */
export async function attached(
  db: Db,
  services: Pick<Services, 'workers'>,
  actor: Actor,
  { source, name, instead }: Pick<Came, 'source' | 'name' | 'instead'>,
  kept: [string, ...string[]],
): Promise<Change> {
  const attach = (id: string, called: string, present: boolean): Change => ({
    do: 'attach',
    source,
    file: id,
    name: called,
    present,
  });
  const [file] = kept;
  const changes = kept.map((id) => attach(id, name, true));
  const old = instead ? await fileOf(db, actor, source, instead) : undefined;
  const replaced = old && !kept.includes(old.id) ? old : undefined;
  const along = await MARKS_ON.all.comeWith(db, services, actor, [{ source, files: kept, instead: replaced?.id }]);
  if (!replaced) {
    changes.push(...along);
    return changes.length === 1 ? changes[0]! : { do: 'all', says: describe(changes[0]!), changes };
  }
  changes.push(attach(replaced.id, replaced.name, false), ...along);
  const main = await mainOf(db, actor, source);
  if (main === replaced.id)
    changes.push({ do: 'file-edit', source, file, called: name, fields: { main: { before: main, after: file } } });
  return { do: 'all', says: `Put ${name} in place of ${replaced.name}${inWords(along)}`, changes };
}

/** How many marks stand on the new file, and how many could not be placed there; of none nothing is said. One's own are not told. */
function inWords(along: Change[]): string {
  const placed = along.flatMap((c) =>
    c.do === 'mark-edit' && !c.own && c.fields.place?.after ? [c.fields.place.after] : [],
  );
  if (!placed.length) return '';
  const lost = placed.filter((p) => p.unplaced).length;
  return `; its ${counted(placed.length, 'mark')} came along${lost ? `, ${lost} of them without a place` : ''}`;
}

/** A link stands among the files under its name; its content is the address. */
export async function linkFile(
  services: Services,
  { actor }: Acting,
  source: string,
  input: LinkFile,
): Promise<Changed> {
  const { db } = services;
  await mainOf(db, actor, source);
  const { address } = input;
  const name = input.name?.trim() || address.replace(/^https?:\/\//, '').slice(0, 200);
  // No hash of a content: a file in which the address stands is another thing.
  const sha256 = `link:${createHash('sha256').update(address).digest('hex')}`;
  const file = await ensureFile(db, actor.workspaceId, { sha256, name, bytes: 0, mediaType: 'text/uri-list' });
  await within(db, actor.workspaceId).update(files, { state: 'other', address }, eq(files.id, file));
  return answer(await commit(services, actor, { do: 'attach', source, file, name, present: true }));
}

export async function editFile(
  services: Services,
  { actor }: Acting,
  source: string,
  file: string,
  { name, main }: EditFile,
): Promise<Changed> {
  const { db } = services;
  const found = await fileOf(db, actor, source, file);
  const before = await mainOf(db, actor, source);
  const fields: FileEditChange['fields'] = {
    ...(name?.trim() && name.trim() !== found.name && { name: { before: found.name, after: name.trim() } }),
    ...(main !== undefined && (before === file) !== main && { main: { before, after: main ? file : null } }),
  };
  const change: Change = { do: 'file-edit', source, file, called: found.name, fields };
  if (isEmpty(change)) return { changeId: null, says: 'Nothing changed' };
  return answer(await commit(services, actor, change));
}

export async function removeFile(
  services: Services,
  { actor }: Acting,
  source: string,
  file: string,
): Promise<Changed> {
  const { name } = await fileOf(services.db, actor, source, file);
  return answer(await commit(services, actor, { do: 'attach', source, file, name, present: false }));
}

/** @throws Refusal where there is no such source */
export async function mainOf(db: Db, { workspaceId }: Actor, source: string): Promise<string | null> {
  const one = and(eq(sources.id, source), eq(sources.presence, 'live'));
  const found = await within(db, workspaceId).first(sources, { main: sources.mainFile }, one);
  if (!found) throw new Refusal('no_such_source');
  return found.main;
}

/** @throws Refusal where the source has no such file */
async function fileOf(
  db: Db,
  { workspaceId }: Actor,
  source: string,
  file: string,
): Promise<{ id: string; name: string }> {
  const here = within(db, workspaceId);
  const { sourceId, fileId } = sourceFiles;
  const found = await here.first(files, { id: files.id, name: files.name }, eq(files.id, file));
  if (!found || !(await here.has(sourceFiles, and(eq(sourceId, source), eq(fileId, file)))))
    throw new Refusal('no_such_file');
  return found;
}
