/** One field of many records altered in one way: set, taken away, written on, or a part of it replaced. */
import { RE2JS } from 're2js';
import { cut } from '../text/index.ts';
import {
  isFieldValue,
  isNameVariable,
  isTextVariable,
  mostIn,
  same,
  tooMuchIn,
  type FieldValue,
  type Name,
} from '../source/index.ts';

export type Way = 'set' | 'clear' | 'append' | 'prepend' | 'replace';

export interface Alteration {
  field: string;
  way: Way;
  /** What is set, or written before or behind; of `replace`, the text that is put there. */
  value?: FieldValue | undefined;
  /** Of `replace`: what is looked for. */
  find?: string | undefined;
  /** What is looked for is a regular expression, in the syntax of RE2; `$1` in the value is its first group. */
  expression?: boolean | undefined;
  /** Match case. */
  exactCase?: boolean | undefined;
  /** Fields that have a value already are left as they are. */
  onlyEmpty?: boolean | undefined;
}

/** What cannot be carried out, in words for a person. */
export class NotAnAlteration extends Error {}

/**
 * How the field is after it: null where it is taken away, undefined where it stays as it is. Expressions are matched in
 * time that grows with the length of the text alone (RE2), so that none a person writes can hold anything up.
 * @throws NotAnAlteration where the field has no such way, or the value or the expression cannot be
 */
export function alterer(alteration: Alteration): (now: FieldValue | null) => FieldValue | null | undefined {
  const { onlyEmpty } = alteration;
  const alter = altererOf(alteration);
  return (now) => {
    if (onlyEmpty && now !== null) return undefined;
    const after = alter(now);
    return same(after, now) ? undefined : after;
  };
}

function altererOf(a: Alteration): (now: FieldValue | null) => FieldValue | null {
  const { field, way, value } = a;
  if (way === 'clear') {
    if (field === 'type') throw new NotAnAlteration('a source always has a kind');
    return () => null;
  }
  if (way === 'replace') return replacerOf(a);
  if (value === undefined || !isFieldValue(field, value)) throw new NotAnAlteration('the field cannot hold this value');
  const much = tooMuchIn(field, value);
  if (much) throw new NotAnAlteration(`the field cannot hold ${much}`);
  if (way === 'set') return () => value;
  if (isNameVariable(field)) {
    const names = value as Name[];
    return (now) => joined(way, (now as Name[] | null) ?? [], names);
  }
  if (!isTextVariable(field)) throw new NotAnAlteration('nothing can be written before or behind what it holds');
  return (now) => {
    const text = (now as string | null) ?? '';
    return cut(way === 'append' ? text + (value as string) : (value as string) + text, mostIn(field));
  };
}

/** Whoever is named already is not named twice. */
function joined(way: Way, now: Name[], more: Name[]): Name[] {
  const fresh = more.filter((n) => !now.some((known) => same(known, n)));
  return way === 'append' ? [...now, ...fresh] : [...fresh, ...now];
}

function replacerOf({ field, value = '', find = '', expression, exactCase }: Alteration) {
  if (!isTextVariable(field)) throw new NotAnAlteration('only text is looked through');
  if (!find) throw new NotAnAlteration('what is to be replaced is missing');
  const flags = exactCase ? 0 : RE2JS.CASE_INSENSITIVE;
  let pattern: RE2JS;
  try {
    pattern = RE2JS.compile(expression ? find : RE2JS.quote(find), flags);
  } catch (error) {
    throw new NotAnAlteration(`the expression cannot be read: ${(error as Error).message}`);
  }
  const put = expression ? String(value) : (): string => String(value);
  return (now: FieldValue | null): FieldValue | null => {
    if (now === null) return null;
    const after = pattern.matcher(now as string).replaceAll(put);
    return after === now ? now : cut(after, mostIn(field)) || null;
  };
}
