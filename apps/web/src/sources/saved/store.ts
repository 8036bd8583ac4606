/** Saved searches in their folders, with how many sources each finds now. */
import { refDebounced, useTimeoutFn } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed, ref } from 'vue';
import { useRoute } from 'vue-router';
import {
  routes,
  type Changed,
  type EditFolder,
  type EditSavedSearch,
  type ManySearches,
  type NewSavedSearch,
  type SavedFolder,
  type SavedSearch,
  type WatchSearch,
} from '@pandecta/contract';
import { useChanges } from '../../act/changes.ts';
import { ask } from '../../api/client.ts';
import { useAsked } from '../../data/asked.ts';
import { concerns } from '../../data/live.ts';
import { useAsk } from '../ask.ts';

const RESTED_MS = 1200;

export interface SavedBranch {
  folder: SavedFolder | null;
  folders: SavedBranch[];
  searches: SavedSearch[];
}

export const useSaved = defineStore('saved', () => {
  const { change, attempt } = useChanges();
  const route = useRoute();
  const seen = (): boolean => route.name === 'sources' || route.name === 'saved';
  const { data: list, reload } = useAsked({
    question: () => 'saved',
    fetch: (_, signal) => ask(routes.saved.list, { signal }),
    concerns: (touched) => concerns(touched, ['saved', 'folder']),
    seen,
  });
  // The list goes first: what many searches find is asked for once one has rested, and not while one writes.
  const asking = useAsk();
  const begun = ref(false);
  useTimeoutFn(() => (begun.value = true), RESTED_MS);
  const written = refDebounced(
    computed(() => asking.text),
    RESTED_MS,
  );
  const rests = (): boolean => seen() && begun.value && written.value === asking.text;
  const { data: counted, reload: count } = useAsked({
    question: () => 'saved counts',
    fetch: (_, signal) => ask(routes.saved.counts, { signal }),
    concerns: (touched) => concerns(touched, ['saved', 'source', 'collection', 'tag', 'label', 'mark', 'words']),
    seen: rests,
  });

  const counts = computed(() => new Map((counted.value?.counts ?? []).map((c) => [c.id, c.count])));
  /** How many one has not seen, of those one watches. */
  const fresh = computed(() => new Map((counted.value?.counts ?? []).map((c) => [c.id, c.fresh ?? 0])));
  const byId = computed(() => new Map((list.value?.searches ?? []).map((s) => [s.id, s])));
  const folders = computed(() => list.value?.folders ?? []);

  /** Those whose name, purpose or keywords have what was typed, in the folders that hold any. */
  function tree(typed = ''): SavedBranch {
    const wanted = typed.trim().toLowerCase();
    const fits = (s: SavedSearch): boolean =>
      !wanted || [s.name, s.describes, s.madeBy, ...s.keywords].some((t) => t.toLowerCase().includes(wanted));
    const under = (folder: SavedFolder | null, above: string[]): SavedBranch => {
      const id = folder?.id ?? null;
      return {
        folder,
        folders: folders.value
          .filter((f) => f.parent === id && !above.includes(f.id))
          .map((f) => under(f, [...above, f.id]))
          .filter((b) => !wanted || b.searches.length || b.folders.length),
        searches: (list.value?.searches ?? []).filter((s) => s.folder === id && fits(s)),
      };
    };
    return under(null, []);
  }

  const keep = (body: NewSavedSearch): Promise<Changed | undefined> => change(() => ask(routes.saved.keep, { body }));
  const edit = (saved: string, body: EditSavedSearch): Promise<unknown> =>
    change(() => ask(routes.saved.edit, { saved, body }));
  const remove = (saved: string): Promise<unknown> => change(() => ask(routes.saved.remove, { saved }));
  const many = (body: ManySearches): Promise<unknown> => change(() => ask(routes.saved.many, { body }));
  /** Watching is no change of the workspace: nothing is told of it but to oneself. */
  const settle = async (deed: () => Promise<unknown>): Promise<void> => {
    await attempt(deed);
    await Promise.all([reload(), count()]);
  };
  const watch = (saved: string, body: WatchSearch): Promise<void> =>
    settle(() => ask(routes.saved.watch, { saved, body }));
  const see = (saved: string): Promise<void> => settle(() => ask(routes.saved.see, { saved }));
  const makeFolder = (name: string, parent: string | null, shared: boolean): Promise<Changed | undefined> =>
    change(() => ask(routes.saved.makeFolder, { body: { name, parent, shared } }));
  const editFolder = (folder: string, body: EditFolder): Promise<unknown> =>
    change(() => ask(routes.saved.editFolder, { folder, body }));
  const removeFolder = (folder: string): Promise<unknown> => change(() => ask(routes.saved.removeFolder, { folder }));

  return {
    list,
    counts,
    fresh,
    byId,
    folders,
    tree,
    keep,
    edit,
    remove,
    many,
    watch,
    see,
    makeFolder,
    editFolder,
    removeFolder,
  };
});
