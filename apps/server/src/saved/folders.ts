/** Folders of saved searches: made, moved, locked; what lies in one that is locked is altered by stewards alone. */
import { v7 as uuidv7 } from 'uuid';
import type { Changed, EditFolder, NewFolder, Role } from '@pandecta/contract';
import type { Entry } from '@pandecta/core/changes';
import { may } from '../access/permissions.ts';
import { Refusal } from '../errors.ts';
import type { Acting, Actor } from '../access/principal.ts';
import { entryOf } from '../lists/store.ts';
import { writeEntry } from '../lists/write.ts';
import type { Services } from '../services.ts';
import { findEntry, named } from './service.ts';
import type { FolderValue } from './store.ts';

export async function makeFolder(services: Services, caller: Acting, input: NewFolder): Promise<Changed> {
  const { name, parent = null, shared = false } = input;
  if (parent) await findEntry<FolderValue>(services, caller, 'folder', parent);
  const value: FolderValue = { name: named(name), owner: shared ? null : caller.actor.userId, parent };
  await refuseLocked(services, caller, [value]);
  return writeEntry(services, caller, 'folder', uuidv7(), null, value);
}

export async function editFolder(services: Services, caller: Acting, id: string, input: EditFolder): Promise<Changed> {
  const { name, parent, shared, locked } = input;
  const before = await findEntry<FolderValue>(services, caller, 'folder', id);
  if (parent) await findEntry<FolderValue>(services, caller, 'folder', parent);
  const after: FolderValue = {
    ...before,
    ...(name !== undefined && { name: named(name) }),
    ...(parent !== undefined && { parent }),
    ...(shared !== undefined && { owner: shared ? null : (before.owner ?? caller.actor.userId) }),
    ...(locked !== undefined && { locked }),
  };
  if (after.locked && after.owner) throw new Refusal('invalid', 'what is yours alone needs no lock');
  await refuseLocked(services, caller, [before, after]);
  return writeEntry(services, caller, 'folder', id, before, after);
}

/** What lies in it is then shown at the top: it is moved nowhere, so that undone the folder holds it again. */
export async function removeFolder(services: Services, caller: Acting, id: string): Promise<Changed> {
  const before = await findEntry<FolderValue>(services, caller, 'folder', id);
  await refuseLocked(services, caller, [before]);
  return writeEntry(services, caller, 'folder', id, before, null);
}

/**
 * For what lies, or is to lie, in folders; and for folders themselves.
 * @throws Refusal where one of them or of those above is locked, and the member may not steer
 */
export async function refuseLocked(
  { db }: Pick<Services, 'db'>,
  { actor, workspace }: { actor: Actor; workspace: { role: Role } },
  values: (Entry | null)[],
): Promise<void> {
  if (may(workspace.role, 'steer')) return;
  for (const value of values) {
    let at: Entry | undefined = value ?? undefined;
    for (const met = new Set<string>(); at;) {
      if (at.locked) throw new Refusal('not_allowed');
      const up: string | null = ((at.folder ?? at.parent) as string | null | undefined) ?? null;
      if (!up || met.has(up)) break;
      met.add(up);
      at = await entryOf<FolderValue>(db, actor, 'folder', up);
    }
  }
}
