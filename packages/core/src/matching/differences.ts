/** What of a text is not in another, at the letter: for showing both beside each other. */

export interface Piece {
  text: string;
  /** It stands in this text alone. */
  differs: boolean;
}

/** Longer texts are told word by word. */
const BY_LETTER = 400;

/** By the longest common subsequence (Wagner and Fischer's table), of letters, or of words where the texts are long. */
export function differences(text: string, against: string): Piece[] {
  if (text === against || !text) return text ? [{ text, differs: false }] : [];
  const long = Math.max(text.length, against.length) > BY_LETTER;
  const parts = (t: string): string[] => (long ? (t.match(/\s+|\S+/g) ?? []) : [...t]).slice(0, 1500);
  const [a, b] = [parts(text), parts(against)];
  const table = Array.from({ length: a.length + 1 }, () => new Uint16Array(b.length + 1));
  for (let i = a.length - 1; i >= 0; i -= 1)
    for (let j = b.length - 1; j >= 0; j -= 1)
      table[i]![j] = a[i] === b[j] ? table[i + 1]![j + 1]! + 1 : Math.max(table[i + 1]![j]!, table[i]![j + 1]!);
  const out: Piece[] = [];
  const put = (part: string, differs: boolean): void => {
    const last = out.at(-1);
    if (last?.differs === differs) last.text += part;
    else out.push({ text: part, differs });
  };
  let j = 0;
  for (let i = 0; i < a.length; i += 1) {
    if (j < b.length && a[i] === b[j]) {
      put(a[i]!, false);
      j += 1;
    } else if (j < b.length && table[i]![j + 1]! > table[i + 1]![j]!) {
      j += 1;
      i -= 1;
    } else put(a[i]!, true);
  }
  return scattered(out) ? [{ text, differs: true }] : out;
}

/** Where hardly anything runs on in both, single letters that happen to be the same say nothing. */
const scattered = (pieces: Piece[]): boolean => {
  const same = pieces.filter((p) => !p.differs).map((p) => p.text.length);
  return pieces.length > 8 && same.reduce((x, y) => x + y, 0) / Math.max(1, same.length) < 2.5;
};
