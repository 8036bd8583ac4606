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
  return NAME_VARIABLES.flatMap((field): Found[] => {
    const names = record[field];
    if (!names?.length) return [];
    const wrong: Name[] = [];
    const after = names.flatMap((n) => {
      const better = mend(n);
      if (!better) return n;
      wrong.push(n);
      return better;
    });
    return wrong.length ? [{ field, what: wrong.map(what).join('; '), sure, mend: { [field]: after } }] : [];
  });
}
