import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { BboxReader, packWords, rectsOf, unpackWords } from './index.ts';

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

test('accents that old fonts set as signs of their own stand on their letters, as one types them', () => {
  const [page] = new BboxReader().push(
    pages(block(line(60, 'art\u0131\u0301culo Universit´e M¨uller &#xD800;ok &#55296;'))),
  );
  expect(page!.text).toBe('artículo Université Müller &#xD800;ok');
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
