/** The protocols catalogues are spoken to by, as a steward chooses them: their names stand apart, for whoever needs no more. */
export const PROTOCOL_NAMES = ['sru-1.1', 'sru-1.2', 'sru-2.0', 'opensearch', 'works'] as const;
export type ProtocolName = (typeof PROTOCOL_NAMES)[number];
