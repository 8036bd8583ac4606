/** The sources that match, in order: the ids of all of them, the lines of those that were looked at, and the selection. */
import { promiseTimeout, useSessionStorage, useThrottleFn } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed, ref, shallowReactive, shallowRef, watch } from 'vue';
import { useRoute } from 'vue-router';
import { routes, type SourcePage, type SourceRow } from '@pandecta/contract';
import { ask as fetchReply, isAbort, send } from '../api/client.ts';
import { concerns, useLive } from '../data/live.ts';
import { AFTER_TYPING_MS, useAsk } from './ask.ts';
import { readIds } from './ids.ts';

const AT_ONCE = 80;
const GATHER_MS = 200;
/** An answer whose words were still being read in is asked for again: soon at first, then less and less often. */
const SETTLED_AFTER_MS = { first: 300, most: 5000 };

export const useLedger = defineStore('ledger', () => {
  const ask = useAsk();
  const live = useLive();
  const route = useRoute();
  const ids = shallowRef<string[]>([]);
  const rows = shallowReactive(new Map<string, SourceRow>());
  const total = ref(0);
  const notes = ref<SourcePage['notes']>([]);
  const state = ref<'loading' | 'ready' | 'failed'>('loading');
  const error = ref('');
  /** True while the order is being fetched after the first lines. */
  const partial = ref(false);
  const cursor = ref<string | null>(null);
  /** A source being edited stays chosen, even when it no longer matches. */
  const held = ref<string | null>(null);
  const anchor = ref<string | null>(null);
  /** The line was chosen by an answer while one types, not by the person. */
  const follows = ref(false);
  const selected = shallowRef<Set<string>>(new Set());
  let stop: AbortController | undefined;
  let wanted = new Set<string>();
  let pause = SETTLED_AFTER_MS.first;
  let later = 0;
  /** The line one was at, for when the page is loaded anew. */
  const last = useSessionStorage('chosen source', '');
  let fresh = true;
  watch(cursor, (id) => id && !fresh && (last.value = id));

  async function load(keepRows: boolean): Promise<void> {
    stop?.abort();
    stop = new AbortController();
    const { signal } = stop;
    clearTimeout(later);
    if (!ids.value.length) state.value = 'loading';
    const lastAt = keepRows && cursor.value ? Math.max(0, ids.value.indexOf(cursor.value)) : 0;
    try {
      const page = await fetchReply(routes.search.first, { query: ask.params, signal });
      if (!keepRows) rows.clear();
      wanted.clear();
      for (const row of page.rows) rows.set(row.id, row);
      const first = page.rows.map((r) => r.id);
      total.value = page.total;
      notes.value = page.notes;
      error.value = '';
      partial.value = page.total > first.length;
      if (!(partial.value && keepRows)) ids.value = first;
      state.value = 'ready';
      // A new answer begins at its first line at once; whoever goes on from there is not fetched back later.
      if (!keepRows && !ask.at) {
        follows.value = Boolean(ask.params.typing);
        cursor.value = first[0] ?? null;
      }
      if (partial.value) {
        if (ask.text && !keepRows) await promiseTimeout(AFTER_TYPING_MS);
        if (signal.aborted) return;
        const response = await send(routes.search.order, { query: ask.params, signal });
        ids.value = readIds(new Uint8Array(await response.arrayBuffer()));
        partial.value = false;
      }
      const known = new Set(ids.value);
      if ([...selected.value].some((id) => !known.has(id)))
        selected.value = new Set([...selected.value].filter((id) => known.has(id)));
      const line = ask.at ?? (fresh ? last.value : undefined);
      fresh = false;
      if (line && known.has(line)) cursor.value = line;
      const stays = cursor.value && (known.has(cursor.value) || (keepRows && cursor.value === held.value));
      if (!stays || (!keepRows && ask.at && cursor.value !== ask.at))
        cursor.value = ids.value[lastAt] ?? ids.value.at(-1) ?? null;
      if (keepRows) refreshRows();
      if (page.settling) later = window.setTimeout(() => load(true), pause);
      pause = page.settling ? Math.min(pause * 2, SETTLED_AFTER_MS.most) : SETTLED_AFTER_MS.first;
    } catch (e) {
      if (isAbort(e)) return;
      error.value = (e as Error).message;
      state.value = 'failed';
    }
  }

  /** Lines kept from before a change are fetched anew, without a blank moment. */
  function refreshRows(): void {
    const first = new Set(ids.value.slice(0, 50));
    for (const id of rows.keys()) if (!first.has(id)) rows.delete(id);
  }

  /** Fetches the lines of a stretch of the ledger that are not here yet. */
  async function ensure(from: number, to: number): Promise<void> {
    const missing = ids.value.slice(Math.max(0, from), to).filter((id) => !rows.has(id) && !wanted.has(id));
    if (!missing.length) return;
    for (const id of missing) wanted.add(id);
    const mine = wanted;
    for (let i = 0; i < missing.length; i += AT_ONCE) {
      const part = missing.slice(i, i + AT_ONCE);
      try {
        const page = await fetchReply(routes.search.rows, { body: { ids: part, ...ask.body } });
        if (mine === wanted) for (const row of page.rows) rows.set(row.id, row);
      } catch {
        for (const id of part) wanted.delete(id);
      }
    }
  }

  watch(
    // By what it says: whoever comes back to Sources asks the same again.
    () => JSON.stringify(ask.params),
    () => {
      wanted = new Set();
      void load(false);
    },
  );
  // What others do comes in bursts; what is not on screen is fetched when it is again.
  let stale = false;
  const onScreen = (): boolean => route.name === 'sources';
  const refresh = useThrottleFn(
    () => {
      if (!onScreen()) return void (stale = true);
      stale = false;
      wanted = new Set();
      return load(true);
    },
    GATHER_MS,
    true,
    true,
  );
  live.listen((touched) => concerns(touched, ['source', 'tag']) && void refresh());
  watch(onScreen, (now) => now && stale && void refresh());

  /** The first answer; whoever comes back finds what was there, as far as nothing was touched meanwhile. */
  let begun = false;
  const begin = (): void => void (begun ||= (void load(false), true));

  const index = computed(() => new Map(ids.value.map((id, i) => [id, i])));
  const chosen = computed<string[]>(() =>
    selected.value.size ? ids.value.filter((id) => selected.value.has(id)) : cursor.value ? [cursor.value] : [],
  );

  function move(step: number, extend = false): void {
    follows.value = false;
    const at = cursor.value ? (index.value.get(cursor.value) ?? -1) : -1;
    const next = ids.value[Math.max(0, Math.min(ids.value.length - 1, at + step))];
    if (!next) return;
    if (extend) {
      anchor.value ??= cursor.value;
      selectRange(anchor.value!, next);
    } else anchor.value = null;
    cursor.value = next;
  }

  function selectRange(from: string, to: string): void {
    const [a, b] = [index.value.get(from) ?? 0, index.value.get(to) ?? 0].sort((x, y) => x - y) as [number, number];
    selected.value = new Set(ids.value.slice(a, b + 1));
  }

  function toggle(id: string): void {
    const next = new Set(selected.value);
    if (!next.delete(id)) next.add(id);
    selected.value = next;
    anchor.value = id;
  }

  /** A click on a line: alone it chooses, with Shift it selects a stretch, with Ctrl it adds one. */
  function click(id: string, event: { shiftKey: boolean; ctrlKey: boolean; metaKey: boolean }): void {
    follows.value = false;
    if (event.shiftKey) selectRange(anchor.value ?? cursor.value ?? id, id);
    else if (event.ctrlKey || event.metaKey) {
      if (!selected.value.size && cursor.value && cursor.value !== id) selected.value = new Set([cursor.value]);
      toggle(id);
    } else {
      selected.value = new Set();
      anchor.value = id;
    }
    cursor.value = id;
  }

  const selectAll = (): void => void (selected.value = new Set(ids.value));
  const unselect = (): void => void (selected.value = new Set());

  return {
    ids,
    rows,
    total,
    notes,
    state,
    error,
    partial,
    cursor,
    follows,
    held,
    selected,
    chosen,
    index,
    begin,
    load,
    ensure,
    move,
    toggle,
    click,
    selectAll,
    unselect,
  };
});
