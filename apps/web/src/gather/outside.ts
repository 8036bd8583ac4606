/** Searching outside: the catalogues, the log of searches, what one of them found, and the watches. */
import { useLocalStorage } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed, ref } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import {
  routes,
  type Catalogue,
  type FOUND_SORTS,
  type FoundPage,
  type FoundWork,
  type NewWatch,
  type Outside,
  type Search,
  type Watch,
} from '@pandecta/contract';
import { ask } from '../api/client.ts';
import { useChanges } from '../act/changes.ts';
import { useAsked } from '../data/asked.ts';
import { concerns } from '../data/live.ts';
import { makeList } from '../list/make.ts';
import { useSession } from '../session/store.ts';
import { useDestination } from './destination.ts';
import { useJobs } from './jobs.ts';

export const useOutside = defineStore('outside', () => {
  const route = useRoute();
  const router = useRouter();
  const session = useSession();
  const changes = useChanges();
  const destination = useDestination();
  const jobs = useJobs();
  const seen = (): boolean => route.path.startsWith('/gather');
  const asks = (): string | null => (session.may('gather') ? 'outside' : null);
  const touches = (touched: Parameters<typeof concerns>[0]): boolean => concerns(touched, ['outside']);

  const { data: known, reload: lookAtCatalogues } = useAsked({
    question: asks,
    fetch: (_, signal) => ask(routes.outside.catalogues, { signal }),
    concerns: touches,
    seen,
  });
  const { data: logged } = useAsked({
    question: asks,
    fetch: (_, signal) => ask(routes.outside.log, { signal }),
    concerns: touches,
    seen,
  });
  const { data: watched, reload: lookAtWatches } = useAsked({
    question: asks,
    fetch: (_, signal) => ask(routes.outside.watches, { signal }),
    concerns: touches,
    seen,
  });
  const catalogues = computed<Catalogue[]>(() => known.value?.catalogues ?? []);
  const log = computed<Search[]>(() => logged.value?.searches ?? []);
  const watches = computed<Watch[]>(() => watched.value?.watches ?? []);

  /** Those not asked: all are, unless one said otherwise. */
  const left = useLocalStorage<string[]>('catalogues not asked', []);
  const chosen = computed(() => catalogues.value.filter((c) => !left.value.includes(c.id)));
  const words = ref('');
  const author = ref('');
  const title = ref('');
  const years = ref<[string, string]>(['', '']);

  function question(): Outside {
    const year = (text: string): number | undefined => (/^\d{3,4}$/.test(text.trim()) ? Number(text) : undefined);
    const [yearFrom, yearTo] = [year(years.value[0]), year(years.value[1])];
    return {
      words: words.value.trim(),
      ...(author.value.trim() && { author: author.value.trim() }),
      ...(title.value.trim() && { title: title.value.trim() }),
      ...(yearFrom && { yearFrom }),
      ...(yearTo && { yearTo }),
    };
  }

  async function search(again?: Search): Promise<void> {
    const watched = watches.value.find((w) => w.id === again?.watch);
    // What a watch found at an address is looked for there again.
    if (watched && watched.kind !== 'search') return run(watched.id);
    const begun = await changes.attempt(() =>
      ask(routes.outside.search, {
        body: again
          ? {
              question: again.question,
              catalogues: again.asked.map((a) => a.id).filter((id) => catalogues.value.some((c) => c.id === id)),
            }
          : { question: question(), catalogues: chosen.value.map((c) => c.id) },
      }),
    );
    if (begun) await router.push(`/gather/search/${begun.id}`);
  }

  const openId = computed(() => (route.name === 'search' ? String(route.params.search) : null));
  const sort = ref<(typeof FOUND_SORTS)[number]>('found');
  const fresh = ref(false);
  const absent = ref(false);
  const about = ref<Search | null>(null);
  const asked = computed(() => ({
    search: openId.value ?? '',
    sort: sort.value,
    fresh: fresh.value || undefined,
    absent: absent.value || undefined,
  }));
  const list = makeList<typeof asked.value, FoundWork, FoundPage>({
    question: () => asked.value,
    async fetch({ search: id, ...query }, stretch, signal) {
      const { find: _find, ...part } = stretch;
      const page = await ask(routes.outside.found, {
        search: id,
        query: { ...query, ...part },
        ...(signal && { signal }),
      });
      about.value = page.search;
      return page;
    },
    ids: async ({ search: id, ...query }, from, count) =>
      (
        await ask(routes.outside.found, { search: id, query: { ...query, from, count: Math.min(count, 200) } })
      ).rows.map((r) => r.id),
    among: async (_, ids) => ids,
    // What was found stands still.
    places: async (_, ids) => ids.map(() => -1),
    concerns: (touched) => concerns(touched, ['outside'], openId.value ?? '') || concerns(touched, ['source']),
    seen: () => openId.value !== null,
  });

  /** Brings what is selected, or the one one is at, into the intake. */
  async function gather(): Promise<void> {
    const selection = list.selection.value;
    const ids = list.count.value
      ? selection.all
        ? undefined
        : [...selection.ids]
      : list.cursor.value
        ? [list.cursor.value]
        : [];
    if (ids && !ids.length) return;
    const { search: id, ...query } = asked.value;
    const { sort: _sort, ...which } = query;
    const begun = await changes.attempt(() =>
      ask(routes.outside.gather, {
        search: id,
        body: { ...which, ...(ids && { works: ids }), destination: destination.take() },
      }),
    );
    if (!begun) return;
    list.unselect();
    await jobs.look();
  }

  const more = async (): Promise<void> => {
    if (openId.value) about.value = await ask(routes.outside.more, { search: openId.value });
    await list.load(true);
  };
  const describe = async (why: string): Promise<void> => {
    if (openId.value) about.value = await ask(routes.outside.describe, { search: openId.value, body: { why } });
  };

  async function watchThis(body: NewWatch): Promise<boolean> {
    const made = await changes.attempt(() => ask(routes.outside.addWatch, { body }));
    if (!made) return false;
    await lookAtWatches();
    changes.tell(`Watching “${body.name}”: new works go to the intake`);
    return true;
  }
  const withWatch = async (deed: () => Promise<unknown>): Promise<void> => {
    await changes.attempt(deed);
    await lookAtWatches();
  };
  const run = (watch: string): Promise<void> => withWatch(() => ask(routes.outside.runWatch, { watch }));
  const pause = (watch: string, paused: boolean): Promise<void> =>
    withWatch(() => ask(routes.outside.pauseWatch, { watch, body: { paused } }));
  const unwatch = (watch: string): Promise<void> => withWatch(() => ask(routes.outside.removeWatch, { watch }));

  return {
    ...list,
    catalogues,
    lookAtCatalogues,
    chosen,
    left,
    log,
    watches,
    words,
    author,
    title,
    years,
    search,
    openId,
    sort,
    fresh,
    absent,
    about,
    gather,
    more,
    describe,
    watchThis,
    run,
    pause,
    unwatch,
  };
});
