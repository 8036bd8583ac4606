/**
 * Answers questions from columns, which it keeps as fresh as the database: each write of a workspace notes in
 * `derivations` which numbers it altered, and what was noted since the last look is read again before an answer.
 */
import { sql } from 'drizzle-orm';
import { SORT_KEYS, SORTS } from '@pandecta/contract';
import type { SortBy } from '@pandecta/core/narrowing';
import type { Presence } from '@pandecta/core/changes';
import { snapshot, type Db } from '../database/connect.ts';
import { list, number, one, rows, truth } from '../database/read.ts';
import { Workers } from '../workers/pool.ts';
import { decodeInts } from '../workers/bytes.ts';
import {
  readFacets,
  readMembers,
  readNumbers,
  readPlacings,
  readRange,
  readRanks,
  readSet,
  readSize,
  SHARE,
  type NumberSet,
} from './load.ts';
import type { ColumnsAnswer, ColumnsAsk, ColumnsMessage, SentRows } from '../workers/columns.ts';

/** Sources held over all workspaces before the one longest unused is let go: some 400 MB. */
const MOST_HELD = 3_000_000;
/** Sort keys that are text; the others are numbers the columns hold. */
const RANKED = new Set<string>(SORT_KEYS.filter((key) => SORTS[key].by === 'text'));
/**
 * Of these an index tells neighbours. Kinds are few, so that an index of them would be the smallest of the table: while
 * much is written and not yet counted, the planner would take it for all that asks by workspace.
 */
const INDEXED = new Set(['title', 'author', 'container']);
/** So many altered sources are placed anew among the others, or looked at anew in a set; of more all are read. */
const MOST_MOVED = 2000;
/** Sets of words kept for a workspace; each takes a bit a source. */
const MOST_SETS = 500;

/** A question as it is asked of this service: its sets not read yet. */
export type Asked = Omit<ColumnsAsk, 'sets'> & { sets: NumberSet[] };

/** Numbers altered since something was read. */
type Moved = Set<number>;

/** What the thread holds of a workspace. */
interface Held {
  revision: number;
  /** Up to which note of written text its sets are true, or know what they lack. */
  text: number;
  rankings: Map<string, Moved>;
  /** By what was asked of the text index, the longest unused first. */
  sets: Map<string, Moved>;
  size: number;
}

interface Standing {
  revision: number;
  text: number;
}

interface RankedBy {
  name: string;
  key: string;
  presence: Presence;
}

export class ColumnsService {
  private readonly worker: Workers;
  /** The longest unused first. */
  private readonly held = new Map<string, Held>();
  /** One after another within a workspace, and for each of its sets, so that nothing is read twice. */
  private readonly turns = new Map<string, Promise<unknown>>();

  constructor(
    private readonly db: Db,
    tasksFile: string | undefined,
  ) {
    this.worker = new Workers(tasksFile, 1, { memory: Infinity });
  }

  /** Questions someone waits for are being answered; who asks for later waits until none is. */
  private going = 0;
  private idle: (() => void)[] = [];

  /** @param when `later` gives way to all that is asked now: what is told beside the list, for many searches at once */
  async ask(workspaceId: string, asked: Asked, when: 'now' | 'later' = 'now'): Promise<ColumnsAnswer> {
    if (when === 'later') {
      await this.quiet();
      return this.answer(workspaceId, asked);
    }
    this.going += 1;
    try {
      return await this.answer(workspaceId, asked);
    } finally {
      this.going -= 1;
      if (!this.going) for (const go of this.idle.splice(0)) go();
    }
  }

  /** Until nothing is asked that someone waits for. */
  async quiet(): Promise<void> {
    while (this.going) await new Promise<void>((go) => this.idle.push(go));
  }

