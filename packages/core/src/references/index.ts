export { applyLearnt, learn, type Correction } from './learn.ts';
export { listedReferences, MOST_REFERENCES, type ListedReference } from './list.ts';
export { eachReference } from './each.ts';
export { readCitation } from './law.ts';
export { readNames } from './names.ts';
export { looksLikeReference, readReference, type ReadReference } from './read.ts';
export { respan, valueOf } from './respan.ts';
export { SPAN_FIELDS, type Span, type SpanField } from './spans.ts';
export { splitReferences, type Piece } from './split.ts';
