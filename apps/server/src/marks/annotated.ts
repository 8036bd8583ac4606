/** A PDF with the marks on it as its annotations. */
import { sql } from 'drizzle-orm';
import { TINTS, type MarkOrigin } from '@pandecta/core/annotations';
import type { Colour, Rect, Shape } from '@pandecta/core/marks';
import { nameOfActor } from '../access/people.ts';
import type { Actor } from '../access/principal.ts';
import { json, number, orNull, rows, text } from '../database/read.ts';
import { Refusal } from '../errors.ts';
import type { Services } from '../services.ts';
import { visibleTo } from '../subjects/registry.ts';
import { countedSense } from './store.ts';

/** @throws Refusal where the file is no PDF, or one that cannot be written to */
export async function annotatedPdf(
  { db, storage, workers }: Services,
  viewer: Actor,
  { source, file }: { source: string; file: { id: string; sha256: string; mediaType: string; state: string } },
  withPersonal: boolean,
): Promise<Uint8Array> {
  if (file.mediaType !== 'application/pdf') throw new Refusal('invalid', 'marks are written into a PDF');
  if (file.state === 'encrypted' || file.state === 'damaged')
    throw new Refusal('invalid', 'a PDF that is locked or damaged cannot be written to');
  const found = await rows(
    db,
    {
      id: text(),
      page: number,
      shape: text<Shape>(),
      rects: json<Rect[]>(),
      gloss: text(),
      by: text(),
      at: text(),
      sense: orNull(text()),
      tint: orNull(text<Colour>()),
      origin: orNull(json<MarkOrigin>()),
    },
    sql`select m.id, m.page, m.shape, m.rects, m.gloss, ${nameOfActor} as by, m.made_at as at, e.value->>'name' as sense,
        e.value->>'colour' as tint, m.origin
      from marks m left join users u on u.id = m.made_by
      left join entries e on e.workspace_id = m.workspace_id and e.list = 'sense' and e.id = ${countedSense}
      where m.workspace_id = ${viewer.workspaceId} and m.file_id = ${file.id} and m.source_id = ${source} and ${visibleTo(viewer, 'mark', sql`m`)}
        ${withPersonal ? sql`` : sql`and m.owner is null`}
      order by m.page, m.id`,
  );
  // Those that were read in stand in the file already, also where they are marks no more.
  const known = await rows(
    db,
    { name: text() },
    sql`select origin->>'name' as name from marks where workspace_id = ${viewer.workspaceId} and source_id = ${source} and origin is not null`,
  );
  const marks = found.map(({ id, sense, tint, origin, gloss, ...mark }) => ({
    ...mark,
    name: origin?.name ?? id,
    note: gloss,
    author: origin?.author || mark.by,
    subject: sense ?? '',
    colour: origin?.colour ?? TINTS[tint ?? 'straw'],
    at: new Date(mark.at).toISOString(),
  }));
  return workers.run('annotated', { path: storage.path(file.sha256), marks, known: known.map((k) => k.name) });
}
