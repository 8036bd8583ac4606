/** What a word that was recognised unsurely may be: a word of the same document, or of the language, that looks like it. */

/** Letters that look like others in print, each pair as recognition mixes them up (common practice; both ways). */
const ALIKE: [string, string][] = [
  ['rn', 'm'], ['vv', 'w'], ['ii', 'u'], ['li', 'h'], ['cl', 'd'], ['ln', 'h'], ['nn', 'm'], ['ri', 'n'],
  ['1', 'l'], ['0', 'o'], ['5', 's'], ['8', 'b'], ['|', 'l'], ['!', 'l'], ['c', 'e'], ['f', 's'], ['t', 'l'], ['i', 'l'], ['u', 'n'], ['h', 'b'], ['v', 'y'],
]; // prettier-ignore

/** What stands around a word. */
const AROUND = /^([^\p{L}\p{N}|!]*)(.*?)([^\p{L}\p{N}|]*)$/su;

export interface KnownWords {
  /** How often a word stands in the document where it was recognised surely. @param word small */
  inDocument(word: string): number;
  /** Whether it is a word everyone uses. @param word small */
  isPlain(word: string): boolean;
}

/** The word with one or two of its letters as others that look like them. */
function* lookAlikes(word: string, depth = 2): Generator<string> {
  for (const [a, b] of ALIKE)
    for (const [from, to] of [
      [a, b],
      [b, a],
    ] as const)
      for (let at = word.indexOf(from); at >= 0; at = word.indexOf(from, at + 1)) {
        const other = word.slice(0, at) + to + word.slice(at + from.length);
        yield other;
        if (depth > 1) yield* lookAlikes(other, depth - 1);
      }
}

const LETTERS = 'abcdefghijklmnopqrstuvwxyz';
/** The word with one letter left out, put in, or another. */
function* oneOff(word: string): Generator<string> {
  for (let i = 0; i <= word.length; i += 1) {
    const [before, after] = [word.slice(0, i), word.slice(i)];
    if (after) yield before + after.slice(1);
    for (const letter of LETTERS) {
      yield before + letter + after;
      if (after) yield before + letter + after.slice(1);
    }
  }
}

/** In letters; for longer words too many others would have to be tried. */
const LONGEST = 24;

/** @param word as it was recognised, with what stands around it @returns as it would be written; nothing where none is better */
export function proposalFor(word: string, known: KnownWords): string | undefined {
  const [, before = '', inner = '', after = ''] = AROUND.exec(word) ?? [];
  const small = inner.toLowerCase();
  if (small.length < 3 || small.length > LONGEST || known.inDocument(small) || known.isPlain(small)) return undefined;
  let best: { word: string; weight: number } | undefined;
  const weigh = (candidate: string, factor: number): void => {
    if (candidate === small || candidate.length < 3) return;
    const weight = factor * (known.inDocument(candidate) * 4 + (known.isPlain(candidate) ? 1 : 0));
    if (weight > (best?.weight ?? 0)) best = { word: candidate, weight };
  };
  // Letters that look alike first: a letter that is merely another is likelier another word.
  for (const candidate of lookAlikes(small)) weigh(candidate, 8);
  if (small.length > 4) for (const candidate of oneOff(small)) weigh(candidate, 1);
  if (!best) return undefined;
  const isShouted = inner.length > 1 && inner === inner.toUpperCase() && /\p{Lu}/u.test(inner);
  const isCapital = /^\p{Lu}/u.test(inner);
  const said = isShouted
    ? best.word.toUpperCase()
    : isCapital
      ? best.word[0]!.toUpperCase() + best.word.slice(1)
      : best.word;
  return before + said + after;
}
