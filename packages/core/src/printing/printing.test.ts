/** A bibliography as a file: held against pandoc, which reads what is written. */
import { execFileSync } from 'node:child_process';
import fc from 'fast-check';
import { expect, test } from 'vitest';
import { runsOf, writePrinted, type Printed } from './index.ts';

const PRINTED: Printed = {
  entries: [
    {
      html: 'Okonjo, Ẹ. 2014. “Who Closes the Gate? H<sub>2</sub>O &#38; <i>Spartina</i>.” <i>Journal of <span style="font-style:normal;">Spartina</span> Law</i> 22 (3): 201–29.',
      text: 'Okonjo, Ẹ. 2014. “Who Closes the Gate? H2O & Spartina.” Journal of Spartina Law 22 (3): 201–29.',
    },
    {
      html: '<b>2.</b> 1. A title with *stars*, [brackets] and {braces}',
      text: '2. 1. A title with *stars*, [brackets] and {braces}',
    },
  ],
  hangingIndent: true,
};
const pandoc = (from: string, to: string, input: string): string =>
  execFileSync('pandoc', ['-f', from, '-t', to, '--wrap=none'], { input, encoding: 'utf8' }).trim();
const lines = (text: string): string[] =>
  text
    .split(/\n+/)
    .map((l) => l.replace(/\s+/g, ' ').trim())
    .filter(Boolean);

test.each([
  ['markdown', 'markdown'],
  ['html', 'html'],
  ['rtf', 'rtf'],
] as const)('as %s it has the same words for pandoc', (format, from) => {
  expect(lines(pandoc(from, 'plain', writePrinted(PRINTED, format)).replaceAll('_', '').replaceAll('₂', '2'))).toEqual(
    PRINTED.entries.map((e) => e.text),
  );
});

test('italics, raised and lowered parts are there in each', () => {
  for (const [format, from] of [
    ['markdown', 'markdown'],
    ['rtf', 'rtf'],
    ['html', 'html'],
  ] as const) {
    const html = pandoc(from, 'html', writePrinted(PRINTED, format));
    expect(html).toMatch(/<(?:em|i)>Spartina<\/(?:em|i)>/);
    expect(html).toContain('<sub>2</sub>');
    expect(html).toMatch(/<(?:strong|b)>2\.<\/(?:strong|b)>/);
  }
});

test('whatever an entry holds, its runs have all its words, and RTF is of plain signs with braces that close', () => {
  fc.assert(
    fc.property(
      fc.array(fc.tuple(fc.string({ unit: 'grapheme', maxLength: 12 }), fc.constantFrom('', 'i', 'b', 'sup'))),
      (parts) => {
        const escaped = (t: string): string =>
          t.replaceAll('&', '&#38;').replaceAll('<', '&#60;').replaceAll('>', '&#62;');
        const html = parts.map(([t, tag]) => (tag ? `<${tag}>${escaped(t)}</${tag}>` : escaped(t))).join('');
        const text = parts.map(([t]) => t).join('');
        expect(
          runsOf(html)
            .map((r) => r.text)
            .join(''),
        ).toBe(text);
        const rtf = writePrinted({ entries: [{ html, text }], hangingIndent: false }, 'rtf');
        expect(rtf).toMatch(/^[\x20-\x7e\n]*$/);
        const bare = rtf.replace(/\\[\\{}]/g, '');
        expect(bare.split('{').length).toBe(bare.split('}').length);
      },
    ),
  );
});
