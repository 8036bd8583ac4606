/** Whether two names of a journal, a series or a publisher are of one: written out, abbreviated, or by its initials. */
import { nearly } from './near.ts';

export type Says = 'same' | 'like' | 'other' | undefined;

/** Words of a container, in order, each the beginning of the other's: "j water shore law" is "journal water shore law". */
export function containers(a: readonly string[], b: readonly string[]): Says {
  if (!a.length || !b.length) return undefined;
  if (a.join('') === b.join('')) return 'same';
  const [short, long] = a.length <= b.length ? [a, b] : [b, a];
  const begins = (x: string, y: string): boolean => x[0] === y[0] && (y.startsWith(x) || x.startsWith(y) || nearly(x, y) || squeezed(x, y)); // prettier-ignore
  let k = 0;
  let matched = 0;
  for (const w of short) {
    const at = long.findIndex((l, i) => i >= k && begins(w, l));
    if (at < 0) continue;
    matched += 1;
    k = at + 1;
  }
  if (matched === short.length && (short.length > 1 || short[0]!.length >= 4)) return 'like';
  // "JWSL" is the initials of its words.
  if (short.length === 1 && short[0] === long.map((w) => w[0]).join('')) return 'like';
  return matched / short.length >= 0.7 && short.length > 2 ? 'like' : 'other';
}

/** Word for word the same, or one the beginning of the other's: "est marsh" and "estuary marsh". */
export const wordForWord = (a: readonly string[], b: readonly string[]): boolean =>
  a.length === b.length && a.every((w, i) => w.startsWith(b[i]!) || b[i]!.startsWith(w));

/** Abbreviated by leaving letters out: "jrnl", "natl". The first letter stands, the others come in order. */
function squeezed(x: string, y: string): boolean {
  const [short, long] = x.length < y.length ? [x, y] : [y, x];
  if (short.length < 3 || short.length > long.length * 0.75) return false;
  let k = 0;
  for (const c of long) if (c === short[k]) k += 1;
  return k === short.length;
}
