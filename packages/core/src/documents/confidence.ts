/** Stands for the confidence of a word that was not found among the recognised ones. */
export const NOT_KNOWN = 255;

/** How many recognised words ahead an equal one is looked for. */
const FURTHEST = 12;

/**
 * The confidence of each word, in percent. The recognised words may differ from the page's: some are missing, others are added. A
 * word takes the confidence of the next recognised word that is equal to it, at most a few words further on.
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
