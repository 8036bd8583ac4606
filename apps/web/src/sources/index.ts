/** What other stages may take of this one: the question in the address, and parts that show and edit one source. */
export { addressOfAsk, useAsk } from './ask.ts';
export { useFindingDeeds } from './findings.ts';
export { useBatch } from './batch.ts';
export { default as BeforeAfter } from './BeforeAfter.vue';
export { default as FileTo } from './collections/FileTo.vue';
export { default as GlossesBlock } from './one/GlossesBlock.vue';
export { default as PlacesBlock } from './one/PlacesBlock.vue';
export { default as ReadingSelect } from './ReadingSelect.vue';
export { default as RecordEditor } from './RecordEditor.vue';
export { useSaved } from './saved/store.ts';
export { default as SourceFindings } from './SourceFindings.vue';
export { hintOf, textToField, troubleOf } from './fields.ts';
export { inOrder, KIND_CHOICES, originInWords, valueInWords } from './values.ts';
export { default as TagInput } from './TagInput.vue';
