/** A change that gives way to what was done since. */
import type { Conflict } from './kind.ts';
import { isEmpty, type Change } from './registry.ts';

/** The change without the fields that moved; nothing where that was all of it. */
export function yieldTo(change: Change, { subject, moved }: Conflict): Change | null {
  const gone = new Set(moved.map((m) => m.field));
  const without = (c: Change): Change[] => {
    if (c.do === 'all') return [{ ...c, changes: c.changes.flatMap(without) }];
    if (c.do !== 'edit' || c.source !== subject.id) return [c];
    const rest: Change = { ...c, fields: Object.fromEntries(Object.entries(c.fields).filter(([f]) => !gone.has(f))) };
    return isEmpty(rest) ? [] : [rest];
  };
  const [rest] = without(change);
  return rest && !isEmpty(rest) && JSON.stringify(rest) !== JSON.stringify(change) ? rest : null;
}
