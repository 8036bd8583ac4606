/** A seeded generator (mulberry32, public domain), so that the demo is the same on every machine. */
export class Chance {
  constructor(private state: number) {}

  next(): number {
    this.state = (this.state + 0x6d2b79f5) | 0;
    let t = Math.imul(this.state ^ (this.state >>> 15), 1 | this.state);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  }

  int(from: number, to: number): number {
    return from + Math.floor(this.next() * (to - from + 1));
  }

  pick<T>(list: readonly T[]): T {
    return list[Math.floor(this.next() * list.length)]!;
  }

  some<T>(list: readonly T[], n: number): T[] {
    const rest = [...list];
    const out: T[] = [];
    while (out.length < n && rest.length) out.push(rest.splice(Math.floor(this.next() * rest.length), 1)[0]!);
    return out;
  }

  odds(p: number): boolean {
    return this.next() < p;
  }
}
