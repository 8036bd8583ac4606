/**
 * Which words of a title have their capitals for a reason: names of people, places, peoples, bodies, times. Told by how
 * other titles write them, by lists, and by the words beside them: "River" behind a name is part of it.
 */
import type { English } from '../english/index.ts';

const REGIONS = 'AD AE AF AL AM AO AR AT AU AZ BA BD BE BG BO BR BY CA CD CH CL CM CN CO CR CU CY CZ DE DK DO DZ EC EE EG ES ET FI FJ FR GB GE GH GR GT HK HN HR HT HU ID IE IL IN IQ IR IS IT JM JO JP KE KG KH KP KR KW KZ LA LB LK LR LT LU LV LY MA MD ME MG MK ML MM MN MT MW MX MY MZ NA NE NG NI NL NO NP NZ PA PE PH PK PL PT PY RO RS RU RW SA SD SE SG SI SK SN SO SY TH TN TR TW TZ UA UG US UY UZ VE VN YE ZA ZM ZW'; // prettier-ignore
const LANGUAGES = 'af ar be bg bn br ca cs cy da de el en eo es et eu fa fi fr ga gd gl gu he hi hr hu hy id is it ja ka kk km kn ko ku la lb lo lt lv mk ml mn mr ms mt my ne nl no pa pl ps pt ro ru sa sk sl so sq sr sv sw ta te th tl tr tt uk ur uz vi yi zh zu'; // prettier-ignore
const MORE = 'Africa African Africans America American Americans Asia Asian Asians Europe European Europeans Atlantic Pacific Mediterranean Baltic Arctic Antarctic Caribbean Britain British Dutch Scottish Scotland Wales England London Paris Berlin Vienna Rome Oxford Cambridge Boston Chicago California Texas Washington Christian Christians Christianity Jew Jews Jewish Judaism Islam Islamic Muslim Muslims Buddhist Buddhism Hindu Hinduism Catholic Catholics Protestant Protestants Puritan Quaker Bible Biblical God Christ Jesus Darwin Darwinian Newton Newtonian Einstein Bayes Bayesian Gaussian Markov Fourier Hilbert Euler Poisson Boolean Marx Marxist Marxism Kant Kantian Hegel Freud Freudian Plato Platonic Aristotle Shakespeare Victorian Edwardian Elizabethan Georgian Tudor Roman Romans Greek Greeks Latin Renaissance Enlightenment Gothic Ottoman Soviet Monday Tuesday Wednesday Thursday Friday Saturday Sunday January February April June July September October November December Swiss Swede Swedish Danish Irish Welsh Norman Celtic Nordic Balkan Indian Indians Chinese Egyptian Israeli Mexican Brazilian Canadian Australian Argentine Cuban Iranian Iraqi Austrian Belgian Turkish Hispanic Thames Rhine Danube Nile Internet Holocaust Pleistocene Holocene Cretaceous Jurassic Triassic Devonian Cambrian Permian Eocene Miocene Pliocene Quaternary'; // prettier-ignore
/** Names by the list of regions that are common words as well. */
const COMMON_TOO = ['march', 'may', 'august', 'polish', 'united', 'states', 'republic', 'island', 'islands', 'south', 'north', 'central', 'region', 'kingdom', 'china', 'turkey', 'jersey', 'chile', 'bath', 'coast', 'zone', 'macao', 'special', 'new', 'saint', 'western', 'eastern', 'northern', 'southern', 'city', 'state', 'and', 'the', 'democratic', 'people', 'guinea', 'man', 'isle', 'faroe', 'cook', 'ivory', 'outlying', 'territory', 'ocean', 'cape', 'arab', 'emirates', 'upper', 'lower', 'old', 'middle', 'standard', 'sar']; // prettier-ignore

let known: Set<string> | undefined;
/** Peoples, places, languages, days (ICU's names, as the platform has them), and some more. */
export function knownNames(): Set<string> {
  if (known) return known;
  const region = new Intl.DisplayNames('en', { type: 'region' });
  const language = new Intl.DisplayNames('en', { type: 'language' });
  const all = [
    ...REGIONS.split(' ').map((c) => region.of(c)!),
    ...LANGUAGES.split(' ').map((c) => language.of(c)!),
    ...MORE.split(' '),
  ];
  known = new Set(all.flatMap((n) => n.split(/[^\p{L}]+/u)).filter((w) => w.length > 2 && /^\p{Lu}/u.test(w)).map((w) => w.toLowerCase())); // prettier-ignore
  for (const w of COMMON_TOO) known.delete(w);
  return known;
}

