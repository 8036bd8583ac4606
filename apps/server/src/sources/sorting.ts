/** Pages that are gone through: what is said of each. */
import { and, eq, sql } from 'drizzle-orm';
import type { Changed, SortedPage, SortPage } from '@pandecta/contract';
import { keptState, NOT_SORTED, type PageState } from '@pandecta/core/changes';
import type { Acting } from '../access/principal.ts';
import { answer } from '../changes/commit.ts';
import { commit } from '../changes/service.ts';
import type { Db } from '../database/connect.ts';
import { rows, text } from '../database/read.ts';
import { array } from '../database/sql.ts';
import { within } from '../database/within.ts';
import { Refusal } from '../errors.ts';
import { findFileOf } from '../files/store.ts';
import { pageStates } from '../files/tables.ts';
import { entryOf } from '../lists/store.ts';
import type { Services } from '../services.ts';
import { ensureTags, tagName } from '../tags/store.ts';

export async function sortedPages(db: Db, workspaceId: string, file: string): Promise<SortedPage[]> {
  const { page, state, fileId } = pageStates;
  const found = await within(db, workspaceId).all(pageStates, { page, state }, eq(fileId, file), { by: [page] });
  const ids = [...new Set(found.flatMap((p) => p.state.tags))];
  const named = await rows(
    db,
    { id: text(), name: text() },
    sql`select id, name from tags where workspace_id = ${workspaceId} and id = any(${array(ids, 'uuid')})`,
  );
  const names = new Map(named.map((t) => [t.id, t.name]));
  return found.map(({ page: number, state: { tags, ...rest } }) => ({
    page: number,
    ...rest,
    tags: tags.flatMap((id) => names.get(id) ?? []),
  }));
}

/** The tags of some pages, each once. */
export async function tagsOfPages(db: Db, workspaceId: string, file: string, pages: number[]): Promise<string[]> {
  const of = (await sortedPages(db, workspaceId, file)).filter((p) => pages.includes(p.page));
  return [...new Set(of.flatMap((p) => p.tags))];
}

/** @throws Refusal where the file has no such page, or there is no such sense */
export async function sortPage(
  services: Services,
  { actor }: Acting,
  source: string,
  file: string,
  { page, used, check, sense, tag }: SortPage,
): Promise<Changed> {
  const { db } = services;
  const { pages } = await findFileOf(db, actor, source, file);
  if (page > pages) throw new Refusal('invalid', `the file has no page ${page}`);
  if (sense && !(await entryOf(db, actor, 'sense', sense))) throw new Refusal('invalid', 'there is no such sense');
  const at = and(eq(pageStates.fileId, file), eq(pageStates.page, page));
  const before =
    (await within(db, actor.workspaceId).first(pageStates, { state: pageStates.state }, at))?.state ?? null;
  const now = before ?? NOT_SORTED;
  const state: PageState = {
    used: used ?? now.used,
    check: check ?? now.check,
    sense: sense === undefined ? now.sense : sense,
    tags: tag === undefined ? now.tags : turnedOver(now.tags, await tagCalled(db, actor.workspaceId, tag)),
  };
  const change = { do: 'page-state' as const, source, file, page, state: { before, after: keptState(state) } };
  return answer(await commit(services, actor, change, { joins: true }));
}

const turnedOver = (tags: string[], id: string): string[] =>
  tags.includes(id) ? tags.filter((t) => t !== id) : [...tags, id];

/** @throws Refusal where it has no letters */
async function tagCalled(db: Db, workspaceId: string, name: string): Promise<string> {
  const id = (await ensureTags(db, workspaceId, [name], false)).get(tagName(name).toLowerCase());
  if (!id) throw new Refusal('invalid', 'a tag needs a name');
  return id;
}
