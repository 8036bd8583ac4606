import { expect, test } from 'vitest';
import { EXPORT_FORMATS, readSources, writeSources } from '@pandecta/core/formats';
import { compare, wholeKey } from '@pandecta/core/matching';
import type { SourceRecord } from '@pandecta/core/source';
import { COPIES, FAULTY, LOOK_ALIKES } from './faulty.ts';
import { SOURCES } from './sources.ts';

const all: SourceRecord[] = [...SOURCES.map((s) => s.record), ...FAULTY, ...COPIES, ...LOOK_ALIKES];
test.each(EXPORT_FORMATS)('%s', (format) => {
  const text = writeSources(all.map((record) => ({ record, subjects: [] })), format);
  const read = readSources(text)!.sources.map((s) => s.record);
  const lost = read.filter((r) => !all.some((a) => wholeKey(a) === wholeKey(r)));
  const weak = read.filter((r) => !all.some((a) => wholeKey(a) === wholeKey(r) && ['certain', 'very likely'].includes(compare(a, r).verdict)));
  console.log(format, all.length, read.length, 'no whole', lost.length, 'weak', weak.length, weak.slice(0,6).map((w) => `${w.title} ${wholeKey(w)} ${all.filter((a) => wholeKey(a) === wholeKey(w)).map((a) => compare(a, w).verdict)}`));
});
