import { describe, expect, test } from 'vitest';
import { previewTable, readAs, readSources, writeSources } from '../index.ts';

describe('a table', () => {
  test('is read by its headings: names between semicolons, dates as people write them, what is unknown kept', () => {
    const csv =
      'Authors;"Publication Title";Title;Year;Pages;DOI;Shelf;Keywords\r\n' +
      '"Vance, Ines; Okonjo, Marit";"Coastal ""Processes""";Silt;March 2009;12-29;https://doi.org/10.5555/SILT;B 7;silt, marsh\r\n' +
      ';;;;;;;\r\n"Hydrographic Office";;"Gauge\r\nreport";c. 1890;;;;\r\n';
    const { sources, messages } = readSources(csv)!;
    expect(messages).toEqual([]);
    expect(sources).toMatchObject([
      {
        record: {
          type: 'article-journal',
          title: 'Silt',
          author: [
            { family: 'Vance', given: 'Ines' },
            { family: 'Okonjo', given: 'Marit' },
          ],
          'container-title': 'Coastal "Processes"',
          issued: { 'date-parts': [[2009, 3]] },
          DOI: '10.5555/SILT',
          custom: { table: { Shelf: 'B 7' } },
        },
        subjects: ['silt', 'marsh'],
        line: 2,
      },
      { record: { author: [{ literal: 'Hydrographic Office' }], issued: { circa: true } }, line: 4 },
    ]);
  });

  test('is read as a person says its columns are', () => {
    const csv = 'Ref,Werk,Wann\n7,Silt,2009\n8,Gates,2014,more\n';
    expect(previewTable(csv).columns).toEqual({ Ref: '', Werk: '', Wann: '' });
    const { sources, messages } = readSources(csv, { Ref: 'call-number', Werk: 'title', Wann: 'issued' })!;
    expect(sources.map((s) => [s.record['call-number'], s.record.title, s.record.issued])).toEqual([
      ['7', 'Silt', { 'date-parts': [[2009]] }],
      ['8', 'Gates', { 'date-parts': [[2014]] }],
    ]);
    expect(messages).toMatchObject([{ rule: 'long-row', line: 3 }]);
    expect(sources[1]!.record.custom).toEqual({ table: { 'Column 4': 'more' } });
  });

  test('of names without semicolons tells a list from one inverted name', () => {
    const names = (cell: string): unknown =>
      readAs('csv', `Title,Authors\nSilt,"${cell}"\n`).sources[0]!.record.author!.map((n) => n.family ?? n.literal);
    expect(names('Ines Vance, Marit Okonjo')).toEqual(['Vance', 'Okonjo']);
    expect(names('Vance, Ines')).toEqual(['Vance']);
    expect(names('Ines Vance and Marit Okonjo')).toEqual(['Vance', 'Okonjo']);
  });

  test('that is written holds nothing a spreadsheet would take for a formula, and reads back', () => {
    const source = { record: { type: 'book' as const, title: '=HYPERLINK("x")', note: '-2 °C' }, subjects: ['@home'] };
    const csv = writeSources([source], 'csv');
    expect(csv).toContain(`"'=HYPERLINK(""x"")"`);
    expect(readSources(csv)!.sources[0]).toMatchObject(source);
  });
});
