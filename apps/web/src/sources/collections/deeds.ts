/** What is being done to a collection that needs a word more: another one chosen, or something said of it. */
import { defineStore } from 'pinia';
import { shallowRef } from 'vue';
import type { Branch } from '../../places/store.ts';

/** `move`: under another; `place`: elsewhere as well; `merge`: another becomes part of it; `compare`: with others. */
export type Choice = 'move' | 'place' | 'merge' | 'compare';

export const useCollectionDeeds = defineStore('collection deeds', () => {
  const choosing = shallowRef<{ what: Choice; branch: Branch } | null>(null);
  const describing = shallowRef<Branch | null>(null);
  /** What letting go of what is dragged would do. */
  const wouldDo = shallowRef('');
  return { choosing, describing, wouldDo };
});
