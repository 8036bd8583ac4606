/** Lists, orders and counts of what matches a question. */
import { sql } from 'drizzle-orm';
import { setsFrom, type Condition } from '@pandecta/core/narrowing';
import type { Db } from '../database/connect.ts';
import { number, rows } from '../database/read.ts';
import { array } from '../database/sql.ts';
import type { Services } from '../services.ts';
import type { NumberSet } from '../columns/load.ts';
import type { Asked } from '../columns/service.ts';
import type { ColumnsAnswer } from '../workers/columns.ts';
import { groupBy } from './groups.ts';
import type { Question } from './match.ts';

export type Asking = Pick<Services, 'db' | 'columns'>;

/** How many candidates are ranked; see docs/decisions/search.md. */
const CANDIDATES = 500;

/** A stretch of the answer: from which place, how many, and which source is to be found in it. */
export interface Stretch {
  from: number;
  count: number;
  find?: string;
}

/** How many match, the ids of a stretch in the order asked for, and the place of the source to be found. */
export async function page(
  to: Asking,
  q: Question,
  stretch: Stretch,
): Promise<{ total: number; ids: string[]; at?: number; groups?: ColumnsAnswer['groups'] }> {
  if (!q.byRelevance) {
    const group = q.group && { group: await groupBy(to.db, q.scope, q.group) };
    const { total, page, at, groups } = await ask(to, q, { page: { sort: q.sort, lead: [], ...group, ...stretch } });
    return { total, ids: page, ...(at >= 0 && { at }), ...(group && { groups }) };
  }
  const { total, candidates } = await candidatesOf(to, q);
  const best = await ranked(to.db, q, candidates);
  const at = stretch.find ? best.findIndex((i) => candidates.ids[i] === stretch.find) : -1;
  // Most often only the best are wanted, or they are all there are: then no order of others.
  const all = best.length === total;
  if (all || (stretch.from + stretch.count <= best.length && (!stretch.find || at >= 0))) {
    const ids = best.slice(stretch.from, stretch.from + stretch.count).map((i) => candidates.ids[i]!);
    return { total, ids, ...(at >= 0 && { at }) };
  }
  const lead = best.map((i) => candidates.numbers[i]!);
  const rest = await ask(to, q, { page: { sort: q.sort, lead, ...stretch } });
  return { total, ids: rest.page, ...(rest.at >= 0 && { at: rest.at }) };
}

/** The position of each id in the sorted answer; -1 for ids that do not match. */
export async function placesIn(to: Asking, q: Question, ids: string[]): Promise<number[]> {
  const places: number[] = [];
  for (const find of ids) places.push((await page(to, q, { from: 0, count: 0, find })).at ?? -1);
  return places;
}

/** How many match. */
export async function count(to: Asking, q: Question, when?: 'later'): Promise<number> {
  return (await ask(to, q, {}, [], when)).total;
}

/** For each choice of the questions, as a number whose bits are those chosen, how many sources just those find. */
export async function overlaps(to: Asking, questions: Question[]): Promise<number[]> {
  const conditions: Condition[] = [];
  const sets: NumberSet[] = [];
  for (const { condition, compiled } of questions) {
    conditions.push(setsFrom(condition, sets.length));
    sets.push(...compiled.sets);
  }
  const [first] = questions;
  const all = { ...first!, condition: conditions[0]!, compiled: { ...first!.compiled, sets } };
  return (await ask(to, all, { overlaps: conditions })).overlaps!;
}

/** The ids of a stretch alone. */
export async function idsIn(to: Asking, q: Question, from: number, count: number): Promise<string[]> {
  return (await page(to, q, { from, count })).ids;
}

/** Those of the sources named that match. */
export async function among(to: Asking, q: Question, ids: string[]): Promise<string[]> {
  const query = sql`select number from source_sort where workspace_id = ${q.scope.workspaceId} and source_id = any(${array(ids, 'uuid')})`;
  return idsIn(to, narrowedBy(q, { query }, true), 0, Infinity);
}

/** The question whose answer is only what is in a set besides, or what is not. Which they are is all it asks: nothing is ranked. */
export function narrowedBy(q: Question, set: NumberSet, within: boolean): Question {
  const sets = [...q.compiled.sets, set];
  const part: Condition = { is: 'set', set: sets.length - 1 };
  const condition: Condition = { is: 'and', parts: [q.condition, within ? part : { is: 'not', part }] };
  return { ...q, compiled: { ...q.compiled, sets }, condition, byRelevance: false };
}

/** Two stages: candidates, those with the words in their title first; then those few are ranked. */
function candidatesOf(to: Asking, q: Question): Promise<ColumnsAnswer> {
  return ask(to, q, { candidates: { first: q.compiled.sets.length, most: CANDIDATES } }, [q.compiled.titles]);
}

/** The places of the candidates among themselves, the best first: all words in the title, then by how they stand. */
async function ranked(db: Db, q: Question, { ids, titled }: ColumnsAnswer['candidates']): Promise<number[]> {
  const found = await rows(
    db,
    { place: number },
    sql`
    select (c.place - 1)::int as place from unnest(${array(ids, 'uuid')}) with ordinality as c(id, place)
    join source_text t on t.workspace_id = ${q.scope.workspaceId} and t.source_id = c.id
    order by c.place <= ${titled} desc, ts_rank('{0.1, 0.2, 0.6, 1.0}', t.vector, ${q.compiled.rank}::tsquery, 1) desc, c.id desc`,
  );
  return found.map((f) => f.place);
}

export function ask(
  { columns }: Asking,
  { scope, condition, compiled }: Question,
  what: Pick<Asked, 'page' | 'candidates' | 'narrow' | 'overlaps' | 'pairs'>,
  more: NumberSet[] = [],
  when?: 'later',
): Promise<ColumnsAnswer> {
  const { workspaceId, presence } = scope;
  return columns.ask(workspaceId, { presence, condition, sets: [...compiled.sets, ...more], ...what }, when);
}
