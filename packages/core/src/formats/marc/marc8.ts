/**
 * MARC-8 (MARC 21 Specifications, "Character Sets and Encoding Options"): ASCII with ANSEL (ANSI/NISO Z39.47) above, whose
 * marks stand before the letter they belong to. Written from memory of the code table; other sets, which escape sequences
 * call, are left as the sign for an unknown character.
 */
const LETTERS: Record<number, string> = {
  0xa1: 'Ł',
  0xa2: 'Ø',
  0xa3: 'Đ',
  0xa4: 'Þ',
  0xa5: 'Æ',
  0xa6: 'Œ',
  0xa7: 'ʹ',
  0xa8: '·',
  0xa9: '♭',
  0xaa: '®',
  0xab: '±',
  0xac: 'Ơ',
  0xad: 'Ư',
  0xae: 'ʼ',
  0xb0: 'ʻ',
  0xb1: 'ł',
  0xb2: 'ø',
  0xb3: 'đ',
  0xb4: 'þ',
  0xb5: 'æ',
  0xb6: 'œ',
  0xb7: 'ʺ',
  0xb8: 'ı',
  0xb9: '£',
  0xba: 'ð',
  0xbc: 'ơ',
  0xbd: 'ư',
  0xc0: '°',
  0xc1: 'ℓ',
  0xc2: '℗',
  0xc3: '©',
  0xc4: '♯',
  0xc5: '¿',
  0xc6: '¡',
  0xc7: 'ß',
  0xc8: '€',
};
/** The marks from 0xE0 to 0xFE. */
const MARKS: Record<number, string> = {
  0xe0: '\u0309',
  0xe1: '\u0300',
  0xe2: '\u0301',
  0xe3: '\u0302',
  0xe4: '\u0303',
  0xe5: '\u0304',
  0xe6: '\u0306',
  0xe7: '\u0307',
  0xe8: '\u0308',
  0xe9: '\u030c',
  0xea: '\u030a',
  0xeb: '\u0361',
  0xec: '',
  0xed: '\u0315',
  0xee: '\u030b',
  0xef: '\u0310',
  0xf0: '\u0327',
  0xf1: '\u0328',
  0xf2: '\u0323',
  0xf3: '\u0324',
  0xf4: '\u0325',
  0xf5: '\u0333',
  0xf6: '\u0332',
  0xf7: '\u0326',
  0xf8: '\u031c',
  0xf9: '\u032e',
  0xfa: '\u0360',
  0xfb: '',
  0xfe: '\u0313',
};

/** True of a file of MARC records whose leader does not say that they are in Unicode. */
export function isMarc8(bytes: Uint8Array): boolean {
  const head = String.fromCharCode(...bytes.subarray(0, 24));
  return /^\d{5}[acdnp][a-z][a-z].[^a]22\d{5}/s.test(head);
}

export function decodeMarc8(bytes: Uint8Array): string {
  const out: string[] = [];
  let marks = '';
  for (let i = 0; i < bytes.length; i += 1) {
    const b = bytes[i]!;
    if (b === 0x1b) {
      // An escape calls another set: "(B", ")E", "s", "$1".
      while (i + 1 < bytes.length && /[$(),!-]/.test(String.fromCharCode(bytes[i + 1]!))) i += 1;
      i += 1;
    } else if (b >= 0xe0) marks += MARKS[b] ?? '';
    else {
      const letter = b < 0x80 ? String.fromCharCode(b) : (LETTERS[b] ?? (b < 0xa0 ? '' : '\uFFFD'));
      out.push(letter, marks);
      if (letter) marks = '';
    }
  }
  return out.join('').normalize('NFC');
}
