/**
 * DOIs after ISO 26324 and the DOI Handbook, section 2: `10.` registrant `/` suffix, case-insensitive.
 * The characters of the suffix are, in practice, those of the registration agencies' pattern (common practice).
 */
const FIND = /\b10\.\d{4,9}(?:\.\d+)*\/[^\s"<>{}|\\^`]+/gi;

/** All DOIs in a text in the order they stand, normalised and each once. */
export function findDois(text: string): string[] {
  const found = text.match(FIND) ?? [];
  return [...new Set(found.map(trimEnd).map((d) => d.toLowerCase()))];
}

/** The DOI in its normal form (lower case, no resolver, no prefix), or undefined when the text is not one. */
export function normaliseDoi(text: string): string | undefined {
  const t = safeDecode(text.trim()).replace(/^(?:https?:\/\/(?:dx\.|www\.)?doi\.org\/|doi(?:\.org\/|:\s*|\s+))/i, '');
  if (!/^10\.\d{4,9}(?:\.\d+)*\/\S+$/.test(t)) return undefined;
  return trimEnd(t).toLowerCase();
}

function safeDecode(t: string): string {
  if (!/%[0-9a-f]{2}/i.test(t) || !/^https?:/i.test(t)) return t;
  try {
    return decodeURIComponent(t);
  } catch {
    return t;
  }
}

/** Takes off punctuation that ends a sentence, and a closing bracket whose opening one is not in the DOI. */
function trimEnd(doi: string): string {
  let t = doi;
  for (;;) {
    const last = t.at(-1)!;
    const open = last === ')' ? '(' : last === ']' ? '[' : undefined;
    const unbalanced = open && t.split(open).length < t.split(last).length;
    if (/[.,;:!?'’”*]/.test(last) || unbalanced) t = t.slice(0, -1);
    else return t;
  }
}
