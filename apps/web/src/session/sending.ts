/** A form that is sent: whether it is on its way, and what was wrong with it. */
import { ref } from 'vue';

/** @param failed told what was wrong, where more than its words is wanted */
export function useSending(work: () => Promise<unknown>, failed: (error: unknown) => void = () => {}) {
  const error = ref('');
  const busy = ref(false);
  async function submit(): Promise<void> {
    busy.value = true;
    error.value = '';
    try {
      await work();
    } catch (e) {
      error.value = (e as Error).message;
      failed(e);
    } finally {
      busy.value = false;
    }
  }
  return { error, busy, submit };
}
