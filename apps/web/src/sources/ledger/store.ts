/** The sources that match, as a list; and what is chosen of them, for whatever is to be done with it. */
import { useSessionStorage } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed, ref, watch } from 'vue';
import { useRoute } from 'vue-router';
import { routes, type Chosen, type SourcePage, type SourceRow } from '@pandecta/contract';
import { ask as fetchReply } from '../../api/client.ts';
import { concerns } from '../../data/live.ts';
import { makeList } from '../../list/make.ts';
import { useAsk } from '../ask.ts';
import { useLook } from './columns.ts';

export const useLedger = defineStore('ledger', () => {
  const ask = useAsk();
  const look = useLook();
  const route = useRoute();
  const notes = ref<SourcePage['notes']>([]);
  /** Somebody is in the ask line: what is to be said of the words stands there. */
  const isAsking = ref(false);
  /** Why nothing matches. */
  const why = ref<string[]>([]);
  /** A source being edited stays chosen, even when it no longer matches. */
  const held = ref<string | null>(null);
  /** The line was chosen by an answer while one types, not by the person. */
  const follows = ref(false);
  /** The line one was at, for when the page is loaded anew. */
  const last = useSessionStorage('chosen source', '');
  let fresh = true;
  /** Words were still being read in when it was answered: what is told of them concerns it. */
  let settling = false;
  /** Words were told of since it was last asked. */
  let toldOfWords = false;

  const list = makeList<typeof ask.params, SourceRow, SourcePage>({
    question: () => ask.params,
    fetch(question, stretch, signal) {
      if (!stretch.from) toldOfWords = false;
      const query = { ...question, ...stretch, ...(look.density === 'full' && { abstracts: true }) };
      return fetchReply(routes.search.page, { query, ...(signal && { signal }) });
    },
    ids: async (question, from, count) =>
      (await fetchReply(routes.search.ids, { query: { ...question, from, count } })).ids,
    among: async (_, ids) => (await fetchReply(routes.search.among, { body: { ...ask.body, ids } })).ids,
    places: async (question, ids, signal) =>
      (await fetchReply(routes.search.places, { body: { ...question, ids }, ...(signal && { signal }) })).places,
    concerns(touched) {
      const words = concerns(touched, ['words']);
      toldOfWords ||= words;
      // What stands in a collection that is removed, or of which another rule is said, is another answer.
      return (
        (words && settling) ||
        concerns(touched, ['source', 'tag', ...(ask.collection ? (['collection'] as const) : [])])
      );
    },
    seen: () => route.name === 'sources',
    named: () => ask.at,
    begins: () => (fresh && last.value ? last.value : undefined),
    holds: () => held.value,
    answered(first, again) {
      notes.value = first.notes;
      why.value = first.why ?? [];
      fresh = false;
      if (!again) follows.value = Boolean(ask.params.typing) && !ask.at;
      settling = Boolean(first.settling);
      if (settling && toldOfWords) void list.load(true);
    },
  });
  // Their abstracts were not asked for before.
  watch(
    () => look.density,
    (now) => now === 'full' && void list.load(true),
  );
  watch(list.cursor, (id) => id && !fresh && (last.value = id));

  /** Somebody goes on from the line one was at: neither the answer nor the address says where one is any more. */
  function goOn(): void {
    follows.value = false;
    ask.leaveAt();
  }
  const move = (step: number, extend = false): Promise<void> => (goOn(), list.move(step, extend));
  const click: typeof list.click = (id, event) => (goOn(), list.click(id, event));

  /** What is chosen: what is selected, or the line one is at. */
  const chosen = computed<Chosen | null>(() => {
    const selection = list.selection.value;
    if (!list.count.value) return list.cursor.value ? { ids: [list.cursor.value] } : null;
    return selection.all ? { matching: ask.body, except: [...selection.except] } : { ids: [...selection.ids] };
  });
  const chosenCount = computed(() => list.count.value || (list.cursor.value ? 1 : 0));
  /** The one source that is chosen, where it is one. */
  const single = computed(() => {
    const selection = list.selection.value;
    if (list.count.value > 1) return null;
    return list.count.value === 1 && !selection.all ? [...selection.ids][0]! : list.cursor.value;
  });

  return { ...list, notes, isAsking, why, held, follows, move, click, chosen, chosenCount, single };
});
