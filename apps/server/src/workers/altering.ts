import { alterer, NotAnAlteration, type Alteration } from '@pandecta/core/altering';
import type { FieldValue } from '@pandecta/core/source';

/** Each value as it is afterwards, undefined where it stays; or why the alteration cannot be. */
export type Altered = { after: (FieldValue | null | undefined)[] } | { cannot: string };

/** A field of many records altered in one way: an expression of a person's is never matched on the server's own thread. */
export function altered({ values, alteration }: { values: (FieldValue | null)[]; alteration: Alteration }): Altered {
  try {
    return { after: values.map(alterer(alteration)) };
  } catch (error) {
    if (error instanceof NotAnAlteration) return { cannot: error.message };
    throw error;
  }
}
