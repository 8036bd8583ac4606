/**
 * Sentence case: all small but the first word, and what has its capitals for a reason: names, acronyms, formulas, numerals.
 * Which words are names is told by the caller, by a list of peoples, places, languages and days (ICU's names, as the platform has
 * them), and by how the title itself writes them.
 */

const REGIONS = 'AD AE AF AL AM AO AR AT AU AZ BA BD BE BG BO BR BY CA CD CH CL CM CN CO CR CU CY CZ DE DK DO DZ EC EE EG ES ET FI FJ FR GB GE GH GR GT HK HN HR HT HU ID IE IL IN IQ IR IS IT JM JO JP KE KG KH KP KR KW KZ LA LB LK LR LT LU LV LY MA MD ME MG MK ML MM MN MT MW MX MY MZ NA NE NG NI NL NO NP NZ PA PE PH PK PL PT PY RO RS RU RW SA SD SE SG SI SK SN SO SY TH TN TR TW TZ UA UG US UY UZ VE VN YE ZA ZM ZW'; // prettier-ignore
const LANGUAGES = 'af ar be bg bn br ca cs cy da de el en eo es et eu fa fi fr ga gd gl gu he hi hr hu hy id is it ja ka kk km kn ko ku la lb lo lt lv mk ml mn mr ms mt my ne nl no pa pl ps pt ro ru sa sk sl so sq sr sv sw ta te th tl tr tt uk ur uz vi yi zh zu'; // prettier-ignore
const MORE = 'Africa African Africans America American Americans Asia Asian Europe European Europeans Atlantic Pacific Mediterranean Baltic Arctic Antarctic Britain British Dutch Scottish Scotland Wales England London Paris Berlin Vienna Rome Oxford Cambridge Boston Chicago California Texas Washington Christian Christianity Jewish Judaism Islam Islamic Muslim Muslims Buddhist Hindu Catholic Protestant Bible Biblical God Christ Darwin Darwinian Newton Newtonian Einstein Bayes Bayesian Gaussian Markov Fourier Hilbert Euler Poisson Boolean Marx Marxist Kant Kantian Hegel Plato Platonic Aristotle Shakespeare Victorian Edwardian Elizabethan Georgian Roman Romans Greek Greeks Latin Renaissance Enlightenment Gothic Ottoman Soviet Monday Tuesday Wednesday Thursday Friday Saturday Sunday January February March April May June July August September October November December Swiss Swede Swedish Danish Irish Welsh Norman Celtic Nordic Balkan Indian Indians Chinese Egyptian Israeli Mexican Brazilian Canadian Australian Argentine Cuban Iranian Iraqi Austrian Belgian Turkish Thames Rhine Danube Nile Internet'.split(' '); // prettier-ignore

let names: Set<string> | undefined;
function properNames(): Set<string> {
  if (names) return names;
  const region = new Intl.DisplayNames('en', { type: 'region' });
  const language = new Intl.DisplayNames('en', { type: 'language' });
  const all = [
    ...REGIONS.split(' ').map((c) => region.of(c)!),
    ...LANGUAGES.split(' ').map((c) => language.of(c)!),
    ...MORE,
  ];
  names = new Set(all.flatMap((n) => n.split(/[^\p{L}]+/u)).filter((w) => w.length > 3 && /^\p{Lu}/u.test(w)).map((w) => w.toLowerCase())); // prettier-ignore
  // Words that are common as well.
  for (const w of ['march', 'may', 'august', 'polish', 'united', 'states', 'republic', 'island', 'islands', 'south', 'north', 'central', 'region', 'kingdom', 'china', 'turkey', 'jersey', 'chile', 'bath']) names.delete(w); // prettier-ignore
  return names;
}
/** Common words too, that are names where they stand great in a title that is not all great. */
const AMBIGUOUS = new Set(['china', 'turkey', 'chile', 'jersey', 'polish', 'march', 'may', 'august']);

const isRoman = (word: string): boolean =>
  /^(?=[IVXLCDM]{2,})M{0,3}(?:CM|CD|D?C{0,3})(?:XC|XL|L?X{0,3})(?:IX|IV|V?I{0,3})$/.test(word);
