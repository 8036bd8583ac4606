/** What other stages may take of this one: the question in the address, and parts that show and edit one source. */
export { useAsk } from './ask.ts';
export { default as ReadingSelect } from './ReadingSelect.vue';
export { default as RecordEditor } from './RecordEditor.vue';
export { inOrder, valueInWords } from './values.ts';
export { default as TagInput } from './TagInput.vue';
