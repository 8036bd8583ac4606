/** Tables alone: what a page needs of them, without the readers of all other formats. */
export { COLUMN_FIELDS } from './columns.ts';
export { eachRow, previewTable } from './read.ts';
export { tableOf } from './write.ts';
