import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import {
  decodeText,
  detectFormat,
  EXPORT_FORMATS,
  readAs,
  readSources,
  settleIdentifiers,
  TEXT_FORMATS,
  writeSources,
  type ExportFormat,
  type ReadResult,
  type TextFormat,
} from './index.ts';
import { latexToText, textToLatex } from './latex/index.ts';
import { anySource, anyText } from '../testing/index.ts';

/** By the reader of the format, whatever the content resembles. */
const readBack = (format: ExportFormat, text: string): ReadResult =>
  readAs(format === 'biblatex' ? 'bibtex' : format, text);

describe.each(EXPORT_FORMATS)('what is written as %s', (format) => {
  test('reads back to the same records, whatever is in them', () => {
    fc.assert(
      fc.property(fc.array(anySource, { minLength: 1, maxLength: 3 }), (sources) => {
        const read = readBack(format, writeSources(sources, format)).sources;
        expect(read).toHaveLength(sources.length);
        read.forEach((r, i) => {
          const { 'citation-key': made, ...rest } = r.record;
          const { 'citation-key': own, ...wanted } = structuredClone(sources[i]!.record);
          // JSON has no field of ours beside its own: identifiers are put in their normal form once more.
          if (format === 'csl-json') settleIdentifiers(wanted);
          expect(rest).toEqual(wanted);
          expect(r.subjects).toEqual(sources[i]!.subjects);
          // BibTeX entries must have a key: one is made where the record has none or one it cannot hold twice.
          if (own !== undefined && !/bib/.test(format)) expect(made).toBe(own);
        });
      }),
      { numRuns: 150 },
    );
  });

  test('is recognised from its content', () => {
    fc.assert(
      fc.property(anySource, (source) => {
        expect(detectFormat(writeSources([source], format))).toBe(format === 'biblatex' ? 'bibtex' : format);
      }),
      { numRuns: 40 },
    );
  });
});

test('text survives the way into LaTeX and back', () => {
  fc.assert(
    fc.property(
      anyText.map((t) => t.replace(/\s+/g, ' ').normalize('NFC')).filter((t) => !/[$<>`'-]/.test(t)),
      (text) => {
        expect(latexToText(textToLatex(text))).toBe(text.trim());
      },
    ),
  );
});

test('no reader ever throws, whatever bytes it is given', () => {
  fc.assert(
    fc.property(fc.uint8Array({ maxLength: 400 }), (bytes) => {
      const { text } = decodeText(bytes);
      for (const format of Object.keys(TEXT_FORMATS) as TextFormat[])
        expect(Array.isArray(readAs(format, text).messages)).toBe(true);
    }),
    { numRuns: 200 },
  );
});

test('cut anywhere, a file of references still gives the entries before the cut', () => {
  const whole = Object.fromEntries(
    EXPORT_FORMATS.map((f) => [
      f,
      writeSources(
        [1, 2, 3].map((n) => ({
          record: { type: 'book', title: `Volume ${n} of the Minutes`, issued: { 'date-parts': [[1870 + n]] } },
          subjects: [],
        })),
        f,
      ),
    ]),
  );
  fc.assert(
    fc.property(fc.constantFrom(...EXPORT_FORMATS), fc.double({ min: 0.65, max: 1, noNaN: true }), (format, share) => {
      const text = whole[format]!;
      const read = readSources(text.slice(0, Math.floor(text.length * share)));
      expect(read?.sources[0]?.record.title).toBe('Volume 1 of the Minutes');
    }),
  );
});