  private async answer(workspaceId: string, { sets, ...asked }: Asked): Promise<ColumnsAnswer> {
    const { presence, page } = asked;
    const ranked = (page?.sort ?? [])
      .filter(({ key }) => RANKED.has(key))
      .map(({ key }) => ({ name: nameOf(key, presence), key, presence }));
    const ask = page ? { ...asked, page: { ...page, sort: page.sort.map((s) => named(s, presence)) } } : asked;
    for (let attempt = 0; attempt < 2; attempt += 1) {
      const held = await this.freshen(workspaceId, ranked);
      const found = await Promise.all(sets.map((set) => this.found(workspaceId, held, set)));
      const answer = await this.worker.run('columns', {
        workspace: workspaceId,
        do: 'ask',
        ask: { ...ask, sets: found },
      });
      if (answer && answer !== 'lost') return answer as ColumnsAnswer;
      this.held.delete(workspaceId);
    }
    throw new Error('the thread that holds the columns lost them twice');
  }

  close(): Promise<void> {
    return this.worker.close();
  }

  private async freshen(workspaceId: string, ranked: RankedBy[]): Promise<Held | undefined> {
    const standing = await standingOf(this.db, workspaceId);
    if (!standing) return undefined;
    if (!this.isFresh(workspaceId, standing, ranked))
      await this.inTurn(workspaceId, async () => {
        if (this.isFresh(workspaceId, standing, ranked)) return;
        // One view of the database, so that what is placed is told by where all others stood at that moment.
        await snapshot(this.db, async (tx) => {
          await this.update(tx, workspaceId);
          for (const by of ranked) await this.rank(tx, workspaceId, by);
        });
      });
    return this.held.get(workspaceId);
  }

  private async inTurn(name: string, work: () => Promise<void>): Promise<void> {
    const before = this.turns.get(name) ?? Promise.resolve();
    const turn = before.catch(() => {}).then(work);
    this.turns.set(name, turn);
    await turn.finally(() => {
      if (this.turns.get(name) === turn) this.turns.delete(name);
    });
  }

  private isFresh(workspaceId: string, { revision, text }: Standing, ranked: RankedBy[]): boolean {
    const held = this.held.get(workspaceId);
    if (!held || held.revision < revision || held.text < text) return false;
    this.held.delete(workspaceId);
    this.held.set(workspaceId, held);
    return ranked.every(({ name }) => held.rankings.get(name)?.size === 0);
  }

  private async update(tx: Db, workspaceId: string): Promise<void> {
    const held = this.held.get(workspaceId);
    const standing = (await standingOf(tx, workspaceId))!;
    if (!held) return this.load(tx, workspaceId, standing);
    if (held.revision < standing.revision) {
      const noted = await rows(
        tx,
        { revision: number, numbers: list(number), sorts: truth },
        sql`select revision, numbers, sorts from derivations where workspace_id = ${workspaceId} and revision > ${held.revision} order by revision`,
      );
      const altered = [...new Set(noted.flatMap((n) => n.numbers))];
      // Old notes are thrown away: what has been away for long begins anew.
      if (noted[0]?.revision !== held.revision + 1 || altered.length > SHARE)
        return this.load(tx, workspaceId, standing);
      const read = await readNumbers(tx, workspaceId, altered);
      const present = new Set(decodeInts(read.numbers));
      const gone = altered.filter((n) => !present.has(n));
      if (!(await this.write(tx, workspaceId, read, gone))) return this.load(tx, workspaceId, standing);
      held.revision = standing.revision;
      noteIn(held.rankings, new Set(noted.flatMap((n) => (n.sorts ? n.numbers : []))));
      for (const n of present) held.size = Math.max(held.size, n + 1);
    }
    if (held.text < standing.text) {
      const noted = await rows(
        tx,
        { revision: number, numbers: list(number) },
        sql`select revision, numbers from text_notes where workspace_id = ${workspaceId} and revision > ${held.text} order by revision`,
      );
      if (noted[0]?.revision === held.text + 1) noteIn(held.sets, new Set(noted.flatMap((n) => n.numbers)));
      else held.sets.clear();
      held.text = standing.text;
    }
  }

  /** Writes rows, and tells of what types the facets are that came with them. @returns false when all was lost */
  private async write(tx: Db, workspaceId: string, read: SentRows, gone: number[]): Promise<boolean> {
    const met = await this.worker.run('columns', { workspace: workspaceId, do: 'write', rows: read, gone });
    if (met === 'lost') return false;
    const fresh = met as number[];
    if (!fresh.length) return true;
    return this.send({ workspace: workspaceId, do: 'learn', facets: await readFacets(tx, workspaceId, fresh) });
  }

