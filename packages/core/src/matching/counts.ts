/** Words that count: numbers in digits, in words and in Roman numerals. */

const ROMAN = /^(?=[ivxlc])(?:c{0,3})(?:xc|xl|l?x{0,3})(?:ix|iv|v?i{0,3})$/;
const VALUES: Record<string, number> = { i: 1, v: 5, x: 10, l: 50, c: 100 };
/** The value of a Roman numeral in small letters up to 399; 0 where it is none. */
export function romanOf(text: string): number {
  if (!text || !ROMAN.test(text)) return 0;
  return [...text].reduce((sum, c, i) => {
    const v = VALUES[c]!;
    return sum + (v < (VALUES[text[i + 1] ?? ''] ?? 0) ? -v : v);
  }, 0);
}

const COUNTS = new Map(['one', 'two', 'three', 'four', 'five', 'six', 'seven', 'eight', 'nine', 'ten'].map((w, i) => [w, i + 1])); // prettier-ignore
const ORDINALS = new Map(['first', 'second', 'third', 'fourth', 'fifth', 'sixth', 'seventh', 'eighth', 'ninth', 'tenth'].map((w, i) => [w, i + 1])); // prettier-ignore

/** What a word counts as, where it counts: "II", "2", "second", "2nd", "two". */
export function countOf(word: string): string | undefined {
  const digits = /^(\d+)(?:st|nd|rd|th)?$/.exec(word)?.[1];
  if (digits) return digits.replace(/^0+(?=\d)/, '');
  if (/\d/.test(word)) return word;
  const n = romanOf(word) || COUNTS.get(word) || ORDINALS.get(word);
  return n ? String(n) : undefined;
}
