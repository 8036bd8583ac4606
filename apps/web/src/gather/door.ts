import { ref } from 'vue';

/** What stands in the box, from wherever it was pasted. */
export const typed = ref('');
