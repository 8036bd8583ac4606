/** Records looked over by the rules, and mended. */
import type { SourceRecord } from '../source/index.ts';
import { RULES } from './registry.ts';
import type { Found, Severity, View } from './rule.ts';

export interface Finding extends Found {
  rule: string;
  severity: Severity;
}

/** A mend is made without being asked about from here on. */
export const SURE = 0.9;

export function proof(view: View, rules = RULES): Finding[] {
  return rules.flatMap((rule) => rule.find(view).map((f) => ({ rule: rule.id, severity: rule.severity, ...f })));
}

/** One mend can make way for the next: a repaired title is looked at again. */
const ROUNDS = 4;

/** The record with all mends made that are sure; the same record where there are none. */
export function mended(view: View): SourceRecord {
  let record = view.record;
  for (let round = 0; round < ROUNDS; round += 1) {
    const found = proof({ ...view, record }).filter((f) => f.mend && f.sure >= SURE);
    if (!found.length) return record;
    const touched = new Set<string>();
    const next = { ...record } as Record<string, unknown>;
    for (const { mend } of found) {
      const fields = Object.keys(mend!);
      // Of two mends of a field the first is made now, the other if it still holds then.
      if (fields.some((f) => touched.has(f))) continue;
      for (const f of fields) {
        touched.add(f);
        if (mend![f] === null) delete next[f];
        else next[f] = mend![f];
      }
    }
    record = next as unknown as SourceRecord;
  }
  return record;
}
