/** What other stages may take of this one: the question in the address, and the reading state of a source. */
export { useAsk } from './ask.ts';
export { default as ReadingSelect } from './ReadingSelect.vue';
