/** Names of people as they are printed and as metadata hold them: where a list is taken apart, and what is no name. */
import { parseName, type Name } from '../source/index.ts';
import { NOT_A_NAME, PLACE_OF_WORK } from './front-words.ts';

const BEFORE =
  /^(?:(?:written|edited|presented|présentée?|vorgelegt|prepared)\s+)?(?:by|par|von|por|di|authors?|autor(?:in|en|es)?|auteurs?|autori?|verfasser(?:in)?|作者)\s*[:：]?\s+(?=\S)/iu;
const NOTICE = /^(?:copyright\s*(?:©|\(c\))?|©)[\d\s,–-]+(?:by\s+)?/i;
const MADE_BY = /^an?\s+\p{L}{4,12}\s+(?=by\s)/iu;
/** A body among the people of a list. */
const BODY = /^(?:the\s+)?(?:[\p{L}\p{N}-]+\s+){1,3}(?:team|project|consortium|collaboration)$/iu;
const TITLES =
  /^(?:(?:prof(?:essor)?|dr|mr|mrs|ms|ing|dipl|m\.?sc|b\.?sc|ph\.?d|habil|rer|nat|med|dott|ir)\.?(?:-ing\.?)?\s+)+/i;
const DEGREES =
  /(?:,\s*|\s+)(?:ph\.?\s?d\.?|m\.?d\.?|m\.?sc\.?|b\.?sc\.?|d\.?phil\.?|facs|member,?\s.*|fellow,?\s.*|(?:senior|student) member,?\s.*)$/i;
const PARTICLE =
  /^(?:de|da|do|dos|das|del|della|di|du|la|le|les|van|von|der|den|ter|ten|te|zu|zum|zur|y|e|af|av|bin|ibn|al|el|st\.?|’t|'t|d’|d'|ohe)$/u;
const SUFFIX = /^(?:jr|sr|ii|iii|iv)\.?$/i;

