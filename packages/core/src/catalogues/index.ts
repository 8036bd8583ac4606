export { askingFor, type Asking } from './asking.ts';
export { LISTING_KINDS, LISTINGS, PROTOCOL_NAMES, type ListingKind, type ProtocolName } from './names.ts';
export { readListing } from './listings.ts';
export { oaiAddress, type Harvested } from './oai.ts';
export type { OutsideAnswer, OutsideEntry, Protocol } from './protocol.ts';
export { PROTOCOLS } from './protocols.ts';
export { FATES, flowInWords, flowOf, type Fate, type Flow, type FoundRecord } from './flow.ts';
export { inOneLine, type OutsideQuestion } from './question.ts';
export { toCql } from './sru.ts';
