import type { Ask } from '@pandecta/contract';

/** A question without what says nothing, as it is kept. */
export const said = ({ typing: _typing, ...ask }: Ask): Ask =>
  Object.fromEntries(Object.entries(ask).filter(([, v]) => v !== undefined && !(Array.isArray(v) && !v.length)));