/** A name of capitals, initials and particles; a body or a phrase is none. */
const WORD =
  /^(?:\p{Lu}\p{M}*\.?|(?:\p{Lu}\p{M}*\.-?){1,4}|(?:Mc|Mac|O['’]|D['’]|[Dd]e|La|Le|Van)?\p{Lu}[\p{L}\p{M}]*(?:['’.–-][\p{L}\p{M}]+)*\.?)$/u;

/** The person a piece of text names and nothing else, or nothing. */
export function personOf(text: string): Name | undefined {
  const t = text
    .replace(/<[^<>]*>|\([^()]*\)|\[[^[\]]*\]|(?<!\S)[^\s@]+@\S+|https?:\S+/g, ' ')
    .replace(BEFORE, '')
    .replace(DEGREES, '')
    .replace(/[\d\p{No}*†‡§¶∗‖]+/gu, ' ')
    .replace(/\s+/g, ' ')
    .replace(/^[\s,;.:–—-]+|[\s,;:–—-]+$/g, '')
    .replace(TITLES, '')
    .trim();
  if (!t) return undefined;
  const other = otherScript(t);
  if (other) return other;
  const words = t.split(' ');
  const own = words.filter((w) => !PARTICLE.test(w) && !SUFFIX.test(w));
  if (own.length < 2 || own.length > 5 || words.length > 7 || PLACE_OF_WORK.test(t)) return undefined;
  if (own.some((w) => !WORD.test(w) || (!/^\p{L}\.?$/u.test(w) && NOT_A_NAME.test(w)))) return undefined;
  const family = own.at(-1)!;
  if (family.replace(/[^\p{L}]/gu, '').length < 2 || /\.$/.test(family)) return undefined;
  // "R Enthusiasts": one letter without a stop is an initial only beside a given name.
  if (own.length === 2 && /^\p{L}$/u.test(own[0]!)) return undefined;
  const loud = own.filter((w) => /^\p{Lu}{2,}$/u.test(w.replace(/[.'’-]/g, '')) && !/\./.test(w));
  if (loud.length && loud.length < own.filter((w) => w.replace(/[^\p{L}]/gu, '').length > 1).length) {
    // A family name in capitals beside a given name that is not: French practice. Else an abbreviation.
    if (loud.length > 1 || loud[0] !== family || family.length < 3) return undefined;
  }
  return parseName(words.map((w) => (loud.includes(w) ? capitalised(w) : w)).join(' '));
}

const capitalised = (word: string): string =>
  word.toLowerCase().replace(/(^|[-'’])(\p{L})/gu, (_, lead: string, letter: string) => lead + letter.toUpperCase());

/** Names in scripts without capitals: as they stand. */
function otherScript(t: string): Name | undefined {
  if (/^[\p{Script=Han}]{2,4}$/u.test(t) || /^\p{Script=Hangul}{2,5}$/u.test(t)) return { literal: t };
  if (
    /^[\p{Script=Han}\p{Script=Katakana}\p{Script=Hiragana}ー]{2,6}[\s・·][\p{Script=Han}\p{Script=Katakana}\p{Script=Hiragana}ー・]{1,10}$/u.test(
      t,
    )
  )
    return { literal: t };
  if (
    /^[\p{Script=Devanagari}\p{Script=Arabic}\p{Script=Hebrew}\p{Script=Bengali}\p{Script=Thai}\p{Script=Tamil}\s]{4,40}$/u.test(
      t,
    ) &&
    t.split(' ').length <= 4
  )
    return { literal: t };
  return undefined;
}

const BETWEEN = /\s*(?:;|\s[·•|]\s|[、，]|\s(?:and|und|et|y|e|og|och|en|ja)\s|(?:^|,\s*)(?:and|und|et)\s|\s?&\s?)\s*/iu;

/** The people of a printed line: each part must be one, up to the first that says where they work. */
export function peopleOf(text: string): Name[] {
  const parts = text
    .replace(NOTICE, '')
    .replace(MADE_BY, '')
    .replace(BEFORE, '')
    .split(BETWEEN)
    .flatMap((p) => p.split(/\s*,\s*/))
    .map((p) => p.trim())
    .filter((p) => p && !SUFFIX.test(p));
  const out: Name[] = [];
  for (const part of parts) {
    const person = personOf(part) ?? (out.length && BODY.test(part) ? { literal: part } : undefined);
    if (person) out.push(person);
    // Names that lead a line are its authors' though where they work stands behind them.
    else if (!out.length || !/^[\p{Lu}\d@(]|\S+@/u.test(part)) return out;
    else if (!PLACE_OF_WORK.test(part) && part.split(' ').length > 1) return out;
  }
  return out;
}

/** Programs and machines that sign files: no person (met in real files). */
const MACHINE =
  /\b(?:la?tex|hyperref|pdf\w*|dvi\w*|acrobat|adobe|distiller|ghostscript|word|writer|office|microsoft|quark|indesign|pagemaker|framemaker|scanner|scan|canon|xerox|ricoh|konica|windows|user|usuario|utilisateur|benutzer|admin(?:istrat\w*)?|owner|guest|default|unknown|anonymous|root|home|pc|author|name|title|none|untitled)\b/i;

/**
 * The people of a metadata field, in which people are listed in every way: "A; B", "A, B and C", "Family, Given",
 * "Family, A., Family, B."; with addresses, or none at all.
 */
export function peopleOfField(text: string): Name[] {
  const t = text
    .replace(/\\376\\uff00|[\u0000-\u001f\u0080-\u009f]/g, ' ')
    .replace(/\s+/g, ' ')
    .trim();
  return t.split(BETWEEN).filter(Boolean).flatMap(ofChunk);
}

function ofChunk(chunk: string): Name[] {
  const parts = chunk.split(/\s*,\s*/).filter(Boolean);
  const whole = parts.map((p) => (MACHINE.test(p) ? undefined : personOf(p)));
  if (whole.every(Boolean)) return whole as Name[];
  const out: Name[] = [];
  for (let i = 0; i < parts.length; i += 1) {
    if (whole[i]) {
      out.push(whole[i]!);
      continue;
    }
    // "Family, Given": a name without its given names before the given names or initials alone.
    const next = parts[i + 1];
    if (next === undefined || whole[i + 1]) continue;
    const inverted = personOf(`${next} ${parts[i]}`);
    const given = next.length <= 60 && /^(?:\p{Lu}[\p{L}\p{M}'’-]*(?:\.[-\s]?|\s|$)){1,3}$/u.test(next);
    if (inverted && given && !MACHINE.test(chunk)) {
      out.push(parseName(`${parts[i]}, ${next}`));
      i += 1;
    }
  }
  return out;
}
