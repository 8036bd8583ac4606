/**
 * The one of several one is at. It is held by what it is: where others come or go, by anybody's hand, one stays at it; and
 * where it goes itself, one is at what took its place.
 */
import { computed, ref, watch, type ComputedRef, type Ref } from 'vue';

export interface Held<T> {
  /** Which one it is; where that is not there, the one at its place is meant. */
  id: Ref<string>;
  place: ComputedRef<number>;
  current: ComputedRef<T | undefined>;
  go(to: number): void;
  step(by: number): void;
}

export function useHeld<T extends { id: string }>(all: () => readonly T[]): Held<T> {
  const id = ref('');
  const last = ref(0);
  const within = (to: number): number => Math.max(0, Math.min(all().length - 1, to));
  const place = computed(() => {
    const at = all().findIndex((one) => one.id === id.value);
    return at >= 0 ? at : within(last.value);
  });
  const current = computed(() => all()[place.value]);
  watch(
    [place, () => current.value?.id],
    ([at, is]) => {
      // While nothing is there, it may come back.
      if (is === undefined) return;
      last.value = at;
      id.value = is;
    },
    { immediate: true, flush: 'sync' },
  );

  function go(to: number): void {
    id.value = all()[within(to)]?.id ?? '';
  }
  return { id, place, current, go, step: (by) => go(place.value + by) };
}
