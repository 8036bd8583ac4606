/** A list's answer as it is shown: in the order of the server, but for lines that are kept where one worked on them. */
import type { Stretch } from './make.ts';
import { placeInAnswer, placePins, placeShown, type Pin, type PlacedPin } from './pins.ts';

/** So many lines are kept in place, the last ones worked on; what is done to more at once is expected to move them. */
const MOST_PINS = 40;

interface Source<Q, L, S> {
  fetch: (question: Q, stretch: { from: number; count: number; find?: string }, signal?: AbortSignal) => Promise<S>;
  ids: (question: Q, from: number, count: number) => Promise<string[]>;
  places: (question: Q, ids: string[], signal?: AbortSignal) => Promise<number[]>;
  lineAt: (shown: number) => L | undefined;
  placeOf: (id: string) => number | undefined;
}

export function makePinned<Q, L extends { id: string }, S extends Stretch<L>>(source: Source<Q, L, S>) {
  let pins: Pin[] = [];
  let placed: PlacedPin[] = [];

  const letGo = (): void => void ((pins = []), (placed = []));

  /** These lines stay where they are shown now: something is done to them. */
  function pin(ids: readonly string[]): void {
    if (ids.length > MOST_PINS) return letGo();
    for (const id of ids) {
      const at = source.placeOf(id);
      const before = at === undefined || at === 0 ? null : source.lineAt(at - 1)?.id;
      if (at === undefined || before === undefined || pins.some((p) => p.id === id)) continue;
      pins.push({ id, after: before });
    }
    pins = pins.slice(-MOST_PINS);
  }

  /** Finds where the pinned lines stand in the answer by now. Those that stand where they stood anyway are let go. */
  async function settle(question: Q, signal?: AbortSignal): Promise<void> {
    const sought = [...new Set(pins.flatMap((p) => [p.id, ...(p.after === null ? [] : [p.after])]))];
    const found = await source.places(question, sought, signal);
    const places = new Map(sought.flatMap((id, i) => (found[i]! < 0 ? [] : [[id, found[i]!] as const])));
    placed = placePins(pins, places);
    if (placed.every((p) => p.at === p.shown)) letGo();
  }

  /** A stretch by the places lines are shown at. */
  async function fetch(
    question: Q,
    { from, count, find }: { from: number; count: number; find?: string },
    signal?: AbortSignal,
  ): Promise<S> {
    if (!placed.length) return source.fetch(question, { from, count, ...(find && { find }) }, signal);
    const { first, span, lone } = spread(from, count);
    const [main, ...others] = await Promise.all([
      source.fetch(question, { from: first, count: span, ...(find && { find }) }, signal),
      ...lone.map((p) => source.fetch(question, { from: p.at, count: 1 }, signal)),
    ]);
    const byPlace = new Map(main.rows.map((row, i) => [first + i, row]));
    lone.forEach((p, i) => others[i]!.rows[0] && byPlace.set(p.at, others[i]!.rows[0]));
    return {
      ...main,
      from,
      rows: inOrder(from, count, byPlace),
      ...(main.at !== undefined && { at: placeShown(placed, main.at) }),
    };
  }

  async function ids(question: Q, from: number, count: number): Promise<string[]> {
    if (!placed.length) return source.ids(question, from, count);
    const { first, span } = spread(from, count);
    const byPlace = new Map((await source.ids(question, first, span)).map((id, i) => [first + i, id]));
    for (const p of placed) byPlace.set(p.at, p.id);
    return inOrder(from, count, byPlace);
  }

  function inOrder<T>(from: number, count: number, byPlace: Map<number, T>): T[] {
    return Array.from({ length: count }, (_, i) => byPlace.get(placeInAnswer(placed, from + i))).filter(
      (one) => one !== undefined,
    );
  }

  /** What is fetched in one piece for a stretch, and the pinned lines of it that stand elsewhere in the answer. */
  function spread(from: number, count: number): { first: number; span: number; lone: PlacedPin[] } {
    const own = (shown: number): boolean => !placed.some((p) => p.shown === shown);
    let [low, high] = [from, from + count - 1];
    while (low < high && !own(low)) low += 1;
    while (high > low && !own(high)) high -= 1;
    const first = placeInAnswer(placed, low);
    const span = Math.max(1, placeInAnswer(placed, high) - first + 1);
    const within = (p: PlacedPin): boolean => p.shown >= from && p.shown < from + count;
    return { first, span, lone: placed.filter((p) => within(p) && (p.at < first || p.at >= first + span)) };
  }

  return { pin, settle, letGo, fetch, ids, hasPins: (): boolean => pins.length > 0 };
}
