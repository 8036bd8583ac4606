/** What is exported and brought in again is known, in every format: by an identifier, or by the whole record. */
import { expect, test } from 'vitest';
import { EXPORT_FORMATS, readSources, writeSources } from '@pandecta/core/formats';
import { areOneWork, compare, identifierKeys, wholeKey } from '@pandecta/core/matching';
import type { SourceRecord } from '@pandecta/core/source';
import { FAULTY, LOOK_ALIKES } from './faulty.ts';
import { SOURCES } from './sources.ts';

const ALL: SourceRecord[] = [...SOURCES.map((s) => s.record), ...FAULTY, ...LOOK_ALIKES];

/** As a gathering tells it (server, gathering/settle.ts). */
function isKnownAs(read: SourceRecord, here: SourceRecord): boolean {
  const keys = new Set(identifierKeys(here));
  if (identifierKeys(read).some((k) => keys.has(k))) return true;
  return wholeKey(read) === wholeKey(here) && areOneWork(compare(read, here).verdict);
}

test.each(EXPORT_FORMATS)('as %s every source of the demo comes back as itself', (format) => {
  const entries = ALL.map((record) => ({ record, subjects: [] }));
  const read = readSources(writeSources(entries, format))!.sources.map((s) => s.record);
  expect(read.length).toBe(ALL.length);
  expect(read.filter((r, i) => !isKnownAs(r, ALL[i]!)).map((r) => r.title)).toEqual([]);
});
