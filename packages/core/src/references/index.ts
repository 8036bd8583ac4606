export { eachReference } from './each.ts';
export { readNames } from './names.ts';
export { looksLikeReference, readReference, type ReadReference } from './read.ts';
export { respan } from './respan.ts';
export { SPAN_FIELDS, type Span, type SpanField } from './spans.ts';
export { splitReferences, type Piece } from './split.ts';
