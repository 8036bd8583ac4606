import { opensearch } from './opensearch.ts';
import type { Protocol } from './protocol.ts';
import { sru11, sru12, sru20 } from './sru.ts';
import { works } from './works.ts';

export { toCql } from './sru.ts';
export { inOneLine, type OutsideQuestion } from './question.ts';
export type { OutsideAnswer, OutsideEntry, Protocol } from './protocol.ts';

/** The protocols catalogues are spoken to by, as a steward chooses them. */
export const PROTOCOLS = {
  'sru-1.1': sru11,
  'sru-1.2': sru12,
  'sru-2.0': sru20,
  opensearch,
  works,
} as const satisfies Record<string, Protocol>;
export type ProtocolName = keyof typeof PROTOCOLS;
export const PROTOCOL_NAMES = Object.keys(PROTOCOLS) as ProtocolName[];