/** Capitals inside, digits, or all capitals in a title that is not all in capitals: pH, mRNA, DNA, H2O, McAdam, O’Neill. */
const isMarked = (word: string, shouting: boolean): boolean =>
  /\d/.test(word)
    ? /\p{Lu}/u.test(word) && !shouting
    : !shouting && (/.\p{Lu}/u.test(word) || /^\p{Lu}\.(?:\p{Lu}\.)+$/u.test(word));

export interface CaseOptions {
  /** Names the caller knows of. */
  isProper?: (word: string, before?: string) => boolean;
  /** Words that keep their form whatever else, as a workspace lists them. */
  keep?: readonly string[];
}

/** True where a quarter of all signs are small letters of ASCII: most titles are told by that. */
function isQuiet(title: string): boolean {
  let small = 0;
  for (let i = 0; i < title.length; i += 1) if (title.charCodeAt(i) >= 97 && title.charCodeAt(i) <= 122) small += 1;
  return small * 4 > title.length && !title.includes('<');
}

/** True where no small letter stands in it and there are enough to tell. */
export function isShouting(title: string): boolean {
  if (isQuiet(title)) return false;
  const letters = title.replace(/<[^>]+>/g, '').match(/\p{L}/gu) ?? [];
  const small = letters.filter((l) => /\p{Ll}/u.test(l)).length;
  return letters.length >= 8 && small / letters.length < 0.12;
}

const LITTLE =
  /^(?:a|an|the|and|or|nor|but|of|in|on|at|to|for|from|by|with|as|into|over|under|vs?|via|per|its?|is|are|be|up|off)$/i;

/** True where nearly all words that carry a meaning begin great, and there are enough to tell. */
export function isTitleCase(title: string): boolean {
  const words = (title.match(/\p{L}[\p{L}'’]*/gu) ?? []).slice(1).filter((w) => !LITTLE.test(w) && w.length > 1);
  const great = words.filter((w) => /^\p{Lu}/u.test(w)).length;
  return words.length >= 3 && great / words.length >= 0.8;
}

const WORD = /(?:\p{L}\.){2,}|[\p{L}\p{N}][\p{L}\p{N}\p{M}'’]*/gu;

export function sentenceCase(title: string, { isProper = () => false, keep = [] }: CaseOptions = {}): string {
  const shouting = isShouting(title);
  const kept = new Map(keep.map((k) => [k.toLowerCase(), k]));
  const known = properNames();
  // What stands in a stretch that is to keep its case, and tags, are no words.
  const tags: [number, number][] = [...title.matchAll(/<span class="nocase">.*?<\/span>|<\/?[a-z][^>]*>/gi)].map(
    (m) => [m.index, m.index + m[0].length],
  );
  let first = true;
  let last: string | undefined;
  return title.replace(WORD, (word: string, at: number) => {
    if (tags.some(([from, to]) => at >= from && at < to)) return word;
    const before = title.slice(0, at).replace(/<[^>]+>/g, '');
    // The first word, and the first of what is quoted or asked before.
    const begins = first || /[.?!]\s+["'“‘«(]*$/.test(before) || /[—]\s*$/.test(before);
    first = false;
    const lower = word.toLowerCase();
    const previous = last;
    last = lower;
    const own = kept.get(lower);
    if (own) return own;
    const stem = lower.replace(/['’]s$/, '');
    const great = (w: string): string => w.charAt(0).toUpperCase() + w.slice(1);
    if (isMarked(word, shouting) || (isRoman(word) && (!shouting || word.length > 1) && !/^(?:MIX|DID|CIVIL|MILD|DIM|LID|MID|VIM|MILL|MI|DI|LI|CD|MD|CV)$/.test(word))) return word; // prettier-ignore
    if (lower === 'i' || (/^\p{Lu}$/u.test(word) && !shouting && lower !== 'a')) return word;
    if (known.has(stem) || isProper(stem, previous)) return great(lower);
    if (!shouting && AMBIGUOUS.has(stem) && /^\p{Lu}/u.test(word)) return great(lower);
    // What stands small in it already is meant so.
    return begins ? great(lower) : lower;
  });
}
