/** The protocols catalogues are spoken to by, as a steward chooses them: their names stand apart, for whoever needs no more. */
export const PROTOCOL_NAMES = ['sru-1.1', 'sru-1.2', 'sru-2.0', 'opensearch', 'works'] as const;
export type ProtocolName = (typeof PROTOCOL_NAMES)[number];

/** Addresses that list works, and are looked at again and again. */
export const LISTING_KINDS = ['feed', 'page', 'oai'] as const;
export type ListingKind = (typeof LISTING_KINDS)[number];

/** For a person. */
export const LISTINGS: Record<ListingKind, string> = {
  feed: 'a feed',
  page: 'a page that lists works',
  oai: 'a repository (OAI-PMH)',
};
