/** What takes a while to find is kept as long as what it was found in stands: for some workspaces, the last asked for. */
const MOST = 20;

export class Kept<T> {
  private readonly known = new Map<string, { of: string; found: Promise<T> }>();

  /** @param of what it was found in: another makes it be found again */
  of(key: string, of: string, find: () => Promise<T>): Promise<T> {
    const before = this.known.get(key);
    this.known.delete(key);
    const found = before?.of === of ? before.found : find();
    this.known.set(key, { of, found });
    // What failed is tried again by the next who asks.
    found.catch(() => this.known.get(key)?.found === found && this.known.delete(key));
    if (this.known.size > MOST) this.known.delete(this.known.keys().next().value!);
    return found;
  }
}
