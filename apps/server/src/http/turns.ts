/**
 * One who asks very much waits for themselves, and keeps nobody else waiting: of each member, and of each address nobody is
 * signed in from, a few requests are in hand at once and the others wait their turn, before anything of their bodies is
 * read. Of questions, which keep the machine itself busy from beginning to end, one of each is in hand whenever they ask, and
 * more as long as there is room; of what is heavy, one of a member's and a few of all.
 */
import { availableParallelism } from 'node:os';
import PQueue from 'p-queue';
import type { End } from '../access/at-once.ts';
import { Refusal } from '../errors.ts';

export type { End };

/** A page sends a few at once; a browser no more than six. */
const OF_EACH = 4;
/** Questions of all, besides the first of each: more at once than there are cores are answered no sooner, and all wait longer. */
const MORE_QUESTIONS = Math.max(1, availableParallelism() - 1);
const MOST_WAITING = 100;
const HEAVY_OF_ALL = 3;
const HEAVY_WAITING = 20;

/** What one has in hand, and what waits to be. */
interface Lane {
  inHand: number;
  waiting: (() => void)[];
}

class Lanes {
  private readonly lanes = new Map<string, Lane>();
  /** How many are in hand besides the first of each. */
  private more = 0;

  constructor(
    private readonly ofEach: number,
    private readonly moreOfAll: number,
    private readonly mostWaiting = MOST_WAITING,
  ) {}

  async take(who: string): Promise<End> {
    const lane = this.lanes.get(who) ?? { inHand: 0, waiting: [] };
    this.lanes.set(who, lane);
    if (lane.waiting.length >= this.mostWaiting) throw new Refusal('too_many_at_once');
    await new Promise<void>((begin) => {
      lane.waiting.push(begin);
      this.begin();
    });
    let ended = false;
    return () => {
      if (ended) return;
      ended = true;
      lane.inHand -= 1;
      if (lane.inHand) this.more -= 1;
      else if (!lane.waiting.length) this.lanes.delete(who);
      this.begin();
    };
  }

  /** Begins what may be begun; who has the least in hand is first. */
  private begin(): void {
    for (;;) {
      const most = this.more < this.moreOfAll ? this.ofEach : 1;
      let next: Lane | undefined;
      for (const lane of this.lanes.values())
        if (lane.waiting.length && lane.inHand < most && lane.inHand < (next?.inHand ?? most)) next = lane;
      if (!next) return;
      if (next.inHand) this.more += 1;
      next.inHand += 1;
      next.waiting.shift()!();
    }
  }
}

export class Turns {
  private readonly questions: Lanes;
  private readonly light = new Lanes(OF_EACH, Infinity);
  private readonly heavy = new Lanes(1, 0, HEAVY_WAITING);
  private readonly heavyOfAll = new PQueue({ concurrency: HEAVY_OF_ALL });

  /** @param moreQuestions how many are in hand at once besides the first of each */
  constructor(moreQuestions = MORE_QUESTIONS) {
    this.questions = new Lanes(OF_EACH, moreQuestions);
  }

  /** @throws Refusal where too many wait already */
  take(who: string): Promise<End> {
    return this.light.take(who);
  }

  /** @throws Refusal where too many wait already */
  takeQuestion(who: string): Promise<End> {
    return this.questions.take(who);
  }

  /** @throws Refusal where too many wait already */
  async takeHeavy(who: string): Promise<End> {
    const own = await this.heavy.take(who);
    const ofAll = await turnIn(this.heavyOfAll);
    return () => {
      ofAll();
      own();
    };
  }
}

const turnIn = (queue: PQueue): Promise<End> =>
  new Promise((resolve) => {
    void queue.add(() => new Promise<void>((end) => resolve(end)));
  });
