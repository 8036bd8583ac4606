/** A new password as it is typed: twice, and long enough. */
import { computed, ref } from 'vue';
import { LEAST_PASSWORD } from '@pandecta/contract';

export function useNewPassword() {
  const password = ref('');
  const repeated = ref('');
  /** What is wrong with each, once it is as long as it will be. */
  const errors = computed(() => ({
    password:
      repeated.value && password.value.length < LEAST_PASSWORD ? `Shorter than ${LEAST_PASSWORD} characters` : '',
    repeated:
      repeated.value.length >= password.value.length && repeated.value !== password.value
        ? 'The passwords do not match'
        : '',
  }));
  const ready = computed(() => password.value.length >= LEAST_PASSWORD && repeated.value === password.value);
  const clear = (): void => void (password.value = repeated.value = '');
  return { password, repeated, errors, ready, clear };
}
