/** A new password as it is typed: twice, and long enough. */
import { computed, ref } from 'vue';
import { LEAST_PASSWORD } from '@pandecta/contract';

export function useNewPassword() {
  const password = ref('');
  const again = ref('');
  /** What is wrong with each, once it is as long as it will be. */
  const trouble = computed(() => ({
    password: again.value && password.value.length < LEAST_PASSWORD ? `Shorter than ${LEAST_PASSWORD} characters` : '',
    again:
      again.value.length >= password.value.length && again.value !== password.value ? 'The passwords do not match' : '',
  }));
  const ready = computed(() => password.value.length >= LEAST_PASSWORD && again.value === password.value);
  const clear = (): void => void (password.value = again.value = '');
  return { password, again, trouble, ready, clear };
}
