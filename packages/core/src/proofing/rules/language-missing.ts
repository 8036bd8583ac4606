import { isShouting } from '../case.ts';
import { short, type Rule } from '../rule.ts';
import { TITLE_CASE } from '../uses.ts';

/** Words of each language that stand in most of its titles and hardly in those of another. */
const WORDS: Record<string, string> = {
  de: 'der die das und für über eine ein im zur zum von dem den des mit bei auf nach zwischen aus als ihre seine wie',
  fr: 'de le les une du des et au aux dans sur pour par entre chez leurs sa ses vers sous',
  es: 'de el los las una del y en para por con sobre entre desde hacia su sus como',
  it: 'il lo gli della delle degli dei nel nella nelle sulla per tra dal dalla e come una',
  nl: 'het een van voor met over naar tussen bij uit op de en als hun zijn',
  pt: 'de os as uma do da dos das e em na no nas nos para por com sobre entre',
  sv: 'och för från med mellan vid ett om att som under efter av den det',
};
const ENGLISH = 'the of and in for on with from to by at an is are as between its into their';
const sets = new Map(Object.entries(WORDS).map(([l, w]) => [l, new Set(w.split(' '))]));
const english = new Set(ENGLISH.split(' '));

/** The language a title is surely in, where it is none of English. */
export function languageOf(title: string): string | undefined {
  const words = [...new Set(title.toLowerCase().match(/\p{L}+/gu) ?? [])];
  if (words.some((w) => english.has(w) && !['in', 'an', 'is', 'as', 'by', 'on', 'at'].includes(w))) return undefined;
  const ranked = [...sets]
    .map(([language, set]) => ({ language, n: words.filter((w) => set.has(w)).length }))
    .sort((a, b) => b.n - a.n);
  const [best, next] = ranked;
  return best!.n >= 2 && best!.n > next!.n ? best!.language : undefined;
}

const names = new Intl.DisplayNames(['en'], { type: 'language' });

/** Styles set titles of English great; of other languages only where the record says which it is are they left (CSL 1.0.2). */
export const languageMissing: Rule = {
  id: 'language-missing',
  severity: 'looks wrong',
  title: 'Language not said',
  why: 'The style would write its words great, as it does with English.',
  find({ record: { title, language }, uses }) {
    if (!title || language || !uses?.has(TITLE_CASE) || isShouting(title)) return [];
    const found = languageOf(title);
    return found
      ? [{ field: 'language', what: `“${short(title)}” is ${names.of(found)}`, sure: 0.92, mend: { language: found } }]
      : [];
  },
};
