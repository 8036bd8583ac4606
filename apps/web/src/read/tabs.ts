/** The documents that are open, each with the place one was at. */
import { defineStore } from 'pinia';
import { useLocalStorage } from '@vueuse/core';
import { computed } from 'vue';
import type { Turn } from '@pandecta/core/marks';

export interface Tab {
  source: string;
  file: string;
  title: string;
  page: number;
  /** Pixels a point; none to fit the width. */
  zoom?: number | null;
  turn?: Turn;
}

export const useTabs = defineStore('tabs', () => {
  const open = useLocalStorage<Tab[]>('open documents', []);
  const last = useLocalStorage<string>('last document', '');
  const current = computed(() => open.value.find((t) => t.file === last.value) ?? open.value.at(-1));

  function show(tab: Pick<Tab, 'source' | 'file' | 'title'>): Tab {
    last.value = tab.file;
    const known = open.value.find((t) => t.file === tab.file);
    if (known) return Object.assign(known, { title: tab.title, source: tab.source });
    const made = { ...tab, page: 1 };
    open.value.push(made);
    return open.value.at(-1)!;
  }

  /** Closes a document; gives the one to show instead. */
  function close(file: string): Tab | undefined {
    const at = open.value.findIndex((t) => t.file === file);
    open.value.splice(at, 1);
    return open.value[Math.min(at, open.value.length - 1)];
  }

  return { open, last, current, show, close };
});
