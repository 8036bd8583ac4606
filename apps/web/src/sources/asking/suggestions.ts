/** What may go on at the caret: fields, and the values of the one that is being written. */
import { refDebounced } from '@vueuse/core';
import { computed, type Ref } from 'vue';
import { routes } from '@pandecta/contract';
import { FIELD_NAMES, fieldNamed, fieldOf, QUERY_FIELDS, typingAt, valuesOf, written } from '@pandecta/core/query';
import { ask } from '../../api/client.ts';
import { useAsked } from '../../data/asked.ts';
import type { Offered } from '../../kit/offers.ts';

export interface Suggestion extends Offered {
  /** What is written in place of what stands there. */
  text: string;
}

/** As long as a name may be that is offered of a field. */
const MOST_FIELDS = 5;
const LEAST_LETTERS = 2;
const PAUSE_MS = 60;

export function useSuggestions(text: Ref<string>, caret: Ref<number>, open: Ref<boolean>) {
  const typing = computed(() => (open.value ? typingAt(text.value, caret.value) : undefined));
  const question = computed(() => {
    const { field, begun } = typing.value ?? {};
    return field && !valuesOf(field) ? { field, begins: begun! } : null;
  });
  const settled = refDebounced(question, PAUSE_MS);
  const { data: reply } = useAsked({
    question: () => settled.value,
    fetch: async (query, signal) => ({ ...query, ...(await ask(routes.search.suggest, { query, signal })) }),
    concerns: () => false,
  });

  const entries = computed<Suggestion[]>(() => {
    const now = typing.value;
    if (!now) return [];
    const { field, begun } = now;
    if (!field) return begun.length < LEAST_LETTERS ? [] : fieldsBegun(begun.toLowerCase());
    const known = valuesOf(field);
    const wanted = begun.toLowerCase();
    if (known)
      return Object.entries(known)
        .filter(([value, name]) => value.startsWith(wanted) || name.toLowerCase().startsWith(wanted))
        .map(([value, name]) => ({ key: value, name, hint: '', text: written(field, value) }));
    const values = reply.value?.field === field ? reply.value.values : [];
    return values.map(({ value, count, says = '' }) => ({
      key: value,
      name: value,
      hint: says,
      ...(count !== undefined && { count }),
      text: written(field, value),
    }));
  });
  return { typing, entries };
}

/** Fields by any of their names, each once. */
function fieldsBegun(begun: string): Suggestion[] {
  const names = FIELD_NAMES.filter((n) => n.startsWith(begun));
  const fields = QUERY_FIELDS.filter((f) => names.some((n) => fieldNamed(n) === f));
  return fields.slice(0, MOST_FIELDS).map((f) => {
    const name = names.find((n) => fieldNamed(n) === f)!;
    return { key: f, name: `${name}:`, hint: fieldOf(f).name, text: `${name}:` };
  });
}
