/** Marks as a member sees them. */
import { and, eq, sql } from 'drizzle-orm';
import type { Mark } from '@pandecta/contract';
import type { MarkWords } from '@pandecta/core/changes';
import { citedPlace, type CitedPages } from '@pandecta/core/page-numbers';
import type { Actor } from '../access/principal.ts';
import { nameOfActor } from '../access/people.ts';
import type { Db } from '../database/connect.ts';
import { json, number, rows, text, truth } from '../database/read.ts';
import { within } from '../database/within.ts';
import { Refusal } from '../errors.ts';
import { visibleTo } from '../subjects/registry.ts';
import { marks } from './tables.ts';

/** Of the row `m`: the sense it counts as. Its own may have been merged into another. */
export const countedSense = sql`coalesce((select (e.value->>'into')::uuid from entries e
  where e.workspace_id = m.workspace_id and e.list = 'sense' and e.id = m.sense_id), m.sense_id)`;

/** Of marks `m`, with users `u` who made them: all but the number by which the page is cited. */
export const MARK_COLUMNS = {
  id: text(),
  fileId: text(),
  sourceId: text(),
  page: number,
  sense: text(),
  shape: text<Mark['shape']>(),
  quote: json<Mark['quote']>(),
  rects: json<Mark['rects']>(),
  unplaced: truth,
  gloss: text(),
  by: text(),
  fromFile: truth,
  personal: truth,
  at: text(),
};
export const selectMark = sql`m.id, m.file_id as "fileId", m.source_id as "sourceId", m.page, ${countedSense} as sense, m.shape, m.quote, m.rects, m.unplaced,
  m.gloss, coalesce(nullif(m.origin->>'author', ''), ${nameOfActor}) as by, m.origin is not null as "fromFile", m.owner is not null as personal, m.made_at as at`;

/** Those in a document of a source, in the order they stand there. */
export async function marksOf(
  db: Db,
  viewer: Actor,
  source: string,
  file: string,
  numbers: CitedPages,
): Promise<Mark[]> {
  const found = await rows(
    db,
    MARK_COLUMNS,
    sql`select ${selectMark} from marks m left join users u on u.id = m.made_by
      where m.workspace_id = ${viewer.workspaceId} and m.file_id = ${file} and m.source_id = ${source} and ${visibleTo(viewer, 'mark', sql`m`)}
      order by m.page, (m.rects->0->>'y0')::real, m.id`,
  );
  return found.map((mark) => ({ ...mark, cited: citedPlace(numbers, mark.page, mark.rects[0]?.y0) }));
}

/** What can be edited of a mark, from its row in the table. */
export const markWords = ({
  gloss,
  sense,
  shape,
  owner,
  ...place
}: Omit<MarkWords, 'place'> & MarkWords['place']): MarkWords => ({ gloss, sense, shape, owner, place });

/** A mark as a change names it, and what of it can be edited. @throws Refusal where it is not there, or may not be seen */
export async function findMark(
  db: Db,
  viewer: Actor,
  id: string,
): Promise<{ named: { mark: string; source: string; own?: string }; now: MarkWords }> {
  const { gloss, senseId: sense, shape, owner, sourceId: source, fileId: file, page, quote, rects, unplaced } = marks;
  const one = and(eq(marks.id, id), visibleTo(viewer, 'mark', sql`marks`));
  const words = { gloss, sense, shape, owner };
  const found = await within(db, viewer.workspaceId).first(marks, { ...words, source, file, page, quote, rects, unplaced }, one); // prettier-ignore
  if (!found) throw new Refusal('no_such_mark');
  const { source: on, ...of } = found;
  const now = markWords(of);
  return { named: { mark: id, source: on, ...(now.owner && { own: now.owner }) }, now };
}
