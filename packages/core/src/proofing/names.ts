/** What rules on names share: each name of a record looked at, and the list as it would be. */
import { NAME_VARIABLES, type Name, type SourceRecord } from '../source/index.ts';
import type { Found } from './rule.ts';

/** @param mend the name as it would be, several where it holds several, nothing where it is right */
export function inNames(
  record: SourceRecord,
  mend: (name: Name) => Name | Name[] | undefined,
  what: (name: Name) => string,
  sure: number,
): Found[] {
  const out: Found[] = [];
  for (const field of NAME_VARIABLES) {
    const names = record[field];
    if (!names?.length) continue;
    const better = names.map(mend);
    const wrong = names.filter((_, i) => better[i]);
    if (wrong.length)
      out.push({
        field,
        what: wrong.map(what).join('; '),
        sure,
        mend: { [field]: names.flatMap((n, i) => better[i] ?? n) },
      });
  }
  return out;
}
