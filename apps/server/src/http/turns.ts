/**
 * One who asks very much waits for themselves, and keeps nobody else waiting: of each member, and of each address nobody is
 * signed in from, a few requests are in hand at once and the others wait their turn, before anything of their bodies is
 * read. Of what is heavy, one of a member's and a few of all are in hand.
 */
import PQueue from 'p-queue';
import { Refusal } from '../errors.ts';

/** A page sends a few at once; a browser no more than six. */
const OF_EACH = 4;
const MOST_WAITING = 100;
const HEAVY_OF_ALL = 3;
const HEAVY_WAITING = 20;

/** How many things each has going at the same time, of which more than so many are not begun. */
export class AtOnce {
  private readonly going = new Map<string, number>();

  constructor(private readonly most: number) {}

  /** @returns what ends it, to be called once; undefined where as many are going as may */
  begin(who: string): End | undefined {
    const others = this.going.get(who) ?? 0;
    if (others >= this.most) return undefined;
    this.going.set(who, others + 1);
    return () => {
      const left = this.going.get(who)! - 1;
      if (left) this.going.set(who, left);
      else this.going.delete(who);
    };
  }
}

/** Ends a turn; once is enough. */
export type End = () => void;

export class Turns {
  private readonly light = new Map<string, PQueue>();
  private readonly heavy = new Map<string, PQueue>();
  private readonly heavyOfAll = new PQueue({ concurrency: HEAVY_OF_ALL });

  /** @throws Refusal where too many wait already */
  take(who: string): Promise<End> {
    return turnOf(this.light, who, OF_EACH, MOST_WAITING);
  }

  /** @throws Refusal where too many wait already */
  async takeHeavy(who: string): Promise<End> {
    const own = await turnOf(this.heavy, who, 1, HEAVY_WAITING);
    const ofAll = await turnIn(this.heavyOfAll);
    return () => {
      ofAll();
      own();
    };
  }
}

async function turnOf(queues: Map<string, PQueue>, who: string, atOnce: number, waiting: number): Promise<End> {
  let queue = queues.get(who);
  if (!queue) {
    queue = new PQueue({ concurrency: atOnce });
    queue.on('idle', () => queues.delete(who));
    queues.set(who, queue);
  }
  if (queue.size >= waiting) throw new Refusal('too_many_at_once');
  return turnIn(queue);
}

const turnIn = (queue: PQueue): Promise<End> =>
  new Promise((resolve) => {
    void queue.add(() => new Promise<void>((end) => resolve(end)));
  });
