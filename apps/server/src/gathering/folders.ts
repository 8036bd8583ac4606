/** Folders that were dropped become collections: those that are there under the same name are used, others are made. */
import { v7 as uuidv7 } from 'uuid';
import { sql } from 'drizzle-orm';
import type { Change } from '@pandecta/core/changes';
import { cut } from '@pandecta/core/text';
import type { Db } from '../database/connect.ts';
import { orNull, rows, text } from '../database/read.ts';

export interface FolderPlaces {
  changes: Change[];
  /** The collection of each folder, by its path. */
  of: Map<string, { id: string; name: string }>;
}

/**
 * @param folders paths such as "Box 4/letters"
 * @param under the collection they go below; null for the top
 */
export async function foldersAsCollections(
  tx: Db,
  workspaceId: string,
  folders: string[],
  under: string | null,
): Promise<FolderPlaces> {
  const out: FolderPlaces = { changes: [], of: new Map() };
  if (!folders.length) return out;
  const placed = await rows(
    tx,
    { id: text(), name: text(), parent: orNull(text()) },
    sql`select c.id, c.name, p.parent_id as parent from placements p
      join collections c on c.workspace_id = p.workspace_id and c.id = p.collection_id and c.present and c.owner is null
      where p.workspace_id = ${workspaceId} and p.present`,
  );
  const known = new Map(placed.map((p) => [`${p.parent ?? ''} ${p.name.toLowerCase()}`, { id: p.id, name: p.name }]));
  for (const folder of [...new Set(folders)].sort()) {
    let parent = under;
    let path = '';
    for (const part of folder.split('/')) {
      path = path ? `${path}/${part}` : part;
      const name = cut(part.trim(), 200) || 'Unnamed';
      const key = `${parent ?? ''} ${name.toLowerCase()}`;
      let collection = known.get(key);
      if (!collection) {
        collection = { id: uuidv7(), name };
        known.set(key, collection);
        out.changes.push(
          { do: 'collection', collection: collection.id, name, present: true },
          { do: 'placement', placement: uuidv7(), collection: collection.id, name, parent, present: true },
        );
      }
      out.of.set(path, collection);
      parent = collection.id;
    }
  }
  return out;
}
