/** Where what is gathered goes: chosen before it arrives, remembered, and the last few at hand. */
import { useLocalStorage } from '@vueuse/core';
import { defineStore } from 'pinia';
import { computed, watch } from 'vue';
import type { Destination } from '@pandecta/contract';
import { same } from '@pandecta/core/source';
import { usePlaces } from '../places/store.ts';
import { useSession } from '../session/store.ts';

export type Chosen = Pick<Destination, 'collections' | 'tags' | 'reading' | 'folders' | 'known'> & { note: string };

const NOWHERE: Chosen = { collections: [], tags: [], reading: null, note: '' };
/** How many are remembered beside the one that is set. */
const REMEMBERED = 5;

export const useDestination = defineStore('destination', () => {
  const places = usePlaces();
  const session = useSession();
  const here = session.workspace?.id ?? '';
  const set = useLocalStorage<Chosen>(`destination ${here}`, { ...NOWHERE });
  const recent = useLocalStorage<Chosen[]>(`destinations ${here}`, []);
  const known = computed(() => new Set(places.flat.map((c) => c.id)));
  // A collection may have been removed since.
  watch(known, (now) => {
    if (now.size) set.value.collections = set.value.collections.filter((id) => now.has(id));
  });

  /** Without the note, which belongs to one gathering. */
  const isEmpty = (d: Chosen): boolean => !d.collections.length && !d.tags.length && !d.reading;
  const bare = (d: Chosen): Chosen => ({ ...d, note: '' });
  const inWords = (d: Chosen): string =>
    [...d.collections.map((id) => places.pathOf(id)), ...d.tags, ...(d.reading ? [d.reading] : [])]
      .filter(Boolean)
      .join(', ') || 'in no collection yet';
  const others = computed(() => recent.value.filter((r) => !isEmpty(r) && !same(bare(r), bare(set.value))));

  function addCollection(id: string): void {
    if (!set.value.collections.includes(id)) set.value.collections = [...set.value.collections, id];
  }
  function addTag(name: string): void {
    if (!set.value.tags.some((t) => t.toLowerCase() === name.toLowerCase())) set.value.tags = [...set.value.tags, name];
  }
  const choose = (d: Chosen): void => void (set.value = { ...bare(d), note: set.value.note });

  /** As it goes with a gathering, which is remembered from then on; the note is used up. */
  function take(): Destination {
    const { note, ...rest } = set.value;
    recent.value = [bare(set.value), ...others.value].slice(0, REMEMBERED + 1);
    set.value = bare(set.value);
    return { ...rest, ...(note.trim() && { note: note.trim() }) };
  }

  return { set, others, inWords, addCollection, addTag, choose, take };
});
