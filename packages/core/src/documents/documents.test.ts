import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import {
  BboxReader,
  isUsableTitle,
  packWords,
  recognise,
  rectsOf,
  titleFromFileName,
  unpackWords,
  type Page,
  type PageLine,
} from './index.ts';

// The form in which pdftotext -bbox-layout prints (poppler 22).
const word = (x: number, y: number, text: string, size = 10): string =>
  `          <word xMin="${x}.000000" yMin="${y}.000000" xMax="${x + text.length * 5}.000000" yMax="${y + size}.000000">${text}</word>\n`;
const line = (y: number, text: string, size = 10): string =>
  `        <line xMin="50" yMin="${y}" xMax="300" yMax="${y + size}">\n${text
    .split(' ')
    .map((w, i) => word(50 + i * 60, y, w, size))
    .join('')}        </line>\n`;
const block = (...lines: string[]): string => `      <block xMin="50">\n${lines.join('')}      </block>\n`;
const pages = (...all: string[]): string =>
  `<doc>\n${all.map((p) => `  <page width="400.000000" height="600.000000">\n    <flow>\n${p}    </flow>\n  </page>\n`).join('')}</doc>\n`;

const TWO = pages(
  block(line(60, 'The Night Watch', 20)) +
    block(line(100, 'Marit Okonjo, Piers Tregenza')) +
    block(line(140, 'none of those granted be-'), line(152, 'fore 1974 &amp; after')),
  block(line(60, 'the o\uFB03ce of the gate')),
);

describe('what pdftotext prints', () => {
  test('becomes pages of text: lines, paragraphs, broken words joined, ligatures apart', () => {
    const [first, second] = new BboxReader().push(TWO);
    expect(first!.text).toBe(
      'The Night Watch\n\nMarit Okonjo, Piers Tregenza\n\nnone of those granted before 1974 & after',
    );
    expect(second).toMatchObject({ number: 2, width: 400, height: 600, text: 'the office of the gate' });
  });

  test('each word keeps its place in the text and on the page', () => {
    const [first] = new BboxReader().push(TWO);
    const texts = first!.words.map((w) => first!.text.slice(w.start, w.end));
    expect(texts.slice(0, 3)).toEqual(['The', 'Night', 'Watch']);
    expect(texts.join(' ')).toContain('be fore 1974 & after');
    expect(first!.words[1]!.box).toEqual({ x0: 110, y0: 60, x1: 135, y1: 80 });
  });

  test('gives the same pages however it arrives', () => {
    const whole = new BboxReader().push(TWO);
    fc.assert(
      fc.property(fc.array(fc.nat({ max: TWO.length }), { maxLength: 12 }), (cuts) => {
        const reader = new BboxReader();
        const at = [0, ...cuts.sort((a, b) => a - b), TWO.length];
        const got = at.slice(1).flatMap((end, i) => reader.push(TWO.slice(at[i], end)));
        expect(got).toEqual(whole);
      }),
    );
  });
});

describe('words in few bytes', () => {
  const box = fc
    .tuple(fc.integer({ min: 0, max: 6000 }), fc.integer({ min: 0, max: 6000 }))
    .map(([x, y]) => ({ x0: x / 10, y0: y / 10, x1: x / 10 + 20, y1: y / 10 + 9 }));
  const list = fc.array(fc.tuple(fc.integer({ min: 0, max: 9 }), fc.integer({ min: 1, max: 30 }), box)).map((all) => {
    let at = 0;
    return all.map(([gap, length, b]) => {
      const start = at + gap;
      at = start + length;
      return { start, end: at, box: b };
    });
  });

  test('come back as they were, to a tenth of a point', () => {
    fc.assert(
      fc.property(list, (all) => {
        const back = unpackWords(packWords(all));
        expect(back.map((w) => [w.start, w.end])).toEqual(all.map((w) => [w.start, w.end]));
        back.forEach((w, i) => expect(Math.abs(w.box.x1 - all[i]!.box.x1)).toBeLessThanOrEqual(0.051));
        expect(packWords(back)).toEqual(packWords(all));
      }),
    );
  });

  test('the rectangles of a span are one a line, and hold every word of it', () => {
    const [first] = new BboxReader().push(TWO);
    const start = first!.text.indexOf('granted');
    const rects = rectsOf(first!.words, start, first!.text.length);
    expect(rects.map((r) => [r.x0, r.y0])).toEqual([
      [230, 140],
      [50, 152],
    ]);
    expect(rectsOf(first!.words, 0, 0)).toEqual([]);
  });
});

