/**
 * How a writer loses nothing: after writing an entry in the standard form, it reads the entry back and compares.
 * What the standard form could not hold is one small JSON object, stored in a field the format leaves to its users.
 */
import { DEEPEST, depthOf, jsonWithoutNul, soundValue } from '../text/index.ts';
import { isFieldValue, same } from '../source/index.ts';
import type { Entry } from './message.ts';

export interface Remainder {
  set?: Record<string, unknown>;
  unset?: string[];
  subjects?: string[];
}

/** What must be added to `read` to make `wanted` of it, or undefined when they are the same. */
export function remainderOf(wanted: Entry, read: Entry | undefined): Remainder | undefined {
  const got = (read?.record ?? {}) as Record<string, unknown>;
  const want = wanted.record as Record<string, unknown>;
  const set = Object.fromEntries(Object.entries(want).filter(([k, v]) => v !== undefined && !same(v, got[k])));
  const unset = Object.keys(got).filter((k) => want[k] === undefined);
  const subjects = same(wanted.subjects, read?.subjects ?? []) ? undefined : wanted.subjects;
  if (!Object.keys(set).length && !unset.length && !subjects) return undefined;
  return {
    ...(Object.keys(set).length ? { set } : {}),
    ...(unset.length ? { unset } : {}),
    ...(subjects ? { subjects } : {}),
  };
}

/**
 * The remainder as JSON without blanks, control characters and the two that are none of Unicode's: for formats that fold lines,
 * make blanks one, or have no place for those.
 */
export const plainJson = (remainder: Remainder): string =>
  JSON.stringify(remainder).replace(
    /[\s\u007f-\u009f\uFFFE\uFFFF]/g,
    (c) => `\\u${c.charCodeAt(0).toString(16).padStart(4, '0')}`,
  );

/** Lays a remainder over an entry just read; a damaged one is passed over and reported by the caller. */
export function applyRemainder(entry: Entry, text: string): boolean {
  let remainder: Remainder;
  try {
    if (depthOf(text) > DEEPEST) return false;
    remainder = JSON.parse(jsonWithoutNul(text)) as Remainder;
    remainder = soundValue(text, remainder);
  } catch {
    return false;
  }
  if (typeof remainder !== 'object' || remainder === null) return false;
  const record = entry.record as Record<string, unknown>;
  const { set, unset, subjects } = remainder;
  for (const k of Array.isArray(unset) ? unset : []) delete record[k];
  if (typeof set === 'object' && set !== null) {
    for (const [k, v] of Object.entries(set)) if (isFieldValue(k, v)) record[k] = v;
  }
  if (Array.isArray(subjects)) entry.subjects = subjects.filter((s) => typeof s === 'string');
  return true;
}
