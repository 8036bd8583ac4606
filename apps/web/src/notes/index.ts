/** What others may take of this stage. */
export { default as NoteSheet } from './NoteSheet.vue';
export { useNotesCount } from './count.ts';
