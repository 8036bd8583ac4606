/** The note that is being written beside whatever one looks at: begun from a source, a mark or a place, from any stage. */
import { defineStore } from 'pinia';
import { ref } from 'vue';
import { routes, type NewNote } from '@pandecta/contract';
import { ask } from '../api/client.ts';
import { useChanges } from './changes.ts';

export const useNoting = defineStore('noting', () => {
  /** The note in the sheet; null while it is closed, `new` while nothing is written yet. */
  const open = ref<string | null>(null);
  /** What a new one begins with. */
  const begins = ref<NewNote>({});

  /** Opens the sheet. What quotes something is kept at once; an empty one when something is written. */
  async function begin(input: NewNote = {}): Promise<void> {
    if (!input.marks?.length && !input.text) {
      begins.value = input;
      open.value = 'new';
      return;
    }
    const done = await useChanges().change(() => ask(routes.notes.make, { body: input }));
    if (done?.id) open.value = done.id;
  }
  const close = (): void => void (open.value = null);
  return { open, begins, begin, close };
});
