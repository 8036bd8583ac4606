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
