import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { decodeEntities, plainText, repairEncoding, stripTags } from './index.ts';

/** As Windows-1252 reads the bytes of UTF-8 (WHATWG Encoding Standard), through the platform's own decoder. */
const mangle = (text: string): string => new TextDecoder('windows-1252').decode(new TextEncoder().encode(text));

describe('UTF-8 that was read as Windows-1252', () => {
  test.each([
    'Café',
    'Ångström’s “law”',
    'Übergröße – naïve',
    'Łódź',
    'Žižek',
    'Ελλάδα',
    'Москва',
    '10 € · ½',
    'São Tomé',
    'œuvre … à Paris',
  ])(
    // prettier-ignore
    '%s comes back, mangled once and twice',
    (text) => {
      expect(repairEncoding(mangle(text))).toBe(text);
      expect(repairEncoding(mangle(mangle(text)))).toBe(text);
    },
  );

  test('with the signs Windows-1252 has and ISO 8859-1 has not', () => {
    expect(repairEncoding('Ã©tÃ© â€“ lâ€™Å“uvre de â€œlâ€¦â€')).toBe('été – l’œuvre de “l…”');
  });

  test('a no-break blank that became a plain one is told', () => {
    expect(repairEncoding('CafÃ© Ã Paris'.replace('Ã Paris', 'Ã la Paris'))).toBe('Café àla Paris');
  });

  test.each([
    'Café',
    '»MENÜ«',
    '«CLICHÉ»',
    'Çà et là',
    'Ål og Ære',
    'ÉCOLE D’ÉTÉ',
    'Ã',
    'naïve “Über”',
    'Ð and Þ',
    'Â',
    '£5 – §12',
  ])('sound text stays: %s', (text) => expect(repairEncoding(text)).toBe(text));

  test('whatever was mangled comes back', () => {
    const letter = fc.constantFrom(...'éèüöäßøåñçžšłőœŸ’“”–—…');
    const word = fc.array(fc.oneof(letter, fc.constantFrom(...'abcdefgh ')), { minLength: 1, maxLength: 20 });
    fc.assert(
      fc.property(word, (letters) => {
        const text = letters.join('');
        expect(repairEncoding(mangle(text))).toBe(text);
      }),
    );
  });
});

test('entities are decoded however often they were escaped, and what is none stays', () => {
  expect(decodeEntities('&amp;eacute;t&#233; &amp; R&D &lt;b&gt; &unknown;')).toBe('été & R&D <b> &unknown;');
});

test('tags go and signs for less stay', () => {
  expect(stripTags('<jats:p>a < b and <i>c</i></jats:p>')).toBe('a < b and c');
});

test('a text as it was meant', () => {
  expect(plainText('The {\\"U}ber <i>gate</i>  &amp; CafÃ©')).toBe('The Über gate & Café');
});
