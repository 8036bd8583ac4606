import { ref } from 'vue';

/** The collection chosen before a gathering. */
export const destination = ref<string | undefined>();
