/** Against the W3C Web Annotation Data Model (2017) and CommonMark 0.31. */
import Papa from 'papaparse';
import { describe, expect, test } from 'vitest';
import { MARK_FORMATS, writeMarks, type ExportedMark } from './index.ts';

const mark = (more: Partial<ExportedMark> = {}): ExportedMark => ({
  id: '01890000-0000-7000-8000-000000000001',
  sourceId: 's1',
  fileId: '01890000-0000-7000-8000-0000000000f1',
  title: 'Who Closes the Gate?',
  source: 'Okonjo & Tregenza 2014',
  citation: 'Okonjo, R., & Tregenza, P. (2014). Who closes the gate?',
  page: 7,
  cited: '207',
  sense: 'Claim',
  shape: 'highlight',
  quote: { exact: 'None of those says who must close the gate', prefix: 'channels. ', suffix: '. The' },
  rects: [
    { x0: 72, y0: 100, x1: 300, y1: 112 },
    { x0: 72, y0: 114.5, x1: 120, y1: 126 },
  ],
  gloss: 'No duty *before* 1974.',
  by: 'Marit Oskarsen',
  at: '2026-03-14T09:30:00.000Z',
  ...more,
});

describe('marks as Markdown', () => {
  test('stand under their source as it is cited, each quoted with its page, sense, maker and gloss', () => {
    expect(writeMarks([mark(), mark({ cited: '208', gloss: '' })], 'markdown'))
      .toBe(`## Okonjo, R., & Tregenza, P. (2014). Who closes the gate?

> None of those says who must close the gate

(Okonjo & Tregenza 2014, p. 207) **Claim**, Marit Oskarsen

No duty \\*before\\* 1974.

> None of those says who must close the gate

(Okonjo & Tregenza 2014, p. 208) **Claim**, Marit Oskarsen
`);
  });

  test('say what a region is, which has no words', () =>
    expect(writeMarks([mark({ shape: 'region', gloss: '' })], 'markdown')).toMatch(/207\) \*\*Region, Claim\*\*/));
});

describe('marks as Web Annotations', () => {
  const of = (m: ExportedMark) =>
    JSON.parse(writeMarks([m], 'web-annotation')) as {
      '@context': string;
      type: string;
      items: Record<string, unknown>[];
    };

  test('are a page of annotations in the model’s context, each with a target and selectors (3.1, 4.2, 5.2)', () => {
    const page = of(mark());
    expect([page['@context'], page.type]).toEqual(['http://www.w3.org/ns/anno.jsonld', 'AnnotationPage']);
    expect(page.items[0]).toMatchObject({
      id: 'urn:uuid:01890000-0000-7000-8000-000000000001',
      type: 'Annotation',
      motivation: 'commenting',
      creator: { type: 'Person', name: 'Marit Oskarsen' },
      target: {
        source: 'urn:uuid:01890000-0000-7000-8000-0000000000f1',
        selector: [
          { type: 'FragmentSelector', value: 'page=7&viewrect=72,100,228,26' },
          { type: 'TextQuoteSelector', exact: 'None of those says who must close the gate', prefix: 'channels. ' },
        ],
      },
    });
    const bodies = page.items[0]!.body as { purpose: string; value: string }[];
    expect(bodies.map((b) => b.purpose)).toEqual(['classifying', 'identifying', 'commenting']);
    expect(bodies[1]!.value).toContain('p. 207');
  });

  test('without a gloss are highlights, and without words quote none', () => {
    const [item] = of(mark({ gloss: '', shape: 'point' })).items;
    expect(item).toMatchObject({ motivation: 'highlighting', target: { selector: [{ type: 'FragmentSelector' }] } });
    expect((item!.target as { selector: unknown[] }).selector).toHaveLength(1);
  });
});

test('marks as a table are read back by a reader of CSV, and run nothing in a spreadsheet', () => {
  const csv = writeMarks([mark({ gloss: '=1+1', quote: { exact: 'one,\n"two"', prefix: '', suffix: '' } })], 'csv');
  const { data } = Papa.parse<Record<string, string>>(csv.trim(), { header: true });
  expect(data[0]).toMatchObject({ Page: '207', Sense: 'Claim', Text: 'one,\n"two"', Gloss: "'=1+1" });
});

test('marks as HTML hold what was written as text', () =>
  expect(writeMarks([mark({ gloss: '<b>a</b> & b' })], 'html')).toContain('&lt;b&gt;a&lt;/b&gt; &amp; b'));

test('no marks are an empty file of each format that can be read', () => {
  for (const format of MARK_FORMATS) if (format !== 'docx') expect(() => writeMarks([], format)).not.toThrow();
  expect(JSON.parse(writeMarks([], 'web-annotation'))).toMatchObject({ items: [] });
});
