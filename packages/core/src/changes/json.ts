/** Reading changes back from JSON: shapes a field at a time. */
import { isObject } from '../source/record.ts';
import type { BeforeAfter } from './kind.ts';

/** JSON that is no change, or one of a version not known here. */
export class NotAChange extends Error {}

type Is = (value: unknown) => boolean;

const UUID = /^[0-9a-f]{8}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{4}-[0-9a-f]{12}$/i;

export const isId: Is = (v) => typeof v === 'string' && UUID.test(v);
export const isIds: Is = (v) => Array.isArray(v) && v.every(isId);
export const isText: Is = (v) => typeof v === 'string';
export const isFlag: Is = (v) => typeof v === 'boolean';
export const isOneOf =
  (...values: readonly unknown[]): Is =>
  (v) =>
    values.includes(v);
export const isOrNull =
  (is: Is): Is =>
  (v) =>
    v === null || is(v);
export const isBeforeAfter =
  (is: Is): Is =>
  (v) =>
    isObject(v) && isOrNull(is)((v as unknown as BeforeAfter<unknown>).before) && isOrNull(is)(v.after);
/** An object whose keys and values are so. */
export const isRecordOf =
  (isKey: Is, isValue: (key: string) => Is): Is =>
  (v) =>
    isObject(v) && Object.entries(v).every(([k, x]) => isKey(k) && isValue(k)(x));

/** A field that may be missing. */
export const isOptional = (is: Is): Is & { optional: true } =>
  Object.assign((v: unknown) => v === undefined || is(v), { optional: true as const });

/**
 * The JSON as the kind of change it says it is, with just these fields.
 * @throws NotAChange
 */
export function shaped<C extends { do: string }>(
  json: Record<string, unknown>,
  shape: Record<Exclude<keyof C & string, 'do'>, Is>,
): C {
  const out: Record<string, unknown> = { do: json.do };
  for (const [field, is] of Object.entries(shape) as [string, Is][]) {
    if (json[field] === undefined && 'optional' in is) continue;
    if (!is(json[field])) throw new NotAChange(`a change of the kind “${String(json.do)}” has no such ${field}`);
    out[field] = json[field];
  }
  return out as C;
}
