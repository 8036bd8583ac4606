/**
 * Answers questions from columns, which it keeps as fresh as the database: each write of a workspace notes in
 * `derivations` which numbers it altered, and what was noted since the last look is read again before an answer.
 */
import { sql } from 'drizzle-orm';
import type { SortBy } from '@pandecta/core/narrowing';
import { one, rows, type Db } from '../../database/connect.ts';
import { Workers } from '../../workers/pool.ts';
import { decodeInts } from './bytes.ts';
import { readFacets, readNumbers, readRange, readRanks, readSize, SHARE } from './load.ts';
import type { ColumnsAnswer, ColumnsAsk, ColumnsMessage, SentRows } from './thread.ts';

/** Sources held over all workspaces before the one longest unused is let go: some 300 MB. */
const MOST_HELD = 3_000_000;
/** Sort keys that are text; the others are numbers the columns hold. */
const RANKED = new Set(['title', 'author', 'container', 'kind']);

interface Held {
  revision: number;
  /** The revision at which a sort key last changed. */
  sorted: number;
  ranks: Map<string, number>;
  size: number;
}

export class ColumnsService {
  private readonly worker: Workers;
  /** What the thread holds, the longest unused first. */
  private readonly held = new Map<string, Held>();
  /** One after another within a workspace, so that nothing is read twice. */
  private readonly turns = new Map<string, Promise<unknown>>();

  constructor(
    private readonly db: Db,
    tasksFile: string | undefined,
  ) {
    this.worker = new Workers(tasksFile, 1, { limited: false });
  }

  async ask(workspaceId: string, ask: ColumnsAsk): Promise<ColumnsAnswer> {
    const sort = ask.page?.sort ?? [];
    for (let attempt = 0; attempt < 2; attempt += 1) {
      await this.freshen(workspaceId, sort);
      const answer = await this.worker.run('columns', { workspace: workspaceId, do: 'ask', ask });
      if (answer && answer !== 'lost') return answer as ColumnsAnswer;
      this.held.delete(workspaceId);
    }
    throw new Error('the thread that holds the columns lost them twice');
  }

  close(): Promise<void> {
    return this.worker.close();
  }

  private async freshen(workspaceId: string, sort: SortBy[]): Promise<void> {
    const standing = await one<{ revision: number }>(
      this.db,
      sql`select revision from workspaces where id = ${workspaceId}`,
    );
    if (!standing) return;
    const { revision } = standing;
    const keys = sort.map((s) => s.key).filter((k) => RANKED.has(k));
    if (this.isFresh(workspaceId, revision, keys)) return;
    const before = this.turns.get(workspaceId) ?? Promise.resolve();
    const turn = before
      .catch(() => {})
      .then(async () => {
        if (this.isFresh(workspaceId, revision, keys)) return;
        await this.update(workspaceId, revision);
        await this.rank(workspaceId, keys);
      });
    this.turns.set(workspaceId, turn);
    await turn.finally(() => {
      if (this.turns.get(workspaceId) === turn) this.turns.delete(workspaceId);
    });
  }

  private isFresh(workspaceId: string, revision: number, keys: string[]): boolean {
    const held = this.held.get(workspaceId);
    if (!held || held.revision < revision) return false;
    this.held.delete(workspaceId);
    this.held.set(workspaceId, held);
    return keys.every((k) => (held.ranks.get(k) ?? -1) >= held.sorted);
  }

  private async update(workspaceId: string, revision: number): Promise<void> {
    const held = this.held.get(workspaceId);
    if (!held) return this.load(workspaceId, revision);
    if (held.revision >= revision) return;
    const noted = await rows<{ revision: number; numbers: number[]; sorts: boolean }>(
      this.db,
      sql`select revision, numbers, sorts from derivations where workspace_id = ${workspaceId} and revision > ${held.revision} order by revision`,
    );
    const altered = [...new Set(noted.flatMap((n) => n.numbers))];
    // Old notes are thrown away: what has been away for long begins anew.
    if (noted[0]?.revision !== held.revision + 1 || altered.length > SHARE) return this.load(workspaceId, revision);
    const read = await readNumbers(this.db, workspaceId, altered);
    const present = new Set(decodeInts(read.numbers));
    const kept = await this.write(
      workspaceId,
      read,
      altered.filter((n) => !present.has(n)),
    );
    if (!kept) return this.load(workspaceId, revision);
    held.revision = noted.at(-1)!.revision;
    if (noted.some((n) => n.sorts)) held.sorted = held.revision;
    for (const n of present) held.size = Math.max(held.size, n + 1);
  }

  /** Writes rows, and tells of what types the facets are that came with them. @returns false when all was lost */
  private async write(workspaceId: string, read: SentRows, gone: number[]): Promise<boolean> {
    const met = await this.worker.run('columns', { workspace: workspaceId, do: 'write', rows: read, gone });
    if (met === 'lost') return false;
    const fresh = met as number[];
    if (!fresh.length) return true;
    return this.send({
      workspace: workspaceId,
      do: 'learn',
      facets: await readFacets(this.db, workspaceId, fresh),
    });
  }

  private async load(workspaceId: string, revision: number): Promise<void> {
    this.held.delete(workspaceId);
    const size = await readSize(this.db, workspaceId);
    await this.makeRoom(size);
    await this.send({ workspace: workspaceId, do: 'begin' });
    for (let from = 0; from < size; from += SHARE)
      await this.write(workspaceId, await readRange(this.db, workspaceId, from, from + SHARE), []);
    this.held.set(workspaceId, { revision, sorted: revision, ranks: new Map(), size });
  }

  private async rank(workspaceId: string, keys: string[]): Promise<void> {
    const held = this.held.get(workspaceId);
    if (!held) return;
    for (const key of keys) {
      if ((held.ranks.get(key) ?? -1) >= held.sorted) continue;
      const { revision } = held;
      await this.send({ workspace: workspaceId, do: 'rank', key, ...(await readRanks(this.db, workspaceId, key)) });
      held.ranks.set(key, revision);
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
