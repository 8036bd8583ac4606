/**
 * Makes a list of the answer to a question, however long: it knows how many lines there are, and holds those that were
 * looked at, by their places. Other stretches are fetched when they come in sight; what was touched is fetched anew, and
 * an older answer never comes over a newer one.
 */
import { computed, ref, shallowReactive, shallowRef, watch } from 'vue';
import type { Touched } from '@pandecta/contract';
import { isAbort } from '../api/client.ts';
import { useNews } from '../data/live.ts';
import { makePinned } from './pinned.ts';
import { EVERYTHING, has, NOTHING, sizeOf, toggled, type Selection } from './selection.ts';

/** Lines fetched with the answer, and with each stretch after it. */
export const AT_ONCE = 50;

/** A stretch of the answer, as the server gives it. */
export interface Stretch<L> {
  total: number;
  from: number;
  rows: L[];
  /** The place of the line that was to be found, where it is in the answer. */
  at?: number;
}

/** A list as those who show it or bind its keys see it. */
export interface ListView<L extends { id: string }> {
  total: number;
  state: 'loading' | 'ready' | 'failed';
  /** Counts the answers. */
  generation: number;
  cursor: string | null;
  /** The place of the line one is at. */
  place: number;
  lineAt(at: number): L | undefined;
  isSelected(id: string): boolean;
  ensure(from: number, to: number): Promise<void>;
  click(id: string, event: { shiftKey: boolean; ctrlKey: boolean; metaKey: boolean }): Promise<void>;
  move(step: number, extend?: boolean): Promise<void>;
  toggle(id: string): void;
  selectAll(): void;
}

export interface Listing<Q, L extends { id: string }, S extends Stretch<L>> {
  question: () => Q;
  fetch: (question: Q, stretch: { from: number; count: number; find?: string }, signal?: AbortSignal) => Promise<S>;
  /** The ids of a stretch alone, for what is selected over lines that were not looked at. */
  ids: (question: Q, from: number, count: number) => Promise<string[]>;
  /** Those of the lines that are in the answer: what leaves it leaves the selection. */
  among: (question: Q, ids: string[]) => Promise<string[]>;
  /** Where each of the lines stands in the answer; -1 where it is not in it. */
  places: (question: Q, ids: string[], signal?: AbortSignal) => Promise<number[]>;
  concerns: (touched: Touched) => boolean;
  /** Whether anyone looks at it. */
  seen: () => boolean;
  /** The line an address names: one is at it at once and stays at it, also where the answer does not have it. */
  named?: () => string | undefined;
  /** The line to be at when an answer begins and no address names one; the first where it is not in it. */
  begins?: () => string | undefined;
  /** A line that stays chosen even when it no longer matches. */
  holds?: () => string | null;
  /** Told of each answer's first stretch. */
  answered?: (first: S, again: boolean) => void;
}

