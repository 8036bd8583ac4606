/** Joining a record that comes in to one that is here: what is empty is filled; nothing that stands is overwritten. */
import type { FieldValue, SourceRecord } from '../source/index.ts';

/** What of the incoming record the one here has no value for, by field. The kind is never another's to say. */
export function filledBy(here: SourceRecord, incoming: SourceRecord): Record<string, FieldValue> {
  const known = here as Record<string, unknown>;
  return Object.fromEntries(
    Object.entries(incoming).filter(
      ([field, value]) => field !== 'type' && field !== 'custom' && value !== undefined && known[field] === undefined,
    ),
  ) as Record<string, FieldValue>;
}
