/** What waits to be taken in, as a list; and what is done with it. */
import { defineStore } from 'pinia';
import { computed, ref, shallowRef } from 'vue';
import { useRoute } from 'vue-router';
import { routes, type Batch, type Chosen, type IntakePage, type IntakeRow, type Respan } from '@pandecta/contract';
import { ask } from '../api/client.ts';
import { useChanges } from '../act/changes.ts';
import { useAsked } from '../data/asked.ts';
import { concerns } from '../data/live.ts';
import { makeList } from '../list/make.ts';
import { useSession } from '../session/store.ts';
import { useJobs } from './jobs.ts';

export const useIntake = defineStore('intake', () => {
  const route = useRoute();
  const session = useSession();
  const { attempt, change } = useChanges();
  const jobs = useJobs();
  const scope = ref<'intake' | 'aside'>('intake');
  const missing = ref<string | null>(null);
  const sort = ref('');
  /** One whose record is being mended stays chosen, even when it no longer matches. */
  const held = ref<string | null>(null);
  const batches = shallowRef(new Map<string, Batch>());
  const seen = (): boolean => route.path.startsWith('/gather');
  const question = computed(() => ({
    scope: scope.value,
    include: missing.value ? [`lacks=${missing.value}`] : undefined,
    sort: sort.value || undefined,
  }));

  const list = makeList<typeof question.value, IntakeRow, IntakePage>({
    question: () => question.value,
    async fetch(asked, stretch, signal) {
      const page = await ask(routes.intake.page, { query: { ...asked, ...stretch }, ...(signal && { signal }) });
      batches.value = new Map([...batches.value, ...page.batches.map((b) => [b.id, b] as const)]);
      return page;
    },
    ids: async (asked, from, count) => (await ask(routes.search.ids, { query: { ...asked, from, count } })).ids,
    among: async (_, ids) => (await ask(routes.search.among, { body: { ...question.value, ids } })).ids,
    places: async (asked, ids, signal) =>
      (await ask(routes.search.places, { body: { ...asked, ids }, ...(signal && { signal }) })).places,
    concerns: (touched) => concerns(touched, ['source', 'tag']),
    seen,
    holds: () => held.value,
  });

  const { data: figures } = useAsked({
    question: () => (session.may('gather') ? 'figures' : null),
    fetch: (_, signal) => ask(routes.intake.summary, { signal }),
    concerns: (touched) => concerns(touched, ['source']),
    seen,
  });
  const { data: narrowed } = useAsked({
    question: () => (session.may('gather') ? { scope: scope.value } : null),
    fetch: (query, signal) => ask(routes.search.narrow, { query, signal }),
    concerns: (touched) => concerns(touched, ['source']),
    seen,
  });
  const lacking = computed(() => narrowed.value?.facets.find((f) => f.type === 'lacks')?.values ?? []);

  const chosen = computed<Chosen | null>(() => {
    const selection = list.selection.value;
    if (!list.count.value) return list.cursor.value ? { ids: [list.cursor.value] } : null;
    return selection.all ? { matching: question.value, except: [...selection.except] } : { ids: [...selection.ids] };
  });

  /** Goes to another line of the list, wherever it stands. */
  async function show(id: string): Promise<void> {
    const { at } = await ask(routes.intake.page, { query: { ...question.value, from: 0, count: 1, find: id } });
    if (at !== undefined) await list.go(at);
  }

  async function bringListed(source: string, items: number[]): Promise<void> {
    const begun = await attempt(() => ask(routes.intake.listed, { source, body: { items } }));
    if (begun) await jobs.look();
  }
  const fetchPdf = (source: string): Promise<unknown> => change(() => ask(routes.intake.fetchPdf, { source }));
  const takeIn = (which: Chosen, complete = false): Promise<unknown> =>
    change(() => ask(routes.intake.takeIn, { body: { ...which, ...(complete && { complete }) } }));
  const joinCertain = (which: Chosen): Promise<unknown> =>
    change(() => ask(routes.intake.joinCertain, { body: which }));
  const setAside = (which: Chosen, aside = true): Promise<unknown> =>
    change(() => ask(routes.intake.setAside, { body: { ...which, aside } }));
  const join = (source: string, to: string): Promise<unknown> =>
    change(() => ask(routes.intake.join, { source, body: { to } }));
  const respan = (source: string, body: Respan): Promise<unknown> =>
    change(() => ask(routes.intake.respan, { source, body }));
  const lookUp = (source: string): Promise<unknown> => change(() => ask(routes.intake.lookUp, { source }));
  const lookUpMany = (which: Chosen): Promise<unknown> => change(() => ask(routes.intake.lookUpMany, { body: which }));

  return {
    ...list,
    scope,
    missing,
    sort,
    held,
    batches,
    figures,
    lacking,
    chosen,
    takeIn,
    bringListed,
    fetchPdf,
    joinCertain,
    show,
    setAside,
    join,
    respan,
    lookUp,
    lookUpMany,
  };
});