const set = (words: string): Set<string> => new Set(words.split(' '));
/** Common words too, that are names where they stand great in a title that is not all great. */
const AMBIGUOUS = set('china turkey chile jersey polish');
/** Names of months that are common words: with a number beside them. */
const MONTHS = set('march may august');
/** Part of the name of a place that stands before them. */
const PLACES = set('river rivers valley lake lakes bay island islands sea ocean creek county street avenue road mountain mountains hills canyon desert peninsula gulf strait straits canal delta falls park forest district province'); // prettier-ignore
/** Part of the name of a body or a time, behind a name that is no people's: "Stanford University", "Franklin Institute". */
const BODIES = set('university college press institute museum academy observatory library union empire dynasty war wars treaty convention protocol agreement corporation commission foundation abbey cathedral castle prize award act hall'); // prettier-ignore
/** Behind the name of a people too: "Spanish Civil War", "Russian Empire". */
const OF_PEOPLES = set('empire dynasty war wars union sea ocean gulf peninsula river islands bay coast');
/** Before a name: "Lake Victoria", "Cape Cod". */
const LEADS = set('lake mount mt saint st fort port cape san santa los las la el pope sir');
const DIRECTIONS = set('north south east west northern southern eastern western');
const PEOPLE = /(?:an|ans|ese|ish|ic|i|ch|ttish)$/;
/** Names of several words, none of which tells. */
const PHRASES = ['united states', 'united kingdom', 'united nations', 'world war', 'first world war', 'second world war', 'cold war', 'civil war', 'great war', 'great depression', 'middle east', 'middle eastern', 'middle ages', 'far east', 'near east', 'industrial revolution', 'french revolution', 'russian revolution', 'supreme court', 'black sea', 'red sea', 'dead sea', 'north sea', 'holy see', 'old testament', 'new testament', 'gulf stream', 'nobel prize', 'european commission', 'security council', 'house of commons', 'house of lords', 'house of representatives', 'wall street', 'white house', 'silicon valley', 'roman catholic', 'new york', 'new zealand', 'new england', 'new jersey', 'new mexico', 'new orleans', 'new south wales', 'new world', 'new deal', 'great britain', 'great lakes', 'great barrier reef', 'hong kong', 'sri lanka', 'puerto rico', 'costa rica', 'el niño', 'la niña', 'west indies', 'east indies', 'ivory coast', 'latin america', 'latin american', 'west bank', 'third world', 'world bank', 'world health organization', 'european union', 'african union', 'monte carlo', 'los angeles', 'san francisco', 'las vegas', 'bay of bengal', 'cape town', 'south china sea', 'east china sea', 'lake district', 'rocky mountains', 'world wide web']; // prettier-ignore
/** What is put before words with a hyphen. */
const TIED =
  /^(?:anti|auto|bio|co|counter|spatio|cross|cyber|e|eco|ex|geo|hyper|inter|intra|macro|mega|meta|micro|mid|mini|mono|multi|nano|neo|non|omni|over|para|post|pre|pro|proto|pseudo|quasi|re|self|semi|socio|sub|super|trans|tri|ultra|un|well)$/;
const byFirst = new Map<string, string[][]>();
for (const phrase of PHRASES) {
  const words = phrase.split(' ');
  byFirst.set(words[0]!, [...(byFirst.get(words[0]!) ?? []), words]);
}

export interface Word {
  /** As it is written, without "’s". */
  text: string;
  lower: string;
  /** It begins with a capital. */
  great: boolean;
  /** A hyphen ties it to the next. */
  tied: boolean;
}

export interface Knows {
  isProper: (word: string, before?: string, after?: string) => boolean;
  english?: English | undefined;
  /** The title is all in capitals: they tell nothing. */
  shouting: boolean;
}

/** For each word whether it is a name, or part of one. */
export function properWords(words: readonly Word[], { isProper, english, shouting }: Knows): boolean[] {
  const list = knownNames();
  const isNamed = (w: Word): boolean => Boolean(english?.isName(w.lower));
  const proper = words.map((w, i): boolean => {
    if (w.lower.length < 2 || (!shouting && !w.great) || (w.tied && TIED.test(w.lower))) return false;
    if (list.has(w.lower) || isProper(w.lower, words[i - 1]?.lower, words[i + 1]?.lower)) return true;
    if (!shouting && AMBIGUOUS.has(w.lower)) return true;
    if (MONTHS.has(w.lower)) return /^\d/.test(words[i + 1]?.text ?? '') || /^\d/.test(words[i - 1]?.text ?? '');
    // A genus stands before a word that is small among great ones, and that is no word of English.
    const next = words[i + 1];
    if (!shouting && english && next && !next.great && /^\p{Ll}{4,}$/u.test(next.text) && !english.isCommon(next.lower)) return true; // prettier-ignore
    if (!english || !/^\p{L}+$/u.test(w.text)) return false;
    return isNamed(w) ? !english.isPlain(w.lower) : w.lower.length > 2 && !english.isCommon(w.lower);
  });
  const free = (i: number): boolean => shouting || Boolean(words[i]?.great);
  for (const [i, w] of words.entries())
    for (const phrase of byFirst.get(w.lower) ?? [])
      if (phrase.every((p, k) => words[i + k]?.lower === p && (free(i + k) || p === 'of')))
        phrase.forEach((p, k) => (proper[i + k] = p !== 'of'));
  // From left to right, so that what became part of a name makes the next so: "North Carolina State University".
  for (const [i, w] of words.entries()) {
    if (proper[i] || !free(i)) continue;
    const [before, after] = [words[i - 1], words[i + 1]];
    const of = words[i + 1]?.lower === 'of' && proper[i + 2] && !PEOPLE.test(words[i + 2]!.lower);
    if (before && proper[i - 1]) {
      const people = list.has(before.lower) && PEOPLE.test(before.lower);
      if (PLACES.has(w.lower) && (!people || OF_PEOPLES.has(w.lower))) proper[i] = true;
      else if (BODIES.has(w.lower) && (!people || OF_PEOPLES.has(w.lower))) proper[i] = true;
      // "John Brown": the second is a name as well as a word.
      else if (isNamed(w) && !people) proper[i] = true;
    } else if (of && /^(?:university|college|institute|museum|bay|gulf|isle|battle|duke|earl|bishop|archbishop|church)$/.test(w.lower)) proper[i] = true; // prettier-ignore
    if (!proper[i] && after && proper[i + 1]) {
      const people = PEOPLE.test(after.lower);
      if (DIRECTIONS.has(w.lower) && (!/ern$/.test(w.lower) || !people)) proper[i] = true;
      else if (LEADS.has(w.lower) && !people) proper[i] = true;
    }
  }
  return proper;
}
