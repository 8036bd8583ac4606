/**
 * Visiting the links of one gathering: within a time in all, and no host again that was silent. What is not visited any more
 * is kept with its address, and is asked for again by itself.
 */
import { Unreachable, type Fetched, type Fetcher } from '../../fetching/fetch.ts';

const SECOND = 1000;
/** The total time spent on fetching the links of one gathering, in milliseconds. */
const IN_ALL_MS = 90 * SECOND;
/** A page that takes longer than this in a gathering of many is asked for again by itself, with more patience. */
const PATIENCE_MS = 10 * SECOND;
/** A host that was silent so often is not asked for its other pages. */
const MOST_SILENCES = 2;

export class Visits {
  private readonly silences = new Map<string, number>();
  private begun: number | undefined;

  constructor(
    private readonly fetcher: Pick<Fetcher, 'get'>,
    private readonly now: () => number = () => performance.now(),
  ) {}

  /** @throws Unreachable where it cannot be had, or is left for later */
  async get(address: string, more: { accept?: string; most?: number } = {}): Promise<Fetched> {
    const host = hostOf(address);
    this.begun ??= this.now();
    if (this.now() - this.begun > IN_ALL_MS)
      throw new Unreachable('This gathering has many links that are slow: it is visited later', false);
    if ((this.silences.get(host) ?? 0) >= MOST_SILENCES)
      throw new Unreachable(`${host} did not answer for other pages: it is visited later`, false);
    try {
      return await this.fetcher.get(address, { ...more, withinMs: PATIENCE_MS });
    } catch (error) {
      if (error instanceof Unreachable && !error.refused) this.silences.set(host, (this.silences.get(host) ?? 0) + 1);
      throw error;
    }
  }
}

function hostOf(address: string): string {
  try {
    return new URL(address).host;
  } catch {
    return '';
  }
}
