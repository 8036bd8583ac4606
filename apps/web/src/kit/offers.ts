/** What is offered while one writes: arrows go through it, Enter or Tab takes the one that is marked. */
import { computed, ref, useId, watch, type Ref } from 'vue';

export interface Offered {
  key: string;
  name: string;
  hint?: string;
  count?: number;
}

export function useOffers<E extends Offered>(entries: Ref<E[]>, take: (entry: E) => unknown) {
  const id = useId();
  const active = ref(-1);
  watch(entries, () => (active.value = -1));

  /** @returns whether the key was meant for what is offered */
  function key(event: KeyboardEvent): boolean {
    const n = entries.value.length;
    const chosen = entries.value[active.value];
    if (!n) return false;
    if (event.key === 'ArrowDown') active.value = (active.value + 1) % n;
    else if (event.key === 'ArrowUp') active.value = (active.value <= 0 ? n : active.value) - 1;
    else if (chosen && (event.key === 'Enter' || event.key === 'Tab')) void take(chosen);
    else return false;
    event.preventDefault();
    return true;
  }

  /** What tells those who do not see it that something is offered. */
  const attributes = computed(() => ({
    role: 'combobox',
    autocomplete: 'off',
    'aria-autocomplete': 'list',
    'aria-expanded': entries.value.length > 0,
    'aria-controls': id,
    'aria-activedescendant': active.value >= 0 ? `${id} ${active.value}` : undefined,
  }));
  return { id, active, key, attributes };
}
