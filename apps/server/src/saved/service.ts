/** Keeping searches: what they ask, where they lie, who sees them, how many sources they find. */
import { v7 as uuidv7 } from 'uuid';
import type {
  Changed,
  EditFolder,
  EditSavedSearch,
  NewFolder,
  NewSavedSearch,
  SavedCounts,
  SavedList,
} from '@pandecta/contract';
import { Refusal } from '../errors.ts';
import type { Acting } from '../http/authorise.ts';
import { entriesOf, entryOf } from '../lists/store.ts';
import { writeEntry } from '../lists/write.ts';
import { said } from '../searching/asked.ts';
import { count } from '../searching/store.ts';
import { understand } from '../searching/match.ts';
import type { Services } from '../services.ts';
import type { FolderValue, SavedValue } from './store.ts';

/** How many are counted at the same time: the thread that holds the columns answers one after another. */
const AT_ONCE = 8;

export async function savedList({ db }: Services, { actor }: Acting): Promise<SavedList> {
  const [searches, folders] = await Promise.all([
    entriesOf<SavedValue>(db, actor, 'saved'),
    entriesOf<FolderValue>(db, actor, 'folder'),
  ]);
  const known = new Set(folders.map((f) => f.id));
  // What lies in a folder one does not see lies at the top.
  const seen = (id: string | null): string | null => (id && known.has(id) ? id : null);
  return {
    searches: searches.map(({ id, value: { owner, folder, ...value } }) => ({
      ...value,
      id,
      folder: seen(folder),
      shared: !owner,
    })),
    folders: folders.map(({ id, value: { name, parent, owner } }) => ({
      id,
      name,
      parent: seen(parent),
      shared: !owner,
    })),
  };
}

export async function savedCounts(services: Services, caller: Acting): Promise<SavedCounts> {
  const searches = await entriesOf<SavedValue>(services.db, caller.actor, 'saved');
  const counts: SavedCounts['counts'] = [];
  for (let i = 0; i < searches.length; i += AT_ONCE)
    counts.push(
      ...(await Promise.all(
        searches.slice(i, i + AT_ONCE).map(async ({ id, value }) => ({
          id,
          count: await count(services, await understand(services.db, caller, value.ask)),
        })),
      )),
    );
  return { counts };
}

export async function keepSearch(services: Services, caller: Acting, input: NewSavedSearch): Promise<Changed> {
  const { name, ask, describes = '', keywords = [], folder = null, shared = false } = input;
  await understand(services.db, caller, ask);
  if (folder) await findEntry<FolderValue>(services, caller, 'folder', folder);
  const value: SavedValue = {
    name: named(name),
    owner: shared ? null : caller.actor.userId,
    describes: describes.trim(),
    keywords: words(keywords),
    ask: said(ask),
    folder,
    madeBy: caller.user.name,
    madeAt: new Date().toISOString(),
  };
  return writeEntry(services, caller, 'saved', uuidv7(), null, value);
}

export async function editSearch(
  services: Services,
  caller: Acting,
  id: string,
  { name, ask, describes, keywords, folder, shared }: EditSavedSearch,
): Promise<Changed> {
  const before = await findEntry<SavedValue>(services, caller, 'saved', id);
  if (ask) await understand(services.db, caller, ask);
  if (folder) await findEntry<FolderValue>(services, caller, 'folder', folder);
  const after: SavedValue = {
    ...before,
    ...(name !== undefined && { name: named(name) }),
    ...(ask && { ask: said(ask) }),
    ...(describes !== undefined && { describes: describes.trim() }),
    ...(keywords && { keywords: words(keywords) }),
    ...(folder !== undefined && { folder }),
    ...(shared !== undefined && { owner: shared ? null : (before.owner ?? caller.actor.userId) }),
  };
  return writeEntry(services, caller, 'saved', id, before, after);
}

export async function removeSearch(services: Services, caller: Acting, id: string): Promise<Changed> {
  return writeEntry(services, caller, 'saved', id, await findEntry(services, caller, 'saved', id), null);
}

export async function makeFolder(services: Services, caller: Acting, input: NewFolder): Promise<Changed> {
  const { name, parent = null, shared = false } = input;
  if (parent) await findEntry<FolderValue>(services, caller, 'folder', parent);
  const value: FolderValue = { name: named(name), owner: shared ? null : caller.actor.userId, parent };
  return writeEntry(services, caller, 'folder', uuidv7(), null, value);
}

export async function editFolder(services: Services, caller: Acting, id: string, input: EditFolder): Promise<Changed> {
  const { name, parent, shared } = input;
  const before = await findEntry<FolderValue>(services, caller, 'folder', id);
  if (parent) await refuseCircle(services, caller, id, parent);
  const after: FolderValue = {
    ...before,
    ...(name !== undefined && { name: named(name) }),
    ...(parent !== undefined && { parent }),
    ...(shared !== undefined && { owner: shared ? null : (before.owner ?? caller.actor.userId) }),
  };
  return writeEntry(services, caller, 'folder', id, before, after);
}

/** What lies in it is then shown at the top: it is moved nowhere, so that undone the folder holds it again. */
export async function removeFolder(services: Services, caller: Acting, id: string): Promise<Changed> {
  return writeEntry(services, caller, 'folder', id, await findEntry(services, caller, 'folder', id), null);
}

async function refuseCircle(services: Services, caller: Acting, id: string, into: string): Promise<void> {
  for (let at: string | null = into; at;) {
    if (at === id) throw new Refusal('circular');
    at = (await findEntry<FolderValue>(services, caller, 'folder', at)).parent;
  }
}

async function findEntry<V extends SavedValue | FolderValue>(
  { db }: Services,
  { actor }: Acting,
  list: 'saved' | 'folder',
  id: string,
): Promise<V> {
  const found = await entryOf<V>(db, actor, list, id);
  if (!found) throw new Refusal('not_saved');
  return found;
}

function named(name: string): string {
  const trimmed = name.trim();
  if (!trimmed) throw new Refusal('invalid', 'it needs a name');
  return trimmed;
}

const words = (keywords: string[]): string[] => [...new Set(keywords.map((k) => k.trim()).filter(Boolean))];
