import type { EditChange } from '@pandecta/core/changes';
import { same, type SourceRecord } from '@pandecta/core/source';

/** The change that gives a record new values, as far as they are others. */
export function edited(
  id: string,
  record: SourceRecord,
  values: Record<string, unknown>,
  known?: EditChange['known'],
): EditChange {
  const now = record as unknown as Record<string, unknown>;
  const fields = Object.fromEntries(
    Object.entries(values)
      .filter(([f, v]) => !same(now[f] ?? null, v))
      .map(([f, after]) => [f, { before: now[f] ?? null, after }]),
  );
  return { do: 'edit', source: id, fields: fields as never, ...(known && { known }) };
}
