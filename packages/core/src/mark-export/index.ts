/** Marks across sources as a file, each with citation and page. */
export { MARK_FORMATS, MARK_INFO, writeMarks, type ExportedMark, type MarkFormat } from './write.ts';
