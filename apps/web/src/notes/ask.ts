/** What the Notes stage shows, in the address. */
import { computed, type ComputedRef } from 'vue';
import { useRoute, useRouter } from 'vue-router';
import { NOTE_FROMS, type NoteFrom, type NotesAsked } from '@pandecta/contract';
import { allOf as all, firstOf as one } from '../data/address.ts';

export const VIEWS = ['list', 'timeline', 'web', 'outlines'] as const;
export type View = (typeof VIEWS)[number];

const year = (text: string | undefined): number | undefined =>
  /^-?\d{1,5}$/.test(text ?? '') ? Number(text) : undefined;

export function useNotesAsk() {
  const route = useRoute();
  const router = useRouter();
  const asked: ComputedRef<NotesAsked> = computed(() => {
    const { q, about, tag, from, whose, source } = route.query;
    const [yearFrom, yearTo] = [year(one(route.query.since)), year(one(route.query.until))];
    const froms = all(from).filter((f): f is NoteFrom => (NOTE_FROMS as readonly string[]).includes(f));
    return {
      ...(one(q) && { q: one(q) }),
      ...(all(about).length && { about: all(about) }),
      ...(all(tag).length && { tags: all(tag) }),
      ...(froms.length && { from: froms }),
      ...((one(whose) === 'own' || one(whose) === 'shared') && { whose: one(whose) as 'own' | 'shared' }),
      ...(one(source) && { source: one(source) }),
      ...(yearFrom !== undefined && { yearFrom }),
      ...(yearTo !== undefined && { yearTo }),
    };
  });
  const view = computed<View>(() => VIEWS.find((v) => v === one(route.query.view)) ?? 'list');
  const sort = computed(() => one(route.query.sort)?.split(',') ?? ['event', 'title']);
  /** The note that is open, or the heading. */
  const note = computed(() => one(route.query.note));
  const heading = computed(() => one(route.query.heading));

  function put(query: Record<string, string | string[] | undefined>): Promise<unknown> {
    const next = { ...route.query, ...query };
    return router.replace({
      path: '/notes',
      query: Object.fromEntries(Object.entries(next).filter(([, v]) => v?.length)),
    });
  }
  const toggle = (name: string, key: string): Promise<unknown> => {
    const now = all(route.query[name]);
    return put({ [name]: now.includes(key) ? now.filter((k) => k !== key) : [...now, key] });
  };
  const open = (id: string): Promise<unknown> => put({ note: id, heading: undefined });
  const openHeading = (id: string): Promise<unknown> => put({ heading: id, note: undefined });
  const isNarrowed = computed(() => Object.keys(asked.value).length > 0);
  const clear = (): Promise<unknown> =>
    router.replace({ path: '/notes', query: { ...(view.value !== 'list' && { view: view.value }) } });
  return { asked, view, sort, note, heading, put, toggle, open, openHeading, isNarrowed, clear };
}
