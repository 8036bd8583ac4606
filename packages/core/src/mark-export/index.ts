/** Marks across sources as a file, each with citation and page. */
export {
  bySource,
  MARK_FORMATS,
  MARK_INFO,
  shortCitation,
  whatOf,
  wordsOf,
  writeMarks,
  type ExportedMark,
  type MarkFormat,
} from './write.ts';
