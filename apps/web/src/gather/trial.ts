/** Something outside is tried before it is added: what came of it, or why it could not be tried. */
import { ref, type Ref } from 'vue';
import type { Tried } from '@pandecta/contract';

export function useTrial(): { tried: Ref<Tried | null>; attempt: (of: () => Promise<Tried>) => Promise<void> } {
  const tried = ref<Tried | null>(null);
  return {
    tried,
    async attempt(of) {
      tried.value = null;
      try {
        tried.value = await of();
      } catch (error) {
        tried.value = { answered: false, says: (error as Error).message };
      }
    },
  };
}
