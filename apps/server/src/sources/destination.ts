/** Where what comes in goes: the destination as it stands in the database, and the changes that bring sources there. */
import type { Destination } from '@pandecta/contract';
import type { Change, ReadingState } from '@pandecta/core/changes';
import type { Db } from '../database/connect.ts';
import { Refusal } from '../errors.ts';
import type { Actor } from '../access/principal.ts';
import { findCollection } from '../places/store.ts';
import { ensureTags, tagName } from '../tags/store.ts';
import { filed, type Named } from '../places/placed.ts';

export interface Places {
  collections: Named[];
  tags: { id: string; name: string }[];
  reading: ReadingState | null;
}

/**
 * @param gone what becomes of a collection that is there no more: it may have been removed since it was chosen
 * @throws Refusal where one is to be refused
 */
export async function findDestination(
  tx: Db,
  actor: Actor,
  chosen: Destination | null | undefined,
  gone: 'refused' | 'left out',
): Promise<Places> {
  const collections: Places['collections'] = [];
  // One after another: within a transaction there is one connection.
  for (const id of chosen?.collections ?? [])
    try {
      collections.push(await findCollection(tx, actor, id));
    } catch (error) {
      if (gone === 'refused' || !(error instanceof Refusal)) throw error;
    }
  const made = await ensureTags(tx, actor.workspaceId, chosen?.tags ?? [], false);
  const tags = (chosen?.tags ?? []).flatMap((name) => {
    const id = made.get(tagName(name).toLowerCase());
    return id ? [{ id, name }] : [];
  });
  return { collections, tags, reading: chosen?.reading ?? null };
}

/** Files sources in the collections, and puts the tags on them. */
export const broughtTo = ({ collections, tags }: Places, sources: string[]): Change[] => [
  ...collections.map((c) => filed(c, sources, true)),
  ...tags.map(({ id, name }): Change => ({ do: 'tag', tag: id, name, subject: false, sources, present: true })),
];
