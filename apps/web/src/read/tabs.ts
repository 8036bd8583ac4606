/** The documents that are open, and the place one was at in each: one's own, kept by the server. */
import { defineStore } from 'pinia';
import { useDebounceFn, useLocalStorage } from '@vueuse/core';
import { computed, watch } from 'vue';
import { MOST_PLACES_KEPT, routes, type OpenDocument, type PlaceInDocument } from '@pandecta/contract';
import { ask } from '../api/client.ts';
import { useSession } from '../session/store.ts';

/** In milliseconds: who scrolls through a document sends its place once they stop. */
const QUIET = 1000;

export const useTabs = defineStore('tabs', () => {
  const session = useSession();
  const key = `open documents ${session.workspace?.id ?? ''} ${session.user?.userId ?? ''}`;
  const open = useLocalStorage<OpenDocument[]>(key, []);
  /** The newest last. */
  const places = useLocalStorage<PlaceInDocument[]>(`${key} places`, []);
  const last = useLocalStorage<string>(`${key} last`, '');
  const current = computed(() => open.value.find((t) => t.file === last.value) ?? open.value.at(-1));
  /** Whether one opened or closed something before the server answered. */
  let isTouched = false;

  const send = useDebounceFn(() => {
    const body = { open: open.value, places: places.value, ...(last.value && { last: last.value }) };
    // It is here as well: what is not sent now is sent with the next.
    void ask(routes.own.keepOpen, { body }).catch(() => undefined);
  }, QUIET);

  /** What was open on another machine. */
  const loaded = (async () => {
    const kept = await ask(routes.own.openDocuments, {}).catch(() => undefined);
    if (kept) {
      const here = open.value.filter((t) => !kept.open.some((k) => k.file === t.file));
      // What was opened before the answer came stays open.
      open.value = isTouched ? [...kept.open, ...here] : kept.open;
      const newer = places.value.filter((p) => !kept.places.some((k) => k.file === p.file));
      places.value = [...kept.places, ...newer].slice(-MOST_PLACES_KEPT);
      if (!isTouched) last.value = kept.last ?? '';
    }
    watch([open, places, last], send, { deep: true });
  })();

  function show(tab: OpenDocument): void {
    isTouched = true;
    last.value = tab.file;
    const there = open.value.find((t) => t.file === tab.file);
    if (there) Object.assign(there, tab);
    else open.value.push({ ...tab });
  }

  /** Closes a document; gives the one to show instead. Its place is kept. */
  function close(file: string): OpenDocument | undefined {
    isTouched = true;
    const at = open.value.findIndex((t) => t.file === file);
    open.value.splice(at, 1);
    return open.value[Math.min(at, open.value.length - 1)];
  }

  const placeOf = (file: string): PlaceInDocument | undefined => places.value.find((p) => p.file === file);
  /** What is not said of the place stays as it was kept. */
  function keep(place: PlaceInDocument): void {
    const others = places.value.filter((p) => p.file !== place.file);
    places.value = [...others, { ...placeOf(place.file), ...place }].slice(-MOST_PLACES_KEPT);
  }

  return { open, last, current, show, close, placeOf, keep, loaded };
});
