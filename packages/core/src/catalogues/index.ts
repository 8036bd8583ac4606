export { PROTOCOL_NAMES, type ProtocolName } from './names.ts';
export type { OutsideAnswer, OutsideEntry, Protocol } from './protocol.ts';
export { PROTOCOLS } from './protocols.ts';
export { inOneLine, type OutsideQuestion } from './question.ts';
export { toCql } from './sru.ts';