describe('what a document says of its work', () => {
  const lineOf = (text: string, y: number, size: number): PageLine => ({
    text,
    size,
    box: { x0: 50, y0: y, x1: 350, y1: y + size },
  });
  const page = (...lines: [text: string, size: number][]): Page => ({
    number: 1,
    width: 400,
    height: 600,
    text: lines.map(([t]) => t).join('\n'),
    words: [],
    lines: lines.map(([t, size], i) => lineOf(t, 40 + i * 24, size)),
  });
  const BODY: [string, number][] = Array.from({ length: 8 }, (_, i) => [
    `Body text of the article, line ${i} of many`,
    10,
  ]);

  test('the largest type is the title, over two lines too, and the names below it are its authors', () => {
    const { record, provenance } = recognise(
      [
        page(
          ['Coastal Processes 12', 9],
          ['Who closes the gate', 20],
          ['upon the ebb?', 20],
          ['Marit Okonjo¹ and Wilhelmina van der Zande', 11],
          ['University of Withy', 10],
          ...BODY,
        ),
      ],
      {},
      'scan_01421.pdf',
    );
    expect(record).toMatchObject({
      title: 'Who closes the gate upon the ebb?',
      author: [
        { family: 'Okonjo', given: 'Marit' },
        { given: 'Wilhelmina', 'non-dropping-particle': 'van der', family: 'Zande' },
      ],
    });
    expect(provenance).toMatchObject({ title: { from: 'page layout', sure: 0.8 }, author: { from: 'page layout' } });
  });

  test('an identifier of the first page is the document’s; one of several further on is a reference', () => {
    const first = page(['A study of silt', 18], ['https://doi.org/10.5555/silt.1', 9], ...BODY);
    expect(recognise([first], {}, 'a.pdf').record).toMatchObject({ DOI: '10.5555/silt.1', type: 'article-journal' });
    const later = [page(['A study of silt', 18], ...BODY), page(['doi:10.5555/a doi:10.5555/b', 9])];
    expect(recognise(later, {}, 'a.pdf').record.DOI).toBeUndefined();
    expect(recognise([page(['Silt', 18], ['ISBN 978-0-306-40615-7', 9])], {}, 'a').record).toMatchObject({
      type: 'book',
      ISBN: '9780306406157',
    });
    expect(recognise([page(['Tides', 18], ['arXiv:2101.00001v2', 9])], {}, 'a').record).toMatchObject({
      number: '2101.00001',
      archive: 'arXiv',
    });
  });

  test('embedded metadata is believed as far as the page bears it out', () => {
    const plain = page(['A study of silt and sand', 11], ...BODY);
    const agreed = recognise([page(['A Study of Silt', 20], ...BODY)], { title: 'A study of silt' }, 'a.pdf');
    expect(agreed.provenance.title).toEqual({ from: 'embedded metadata', sure: 0.95 });
    const weak = recognise(
      [plain],
      { title: 'The true title', authors: ['Okonjo, Marit'], date: '2014-03-02' },
      'a.pdf',
    );
    expect(weak.record).toMatchObject({
      title: 'The true title',
      author: [{ family: 'Okonjo', given: 'Marit' }],
      issued: { 'date-parts': [[2014]] },
    });
    const strong = recognise([page(['What the page says', 20], ...BODY)], { title: 'Left over from a form' }, 'a.pdf');
    expect(strong.record.title).toBe('What the page says');
  });

  test.each(['Microsoft Word - draft3.docx', 'untitled', 'report.pdf', 'scan 12', '12345', 'tides-final'])(
    'the embedded title “%s” is none',
    (title) => expect(isUsableTitle(title, 'tides-final.pdf')).toBe(false),
  );

  test('without any word it is named after its file', () => {
    expect(recognise([], {}, 'okonjo_reed+1872.pdf')).toMatchObject({
      record: { type: 'document', title: 'okonjo reed 1872' },
      provenance: { title: { from: 'file name', sure: 0.2 } },
    });
    expect(titleFromFileName('.pdf')).toBe('Untitled document');
  });
});
