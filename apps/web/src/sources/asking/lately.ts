/** The fields one built with last: they stay at hand. */
import { useLocalStorage, type RemovableRef } from '@vueuse/core';
import type { QueryField } from '@pandecta/core/query';

const MOST = 5;

export const useLately = (): RemovableRef<QueryField[]> => useLocalStorage<QueryField[]>('fields used lately', []);

export const usedNow = (lately: QueryField[], field: QueryField): QueryField[] =>
  [field, ...lately.filter((f) => f !== field)].slice(0, MOST);
