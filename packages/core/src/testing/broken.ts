/** Texts as they arrive when something went wrong: cut, doubled, turned about, with what breaks readers in their middle. */
import fc from 'fast-check';

const PIECES = [
  '\u0000',
  '\ud800',
  '\udc00\udc00',
  '🙂',
  '"',
  "'",
  '{',
  '}',
  '{'.repeat(2000),
  '}'.repeat(2000),
  '<',
  '<i ',
  '<i '.repeat(1000),
  '&#xD800;',
  '&amp;'.repeat(500),
  '<!--',
  '<![CDATA[',
  ']]>',
  '<!DOCTYPE x [<!ENTITY a "b">]>',
  '\\',
  '\\u0000',
  '$',
  '%',
  '@',
  ',',
  ';;;',
  '\r',
  '\n\n',
  '\t',
  '-'.repeat(3000),
  ' '.repeat(3000),
  'ER  - ',
  '9999999999999999',
  '-1',
  '()'.repeat(500),
  '['.repeat(1000),
  'http://',
  '10.5555/',
  '\u2028',
  '\ufeff',
];

type Break = { at: number; length: number; piece: string; way: 'cut' | 'double' | 'put' | 'swap' };

const breaks: fc.Arbitrary<Break[]> = fc.array(
  fc.record({
    at: fc.double({ min: 0, max: 1, noNaN: true }),
    length: fc.nat({ max: 400 }),
    piece: fc.oneof(fc.constantFrom(...PIECES), fc.string({ unit: 'binary', maxLength: 12 })),
    way: fc.constantFrom('cut', 'double', 'put', 'swap'),
  }),
  { minLength: 1, maxLength: 6 },
);

/** One of the texts, broken in a few places. */
export const broken = (texts: readonly string[]): fc.Arbitrary<string> =>
  fc.tuple(fc.constantFrom(...texts), breaks).map(([text, all]) => all.reduce(apply, text));

function apply(text: string, { at, length, piece, way }: Break): string {
  const i = Math.floor(at * text.length);
  const [before, part, after] = [text.slice(0, i), text.slice(i, i + length), text.slice(i + length)];
  if (way === 'cut') return before + after;
  if (way === 'double') return before + part.repeat(2) + after;
  if (way === 'swap') return after + part + before;
  return before + piece + part + after;
}
