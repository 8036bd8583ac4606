/** Of no word is more known than that it stands there. */
export const NOT_KNOWN = 255;

/** Words so far apart in the two lists may be the same one. */
const FURTHEST = 12;

/**
 * How sure each word is, in percent, of a list of the same words that may lack some, have others, or part them otherwise: the
 * next alike within a few words is taken for the same.
 */
export function confidenceOf(
  words: readonly string[],
  recognised: readonly { text: string; confidence: number }[],
): Uint8Array {
  const out = new Uint8Array(words.length).fill(NOT_KNOWN);
  let next = 0;
  words.forEach((word, i) => {
    for (let k = next; k < Math.min(recognised.length, next + FURTHEST); k += 1) {
      const { text, confidence } = recognised[k]!;
      // A broken word has lost its hyphen.
      if (text !== word && text.replace(/[-\u00AD‐]$/u, '') !== word) continue;
      out[i] = Math.max(0, Math.min(100, Math.round(confidence)));
      next = k + 1;
      return;
    }
  });
  return out;
}
