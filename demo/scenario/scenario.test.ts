/** The made-up scenario keeps its own rules: enough of every kind, nothing of the real world, the same every time. */
import { expect, test, vi } from 'vitest';
import { normaliseIsbn } from '@pandecta/core/identifiers';
import { EXPORT_FORMATS, readSources, writeSources } from '@pandecta/core/formats';
import { isFieldValue } from '@pandecta/core/source';
import { REGISTERED } from './registered.ts';
import { SOURCES } from './sources.ts';
import { matchAll } from '@pandecta/core/matching';
import { proof, RULES } from '@pandecta/core/proofing';
import { COPIES, FAULTY, LOOK_ALIKES } from './faulty.ts';
import { WIDER } from './wider.ts';

test('it holds 400 sources of ten kinds, 60 with a document', () => {
  expect(SOURCES.length + WIDER.length).toBeGreaterThanOrEqual(400);
  const kinds = new Set(SOURCES.map((s) => s.record.type));
  expect(kinds.size).toBeGreaterThanOrEqual(10);
  for (const kind of ['legal_case', 'legislation', 'manuscript', 'webpage'] as const) expect(kinds).toContain(kind);
  // One more is typeset for a work no record tells of.
  expect([...SOURCES, ...WIDER].filter((s) => s.pages).length + 1).toBeGreaterThanOrEqual(60);
  const titles = [...SOURCES, ...WIDER].map((s) => s.record.title);
  expect(new Set(titles).size).toBe(titles.length);
});

test('its identifiers belong to no one: the test prefix of DOIs, an unassigned block of ISBNs, names under .example', () => {
  for (const { record } of [...SOURCES, ...WIDER]) {
    if (record.DOI) expect(record.DOI).toMatch(/^10\.5555\//);
    if (record.ISBN) expect([record.ISBN.slice(0, 4), normaliseIsbn(record.ISBN)]).toEqual(['9799', record.ISBN]);
    if (record.URL) expect(new URL(record.URL).hostname).toMatch(/\.example$|^doi\.org$/);
  }
});

test('every field is of the shape its variable takes, and every format carries all of it', () => {
  for (const { record } of SOURCES)
    for (const [field, value] of Object.entries(record))
      expect([field, isFieldValue(field, value)]).toEqual([field, true]);
  for (const format of EXPORT_FORMATS) {
    const back = readSources(writeSources(SOURCES, format))!.sources;
    expect(back.map((s) => s.record.title)).toEqual(SOURCES.map((s) => s.record.title));
    back.forEach(({ record, subjects }, i) => {
      const { 'citation-key': _made, ...rest } = record;
      const { 'citation-key': _own, ...wanted } = SOURCES[i]!.record;
      expect([rest, subjects]).toEqual([wanted, SOURCES[i]!.subjects]);
    });
  }
});

test('it is the same every time', async () => {
  vi.resetModules();
  const again = await import('./sources.ts');
  expect(again.SOURCES).not.toBe(SOURCES);
  expect(again.SOURCES).toEqual(SOURCES);
});

test('the registry knows each DOI of the scenario, and one that nobody has gathered yet', () => {
  const dois = [...SOURCES, ...WIDER].flatMap((s) => s.record.DOI?.toLowerCase() ?? []);
  expect(dois.filter((d) => !REGISTERED.has(d))).toEqual([]);
  expect([...REGISTERED.keys()].filter((d) => !dois.includes(d))).toEqual(['10.5555/withy.2026.0001']);
});

test('it has copies that are found, look-alikes that are not taken for copies, and a fault of most kinds', () => {
  const wider = WIDER.map((s) => s.record);
  const { clusterOf } = matchAll([...wider, ...COPIES, ...LOOK_ALIKES]);
  const first = new Set([...clusterOf].slice(0, wider.length));
  const [copies, others] = [[...clusterOf].slice(wider.length, wider.length + COPIES.length), [...clusterOf].slice(wider.length + COPIES.length)]; // prettier-ignore
  expect(copies.every((c) => first.has(c))).toBe(true);
  expect(others.some((c) => first.has(c))).toBe(false);
  const styles = [new Set(['DOI']), new Set(['DOI', 'title case'])];
  const found = new Set(styles.flatMap((uses) => FAULTY.flatMap((record) => proof({ record, uses, thisYear: 2026 }).map((f) => f.rule)))); // prettier-ignore
  const alone = new Set(FAULTY.flatMap((record) => proof({ record, thisYear: 2026 }).map((f) => f.rule)));
  for (const rule of alone) found.add(rule);
  // Those left tell from other records, files, what was said of versions, or the day.
  expect(RULES.map((r) => r.id).filter((id) => !found.has(id)).sort()).toEqual(['access-ends', 'container-spelling', 'doi-in-file', 'file-of-another', 'file-text', 'initials', 'name-spelling', 'newer-version', 'year-of-volume']); // prettier-ignore
});
