/** Folders that were dropped become collections: those that are there under the same name are used, others are made. */
import { v7 as uuidv7 } from 'uuid';
import { sql } from 'drizzle-orm';
import type { Change } from '@pandecta/core/changes';
import { cut } from '@pandecta/core/text';
import type { Db } from '../database/connect.ts';
import { orNull, rows, text } from '../database/read.ts';
import { array } from '../database/sql.ts';

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

/** What makes collections of the folders and files in them the sources from each. */
export async function fileByFolder(
  tx: Db,
  workspaceId: string,
  inFolders: { folder: string; source: string }[],
  under: string | null,
): Promise<Change[]> {
  const byFolder = new Map<string, string[]>();
  for (const { folder, source } of inFolders) byFolder.set(folder, [...(byFolder.get(folder) ?? []), source]);
  const { changes, of } = await foldersAsCollections(tx, workspaceId, [...byFolder.keys()], under);
  return [
    ...changes,
    ...[...byFolder].map(([folder, sources]): Change => {
      const { id, name } = of.get(folder)!;
      return { do: 'file', collection: id, name, sources: [...new Set(sources)], present: true };
    }),
  ];
}

/** The same for sources that waited in the intake and are taken in now. */
export async function fileTakenIn(tx: Db, workspaceId: string, ids: string[]): Promise<Change[]> {
  const found = await rows(
    tx,
    { folder: text(), source: text(), under: orNull(text()) },
    sql`select o.folder, o.source_id as source, i.destination->'collections'->>0 as under
      from source_origins o join sources s on s.workspace_id = o.workspace_id and s.id = o.source_id and s.presence = 'intake'
      join imports i on i.workspace_id = o.workspace_id and i.id = s.import_id
      where o.workspace_id = ${workspaceId} and o.source_id = any(${array(ids, 'uuid')}) and o.folder is not null`,
  );
  const changes: Change[] = [];
  for (const under of new Set(found.map((f) => f.under)))
    changes.push(
      ...(await fileByFolder(
        tx,
        workspaceId,
        found.filter((f) => f.under === under),
        under,
      )),
    );
  return changes;
}

/** Whether any of those that wait came in a folder that is to become a collection. */
export async function hasFolders(db: Db, workspaceId: string, ids: string[]): Promise<boolean> {
  const found = await rows(
    db,
    { folder: text() },
    sql`select folder from source_origins where workspace_id = ${workspaceId} and source_id = any(${array(ids, 'uuid')}) and folder is not null limit 1`,
  );
  return found.length > 0;
}
