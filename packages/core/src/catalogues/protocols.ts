import type { ProtocolName } from './names.ts';
import { opensearch } from './opensearch.ts';
import type { Protocol } from './protocol.ts';
import { sru11, sru12, sru20 } from './sru.ts';
import { works } from './works.ts';

export const PROTOCOLS: Record<ProtocolName, Protocol> = {
  'sru-1.1': sru11,
  'sru-1.2': sru12,
  'sru-2.0': sru20,
  opensearch,
  works,
};
