/** hOCR 1.2 (specification of 2020): classes and properties; its words read back by pandoc. */
import { execFileSync } from 'node:child_process';
import fc from 'fast-check';
import { SaxesParser } from 'saxes';
import { expect, test } from 'vitest';
import { hocr, type HocrPage, type PageWord } from './index.ts';

/** A page of lines, each word ten points a letter wide. */
function page(lines: string[], confidence?: number[]): HocrPage {
  let text = '';
  const words: PageWord[] = [];
  lines.forEach((line, i) => {
    if (i) text += '\n';
    line.split(' ').forEach((word, k) => {
      if (k) text += ' ';
      const x0 = 40 + k * 60;
      words.push({ start: text.length, end: text.length + word.length, box: { x0, y0: 50 + i * 20, x1: x0 + 50.5, y1: 62 + i * 20 } }); // prettier-ignore
      text += word;
    });
  });
  return {
    number: 1,
    width: 420,
    height: 595,
    text,
    words,
    ...(confidence && { confidence: Uint8Array.from(confidence) }),
  };
}

test('each page, line and word has its place, and each word how sure it is', () => {
  const out = hocr([page(['Ferrow Point', 'was <shut> & barred'], [96, 41, 255, 90, 80, 70])], 'Letters', 'en');
  expect(out).toContain('<div class="ocr_page" id="page_1" title="bbox 0 0 4200 5950; ppageno 0; scan_res 720 720">');
  expect(out).toContain('<span class="ocr_line" id="line_1_1" title="bbox 400 500 1505 620">');
  expect(out).toContain('title="bbox 1000 500 1505 620; x_wconf 41">Point</span>');
  expect(out).toContain('title="bbox 400 700 905 820">was</span>');
  expect(out).toContain('&lt;shut&gt;');
});

test('without as many confidences as words, none is said of any', () =>
  expect(hocr([page(['Ferrow Point'], [96])], 'x')).not.toContain('x_wconf'));

test('what is written is read back word for word by another program', () => {
  const lines = ['The keeper shut the gate', 'at dusk; “no notice”', 'was given & none asked'];
  const out = hocr([page(lines), { ...page(['Second page']), number: 2 }], 'Letters');
  const plain = execFileSync('pandoc', ['-f', 'html', '-t', 'plain', '--wrap=none'], { input: out }).toString();
  expect(plain.split(/\s+/).filter(Boolean).join(' ')).toBe([...lines, 'Second page'].join(' '));
});

test('whatever the words, it is well-formed', () => {
  fc.assert(
    fc.property(
      fc.array(fc.string({ unit: 'binary', minLength: 1, maxLength: 12 }), { minLength: 1, maxLength: 6 }),
      (words) => {
        const line = words.map((w) => w.replace(/\s/g, '_') || '_').join(' ');
        const parser = new SaxesParser();
        parser.on('error', (error) => {
          throw error;
        });
        expect(() => parser.write(hocr([page([line])], line)).close()).not.toThrow();
      },
    ),
  );
});
