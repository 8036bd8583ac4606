import { isFieldValue, isObject, type FieldValue, type SourceRecord } from '../source/record.ts';
import { variableInWords } from '../source/variables.ts';
import { effectiveEdit, flipAll, joinedFields, subjects, type BeforeAfter, type Id, type Kind } from './kind.ts';
import { isBeforeAfter, isId, isRecordOf, isText, shaped } from './json.ts';
import { idOf } from './draw.ts';
import { listed } from './words.ts';

/** Fields of a record get other values. */
export interface EditChange {
  do: 'edit';
  source: Id;
  fields: Record<string, BeforeAfter<FieldValue>>;
  /** How the new values are known, where no person wrote them; taken back, they are a person's. */
  known?: { from: string; sure: number };
}

export const edit: Kind<EditChange> = {
  do: 'edit',
  version: 1,
  check: (json) => ({
    ...shaped<Omit<EditChange, 'known'>>(json, {
      source: isId,
      fields: isRecordOf(isText, (field) => isBeforeAfter((v) => isFieldValue(field, v))),
    }),
    ...(isKnown(json.known) && { known: json.known }),
  }),
  apply(library, change) {
    const source = library.sources.get(change.source);
    if (!source) return null;
    const done = editable(source.record, change);
    if (!done) return null;
    source.record = editRecord(source.record, done.fields);
    return done;
  },
  invert: ({ known: _, ...change }) => ({ ...change, fields: flipAll(change.fields) }),
  joined(earlier, later) {
    const fields =
      earlier.source === later.source && !earlier.known && !later.known && joinedFields(earlier.fields, later.fields);
    return fields ? { ...later, fields } : null;
  },
  isEmpty: (change) => Object.keys(change.fields).length === 0,
  describe: (change) => `Changed ${listed(Object.keys(change.fields).map(variableInWords))}`,
  touches: (change) => subjects('source', [change.source]),
  sample(draw) {
    const source = idOf(draw, draw.library.sources.keys());
    const record = draw.library.sources.get(source)?.record;
    const fields = draw.some(['title', 'publisher', 'note'] as const).map((field) => {
      const before = draw.pick([record?.[field] ?? null, record?.[field] ?? null, 'something else']);
      return [field, { before, after: draw.pick([null, draw.text(), 'Silt']) }];
    });
    return { do: 'edit', source, fields: Object.fromEntries(fields) };
  },
};

const isKnown = (v: unknown): v is NonNullable<EditChange['known']> =>
  isObject(v) && typeof v.from === 'string' && typeof v.sure === 'number' && v.sure >= 0 && v.sure <= 1;

/**
 * The edit as far as it alters this record, or null.
 * @throws Conflict where a field is not what it was before
 */
export const editable = (record: SourceRecord, change: EditChange): EditChange | null =>
  effectiveEdit(
    change,
    { kind: 'source', id: change.source },
    (field) => (record as Record<string, unknown>)[field] ?? null,
    (field) => ({ what: variableInWords(field), field }),
  );

/** The record after an edit: each field set to its `after`, or taken away where that is null. */
export function editRecord(record: SourceRecord, fields: Record<string, { after: unknown }>): SourceRecord {
  const out: Record<string, unknown> = { ...record };
  for (const [field, { after }] of Object.entries(fields)) {
    if (after === null) delete out[field];
    else out[field] = after;
  }
  return out as unknown as SourceRecord;
}
