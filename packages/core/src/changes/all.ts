import type { Kind, Subject } from './kind.ts';
import { isText, shaped } from './json.ts';
import { applyChange, describe, fromJson, invert, isEmpty, makes, touches, SIMPLE, type Change } from './registry.ts';

/** Several changes as one step, with a sentence of its own; all of them or none. */
export interface AllChange {
  do: 'all';
  says: string;
  changes: Change[];
}

export const all: Kind<AllChange> = {
  do: 'all',
  version: 1,
  check: (json, stored) => {
    const { changes, ...rest } = shaped<AllChange>(json, { says: isText, changes: Array.isArray });
    return { ...rest, changes: changes.map((c) => fromJson(c, stored)) };
  },
  apply(library, change) {
    const changes = change.changes.flatMap((c) => applyChange(library, c) ?? []);
    return changes.length ? { ...change, changes } : null;
  },
  invert: (change) => ({ ...change, changes: change.changes.map(invert).reverse() }),
  isEmpty: (change) => change.changes.every(isEmpty),
  describe: (change) => change.says || change.changes.map(describe).join('; '),
  touches: (change) => once(change.changes.flatMap(touches)),
  makes: (change) => once(change.changes.flatMap(makes)),
  sample(draw) {
    const kinds = draw.some(Object.values(SIMPLE) as Kind<Change>[]).slice(0, 3);
    return { do: 'all', says: draw.text(), changes: kinds.map((kind) => kind.sample(draw)) };
  },
};

/** Each subject where it is first named. */
function once(subjects: Subject[]): Subject[] {
  const seen = new Set<string>();
  return subjects.filter(({ kind, id }) => {
    const key = `${kind} ${id}`;
    return seen.has(key) ? false : seen.add(key);
  });
}