  private async load(tx: Db, workspaceId: string, standing: Standing): Promise<void> {
    this.held.delete(workspaceId);
    const size = await readSize(tx, workspaceId);
    await this.makeRoom(size);
    await this.send({ workspace: workspaceId, do: 'begin' });
    for (let from = 0; from < size; from += SHARE)
      await this.write(tx, workspaceId, await readRange(tx, workspaceId, from, from + SHARE), []);
    this.held.set(workspaceId, { ...standing, rankings: new Map(), sets: new Map(), size });
  }

  /** Ranks by a text key; of a ranking that is held only those that moved are placed anew. */
  private async rank(tx: Db, workspaceId: string, { name, key, presence }: RankedBy): Promise<void> {
    const { rankings } = this.held.get(workspaceId)!;
    const moved = rankings.get(name);
    if (moved?.size === 0) return;
    rankings.delete(name);
    const message =
      moved && INDEXED.has(key)
        ? { do: 'place' as const, ...(await readPlacings(tx, workspaceId, key, presence, [...moved])) }
        : { do: 'rank' as const, ...(await readRanks(tx, workspaceId, key, presence)) };
    if (await this.send({ workspace: workspaceId, name, ...message })) rankings.set(name, new Set());
  }

  /** What a set holds: its numbers, or by what name the thread keeps it. */
  private async found(workspaceId: string, held: Held | undefined, set: NumberSet): Promise<string | Uint8Array> {
    if (!set.words || !held) return readSet(this.db, set);
    const name = `${set.words.vector} ${set.words.tsquery}`;
    await this.inTurn(`${workspaceId} ${name}`, () => this.keep(workspaceId, held, set, name));
    return name;
  }

  private async keep(workspaceId: string, { sets }: Held, set: NumberSet, name: string): Promise<void> {
    const moved = sets.get(name);
    sets.delete(name);
    // What is noted from here on is noted in it: it may be read before or after.
    sets.set(name, new Set());
    if (moved?.size === 0) return;
    try {
      const numbers = moved && [...moved];
      const message = numbers
        ? { do: 'amend' as const, numbers, members: await readMembers(this.db, workspaceId, set, numbers) }
        : { do: 'keep' as const, numbers: await readSet(this.db, set) };
      await this.send({ workspace: workspaceId, name, ...message });
      for (const [oldest] of sets) {
        if (sets.size <= MOST_SETS) break;
        sets.delete(oldest);
        await this.send({ workspace: workspaceId, do: 'let go', name: oldest });
      }
    } catch (error) {
      sets.delete(name);
      throw error;
    }
  }

  private async makeRoom(needed: number): Promise<void> {
    let total = needed;
    for (const { size } of this.held.values()) total += size;
    for (const [workspaceId, { size }] of this.held) {
      if (total <= MOST_HELD) return;
      this.held.delete(workspaceId);
      await this.send({ workspace: workspaceId, do: 'drop' });
      total -= size;
    }
  }

  /** @returns false when the thread had lost the workspace */
  private async send(message: ColumnsMessage): Promise<boolean> {
    return (await this.worker.run('columns', message)) !== 'lost';
  }
}

const nameOf = (key: string, presence: Presence): string => `${key} of ${presence}`;

const named = ({ key, ...more }: SortBy, presence: Presence): SortBy => ({
  key: RANKED.has(key) ? nameOf(key, presence) : key,
  ...more,
});

/** Notes altered numbers in all that is held, and lets go of what lacks too many of them. */
function noteIn(held: Map<string, Moved>, altered: Moved): void {
  for (const [name, moved] of held) {
    for (const n of altered) moved.add(n);
    if (moved.size > MOST_MOVED) held.delete(name);
  }
}

function standingOf(db: Db, workspaceId: string): Promise<Standing | undefined> {
  return one(
    db,
    { revision: number, text: number },
    sql`select revision, coalesce((select max(t.revision) from text_notes t where t.workspace_id = w.id), 0) as text
      from workspaces w where id = ${workspaceId}`,
  );
}
