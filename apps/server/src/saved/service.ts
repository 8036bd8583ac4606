/** Keeping searches: what they ask, where they lie, who sees them, how many sources they find. */
import { v7 as uuidv7 } from 'uuid';
import type {
  Changed,
  EditSavedSearch,
  ManySearches,
  NewSavedSearch,
  SavedCounts,
  SavedList,
} from '@pandecta/contract';
import type { EntryChange } from '@pandecta/core/changes';
import { Refusal } from '../errors.ts';
import type { Acting } from '../access/principal.ts';
import { entriesOf, entryOf } from '../lists/store.ts';
import { writeEntries, writeEntry } from '../lists/write.ts';
import { said } from '../searching/asked.ts';
import { count } from '../searching/store.ts';
import { understand } from '../searching/match.ts';
import type { Services } from '../services.ts';
import { refuseLocked } from './folders.ts';
import { watchesOf, type FolderValue, type SavedValue } from './store.ts';
import { countUnseen } from './watching.ts';

/** How many are counted at the same time: more would stand before whoever types, in the thread that holds the columns. */
const AT_ONCE = 2;

export async function savedList({ db }: Services, { actor }: Acting): Promise<SavedList> {
  const [searches, folders, watched] = await Promise.all([
    entriesOf<SavedValue>(db, actor, 'saved'),
    entriesOf<FolderValue>(db, actor, 'folder'),
    watchesOf(db, actor),
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
      watch: watched.get(id) ?? null,
    })),
    folders: folders.map(({ id, value: { name, parent, owner, locked } }) => ({
      id,
      name,
      parent: seen(parent),
      shared: !owner,
      locked: Boolean(locked),
    })),
  };
}

/** The counts of a member that are being taken, and those to be taken after them. */
const taking = new Map<string, { now: Promise<SavedCounts>; next?: Promise<SavedCounts> }>();

/**
 * Whoever asks while they are taken waits for the next, which all who ask meanwhile share: pages that are loaded anew, and
 * many saves one after another, come to two counts and not to one each.
 */
export function savedCounts(services: Services, caller: Acting): Promise<SavedCounts> {
  const key = `${caller.actor.workspaceId} ${caller.actor.userId}`;
  const going = taking.get(key);
  if (going) return (going.next ??= going.now.catch(() => {}).then(() => savedCounts(services, caller)));
  const now = takeCounts(services, caller).finally(() => taking.delete(key));
  taking.set(key, { now });
  return now;
}

async function takeCounts(services: Services, caller: Acting): Promise<SavedCounts> {
  const { db, columns } = services;
  const searches = await entriesOf<SavedValue>(db, caller.actor, 'saved');
  const watched = await watchesOf(db, caller.actor);
  const counts: SavedCounts['counts'] = [];
  for (let i = 0; i < searches.length; i += AT_ONCE) {
    // Who types goes first.
    await columns.quiet();
    const some = searches.slice(i, i + AT_ONCE).map(async ({ id, value }) => {
      // One whose question cannot be asked any more has no count, and takes none from the others.
      const q = await understand(db, caller, value.ask).catch((error: unknown) => {
        if (error instanceof Refusal) return undefined;
        throw error;
      });
      if (!q) return undefined;
      const [all, fresh] = await Promise.all([
        count(services, q, 'later'),
        watched.has(id) && countUnseen(services, q, id),
      ]);
      return { id, count: all, ...(fresh !== false && { fresh }) };
    });
    counts.push(...(await Promise.all(some)).filter((c) => c !== undefined));
  }
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
  await refuseLocked(services, caller, [value]);
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
  await refuseLocked(services, caller, [before, after]);
  return writeEntry(services, caller, 'saved', id, before, after);
}

export async function removeSearch(services: Services, caller: Acting, id: string): Promise<Changed> {
  const before = await findEntry<SavedValue>(services, caller, 'saved', id);
  await refuseLocked(services, caller, [before]);
  return writeEntry(services, caller, 'saved', id, before, null);
}

/**
 * Many at once, as one change: moved into a folder, copied there each by itself, or removed.
 * @throws Refusal where one of them is not there, or may not be altered
 */
export async function altogether(services: Services, caller: Acting, input: ManySearches): Promise<Changed> {
  const { ids, to, folder = null } = input;
  if (folder) await findEntry<FolderValue>(services, caller, 'folder', folder);
  const changes: EntryChange[] = [];
  for (const id of new Set(ids)) {
    const before = await findEntry<SavedValue>(services, caller, 'saved', id);
    const mine = { owner: caller.actor.userId, madeBy: caller.user.name, madeAt: new Date().toISOString() };
    const copy = (): SavedValue => ({ ...before, ...mine, folder, name: `${before.name} (copy)` });
    const write = (entry: string, value: EntryChange['value']): void =>
      void changes.push({ do: 'entry', list: 'saved', entry, value });
    if (to === 'copy') write(uuidv7(), { before: null, after: copy() });
    else write(id, { before, after: to === 'move' ? { ...before, folder } : null });
    const { value } = changes.at(-1)!;
    await refuseLocked(services, caller, [value.before, value.after]);
  }
  const many = changes.length === 1 ? 'one saved search' : `${changes.length} saved searches`;
  const says = { move: `Moved ${many}`, copy: `Copied ${many}`, remove: `Removed ${many}` }[to];
  return writeEntries(services, caller, says, changes);
}

export async function findEntry<V extends SavedValue | FolderValue>(
  { db }: Services,
  { actor }: Acting,
  list: 'saved' | 'folder',
  id: string,
): Promise<V> {
  const found = await entryOf<V>(db, actor, list, id);
  if (!found) throw new Refusal('not_saved');
  return found;
}

export function named(name: string): string {
  const trimmed = name.trim();
  if (!trimmed) throw new Refusal('invalid', 'it needs a name');
  return trimmed;
}

const words = (keywords: string[]): string[] => [...new Set(keywords.map((k) => k.trim()).filter(Boolean))];