export function makeList<Q, L extends { id: string }, S extends Stretch<L>>(listing: Listing<Q, L, S>) {
  const lines = shallowReactive(new Map<number, L>());
  const places = new Map<string, number>();
  const total = ref(0);
  const state = ref<'loading' | 'ready' | 'failed'>('loading');
  const error = ref('');
  const cursor = ref<string | null>(null);
  /** The place of the line one is at; where it went, the place it had. */
  const place = ref(0);
  const selection = shallowRef<Selection>(NOTHING);
  let anchor: number | null = null;
  let stop: AbortController | undefined;
  /** Places being fetched, or fetched since the last answer. */
  let wanted = new Set<number>();
  let stale = false;
  let begun = false;
  /** Counts how often somebody went to a line. */
  let steps = 0;

  /** An address names a line that the answer does not have. */
  const isOutside = computed(
    () => Boolean(cursor.value) && cursor.value === listing.named?.() && state.value === 'ready' && !inAnswer.value,
  );
  const inAnswer = ref(true);
  const lineAt = (at: number): L | undefined => lines.get(at);
  const lineOf = (id: string): L | undefined => {
    const line = lines.get(places.get(id) ?? -1);
    // After a change another may stand at its place until the lines there are fetched anew.
    return line?.id === id ? line : undefined;
  };

  /** Lines one works on keep their place until something else is asked. */
  const pinned = makePinned<Q, L, S>({
    fetch: listing.fetch,
    ids: listing.ids,
    places: listing.places,
    lineAt,
    placeOf: (id) => (lineOf(id) ? places.get(id) : undefined),
  });

  function put(from: number, rows: L[]): void {
    rows.forEach((line, i) => {
      const before = lines.get(from + i);
      if (before && before.id !== line.id && places.get(before.id) === from + i) places.delete(before.id);
      lines.set(from + i, line);
      places.set(line.id, from + i);
    });
  }

  /** @param again the same question, after something was touched: what stands there stays until it is known anew */
  async function load(again: boolean): Promise<void> {
    stop?.abort();
    stop = new AbortController();
    const { signal } = stop;
    const question = listing.question();
    if (!lines.size) state.value = 'loading';
    let find = again ? (cursor.value ?? undefined) : (listing.named?.() ?? listing.begins?.());
    let known = steps;
    if (!again) pinned.letGo();
    try {
      if (pinned.hasPins()) await pinned.settle(question, signal);
      if (signal.aborted) return;
      const first = await pinned.fetch(question, { from: 0, count: AT_ONCE, ...(find && { find }) }, signal);
      if (signal.aborted) return;
      wanted = new Set(first.rows.map((_, i) => i));
      if (!again) {
        lines.clear();
        places.clear();
      }
      for (const at of [...lines.keys()]) if (at >= first.total) lines.delete(at);
      put(0, first.rows);
      total.value = first.total;
      error.value = '';
      state.value = 'ready';
      let { at } = first;
      // Whoever went to a line while the answer was on its way stays there.
      while (known !== steps && cursor.value) {
        known = steps;
        find = cursor.value;
        at = await placeOf(find, question, first.rows);
      }
      await settle(question, again, find, at);
      if (signal.aborted) return;
      if (again) await prune(question);
      if (signal.aborted) return;
      listing.answered?.(first, again);
      // Lines beyond the first are those of before until they come in sight again.
      generation.value += 1;
    } catch (e) {
      if (signal.aborted || isAbort(e)) return;
      error.value = (e as Error).message;
      state.value = 'failed';
    }
  }
  /** Counts the answers: whoever shows lines asks for those in sight again. */
  const generation = ref(0);

  /** @returns the place of a line in an answer of which the first lines are known; undefined where it is not in it */
  async function placeOf(id: string, question: Q, first: L[]): Promise<number | undefined> {
    const at = first.findIndex((line) => line.id === id);
    return at >= 0 ? at : (await pinned.fetch(question, { from: 0, count: 1, find: id })).at;
  }

  /** Finds the line to be at: the one asked for, or the one that stands where it stood. */
  async function settle(question: Q, again: boolean, find: string | undefined, at: number | undefined): Promise<void> {
    const last = total.value - 1;
    inAnswer.value = at !== undefined;
    if (find && at !== undefined) {
      cursor.value = find;
      place.value = at;
      places.set(find, at);
    } else if (cursor.value && (cursor.value === listing.named?.() || (again && cursor.value === listing.holds?.())))
      return;
    else if (last < 0) cursor.value = null;
    else {
      const to = again ? Math.min(place.value, last) : 0;
      await ensure(to, to + 1, question);
      cursor.value = lines.get(to)?.id ?? lines.get(0)?.id ?? null;
      place.value = to;
      if (!again) anchor = null;
    }
  }

  /** What no longer matches is selected no more. */
  async function prune(question: Q): Promise<void> {
    const before = selection.value;
    if (before.all || !before.ids.size) return;
    const left = await listing.among(question, [...before.ids]);
    if (selection.value === before && left.length < before.ids.size)
      selection.value = { all: false, ids: new Set(left) };
  }

  /** Fetches the lines of a stretch that are not here, or are of before the last answer. */
  async function ensure(from: number, to: number, question = listing.question()): Promise<void> {
    const mine = wanted;
    const runs: [from: number, to: number][] = [];
    for (let at = Math.max(0, from); at < Math.min(total.value, to); at += 1) {
      if (mine.has(at)) continue;
      mine.add(at);
      const run = runs.at(-1);
      if (run && run[1] === at && at - run[0] < AT_ONCE) run[1] = at + 1;
      else runs.push([at, at + 1]);
    }
    for (const [first, after] of runs) {
      try {
        const { rows } = await pinned.fetch(question, { from: first, count: after - first });
        if (mine !== wanted) return;
        put(first, rows);
      } catch {
        for (let at = first; at < after; at += 1) mine.delete(at);
      }
    }
  }

  function refresh(): void {
    stale = !listing.seen();
    if (!stale) void load(true);
  }
  useNews((touched) => {
    const concerned = begun && listing.concerns(touched);
    const { source } = touched.kinds;
    if (concerned && Array.isArray(source)) pinned.pin(source.filter((id) => id === cursor.value || isSelected(id)));
    return concerned;
  }, refresh);
  watch(listing.seen, (now) => now && stale && refresh());
  watch(
    // By what it says: whoever comes back asks the same again.
    () => JSON.stringify([listing.question(), listing.named?.()]),
    (_, before) => {
      const [asked, name] = JSON.parse(before) as [unknown, string | null];
      // The address names none any more, since one went on from it: nothing else was asked.
      if (name && !listing.named?.() && JSON.stringify(asked) === JSON.stringify(listing.question())) return;
      selection.value = NOTHING;
      if (begun) beginAnswer();
    },
  );

  /** Whoever follows an address is at the line it names before the answer has come: what is done meanwhile is done to it. */
  function beginAnswer(): void {
    const name = listing.named?.();
    if (name) {
      cursor.value = name;
      place.value = places.get(name) ?? 0;
    }
    void load(false);
  }

  /** The first answer; whoever comes back finds what was there, as far as nothing was touched meanwhile. */
  function begin(): void {
    if (begun) return;
    begun = true;
    beginAnswer();
  }

  const count = computed(() => sizeOf(selection.value, total.value));
  const isSelected = (id: string): boolean => has(selection.value, id);

  async function go(to: number): Promise<L | undefined> {
    const at = Math.max(0, Math.min(total.value - 1, to));
    if (!lines.has(at)) await ensure(at - 10, at + 10);
    const line = lines.get(at);
    if (line) {
      steps += 1;
      cursor.value = line.id;
      place.value = at;
    }
    return line;
  }

  async function move(step: number, extend = false): Promise<void> {
    const from = place.value;
    if (extend) anchor ??= from;
    else anchor = null;
    if ((await go(from + step)) && extend) await selectStretch(anchor!, place.value);
  }

  async function selectStretch(from: number, to: number): Promise<void> {
    const [first, last] = from < to ? [from, to] : [to, from];
    const known: string[] = [];
    for (let at = first; at <= last && lines.has(at); at += 1) known.push(lines.get(at)!.id);
    const all = known.length > last - first;
    const ids = all ? known : await pinned.ids(listing.question(), first, last - first + 1);
    selection.value = { all: false, ids: new Set(ids) };
  }

  function toggle(id: string): void {
    selection.value = toggled(selection.value, id);
    anchor = places.get(id) ?? null;
  }

  /** A click on a line: alone it chooses, with Shift it selects a stretch, with Ctrl it adds one. */
  async function click(id: string, event: { shiftKey: boolean; ctrlKey: boolean; metaKey: boolean }): Promise<void> {
    const at = places.get(id) ?? place.value;
    const before = cursor.value;
    const from = anchor ?? place.value;
    steps += 1;
    cursor.value = id;
    place.value = at;
    if (event.shiftKey) {
      anchor = from;
      await selectStretch(from, at);
    } else if (event.ctrlKey || event.metaKey) {
      if (!count.value && before && before !== id) selection.value = { all: false, ids: new Set([before]) };
      toggle(id);
    } else {
      selection.value = NOTHING;
      anchor = at;
    }
  }

  const selectAll = (): void => void (selection.value = EVERYTHING);
  const unselect = (): void => void (selection.value = NOTHING);

  return {
    lines,
    lineAt,
    lineOf,
    total,
    state,
    error,
    generation,
    cursor,
    place,
    selection,
    count,
    isSelected,
    isOutside,
    begin,
    load,
    ensure,
    move,
    go,
    toggle,
    click,
    selectAll,
    unselect,
  };
}
