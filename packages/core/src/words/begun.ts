/** Words half typed: what the index holds of a word is its stem, which may be shorter than what stands there already. */
import { fold, stem } from './tokens.ts';

/** The endings a stem loses (Porter 1980, steps 1 to 5), as they are written. */
const ENDINGS = (
  's es ed ing y ies e al ance ence er ers or ors ic able ible ably ibly ant ement ment ent ion ions ations ation ated ating ' +
  'ators ator ate ates ism ist ists ity ous ously ousness ive ives ively iveness ivity ize izes ized izing izer ization ise ised ising ' +
  'isation ational tional ency ancy ently ality ally alism ability ibility icate ative ativeness alize icity ical ically ful ' +
  'fulness fully ness ely ly'
).split(' ');

/**
 * Stems of words that begin with these letters, as far as they do not begin so themselves: “operat” begins “operator”,
 * whose stem is “oper”. With the stems that begin with the letters they are all a half-typed word can mean.
 */
export function stemsBegunBy(text: string): string[] {
  const begun = fold(text);
  const out = new Set<string>();
  if (!/^[a-z]{3,}$/.test(begun)) return [];
  for (const ending of ENDINGS)
    for (let there = 0; there < ending.length; there += 1)
      if (begun.endsWith(ending.slice(0, there))) out.add(stem(begun + ending.slice(there)));
  return [...out].filter((s) => !s.startsWith(begun));
}
