/** Personal and corporate names as CSL-JSON has them, and the ways they are written in a line of text. */
export interface Name {
  family?: string;
  given?: string;
  'dropping-particle'?: string;
  'non-dropping-particle'?: string;
  suffix?: string;
  /** A name not to be taken apart: an institution, or a person known by one name. */
  literal?: string;
}

const SUFFIX = /^(jr\.?|sr\.?|junior|senior|[ivx]{2,5}\.?|[2-9](nd|rd|th))$/i;

/** The usual case, read at once: one word, a comma, given names. */
const PLAIN = /^(\p{Lu}[^\s{},]*), ([^\s{},]+(?: [^\s{},]+)*)$/u;

/**
 * Reads one name: "Family, Given", "Family, Jr., Given", "Family, Given, Jr.", "Given von Family".
 * A part set in braces is never taken apart (the convention of BibTeX); particles are the lower-case words
 * before the family name (BibTeX's rule for "von" parts, common practice).
 */
export function parseName(text: string): Name {
  const plain = PLAIN.exec(text);
  if (plain) return { family: plain[1]!, given: plain[2]! };
  const trimmed = text.trim().replace(/\s+/g, ' ');
  if (/^\{[^{}]*\}$/.test(trimmed)) return { literal: trimmed.slice(1, -1) };
  const parts = splitOutside(trimmed, ',').map((p) => p.trim());
  if (parts.length >= 2) {
    const second = parts[1]!;
    const third = parts[2] ?? '';
    const suffixSecond = parts.length > 2 && (SUFFIX.test(second) || (/^[IVX]$/.test(second) && !SUFFIX.test(third)));
    const family = particles(parts[0]!);
    const given = bare(
      suffixSecond
        ? parts.slice(2).join(', ')
        : parts.length > 2 && SUFFIX.test(third)
          ? second
          : parts.slice(1).join(', '),
    );
    const suffix = suffixSecond ? second : parts.length > 2 && SUFFIX.test(third) ? third : '';
    return compact({ ...family, given, suffix });
  }
  const words = splitOutside(trimmed, ' ').filter(Boolean);
  if (words.length <= 1) return compact({ family: bare(words[0] ?? '') });
  let suffix = '';
  if (words.length > 2 && SUFFIX.test(words.at(-1)!)) suffix = words.pop()!;
  let start = words.findIndex((w, i) => i > 0 && isParticle(w) && i < words.length - 1);
  if (isParticle(words[0]!)) start = 0;
  if (start < 0) start = words.length - 1;
  const given = bare(words.slice(0, start).join(' '));
  return compact({ given, ...particles(words.slice(start).join(' ')), suffix });
}

/** Takes the lower-case words that lead a family name off as its non-dropping particle: "van der Berg". */
function particles(text: string): Name {
  const words = splitOutside(text, ' ').filter(Boolean);
  let n = 0;
  while (n < words.length - 1 && isParticle(words[n]!)) n += 1;
  return { 'non-dropping-particle': bare(words.slice(0, n).join(' ')), family: bare(words.slice(n).join(' ')) };
}

/** BibTeX's rule: the first letter outside braces tells, so `{D}e` is a particle and `{de la Cruz}` is none. */
function isParticle(word: string): boolean {
  return /^\p{Ll}/u.test(word.includes('{') ? word.replace(/\{[^{}]*\}/g, '') : word);
}

function bare(text: string): string {
  return text.replace(/[{}]/g, '');
}

function splitOutside(text: string, separator: string): string[] {
  if (!text.includes('{')) return text.split(separator);
  const out: string[] = [];
  let depth = 0;
  let from = 0;
  for (let i = 0; i < text.length; i += 1) {
    const c = text[i];
    if (c === '{') depth += 1;
    else if (c === '}') depth -= 1;
    else if (c === separator && depth <= 0) {
      out.push(text.slice(from, i));
      from = i + 1;
    }
  }
  out.push(text.slice(from));
  return out;
}

function compact(name: Name): Name {
  const out: Name = {};
  for (const [k, v] of Object.entries(name) as [keyof Name, string | undefined][]) if (v) out[k] = v;
  return out;
}

/** The name that stands for those a list leaves out, at its end. */
export const OTHERS: Name = { literal: 'et al.' };

/** True of “et al.”, which is nobody. */
export const isOthers = (name: Name): boolean => name.literal === OTHERS.literal;

/** The name as it stands in a list that is sorted by family name: "van der Berg, Anna, Jr.". */
export function nameInverted(name: Name): string {
  if (name.literal) return name.literal;
  const family = [name['non-dropping-particle'], name.family].filter(Boolean).join(' ');
  const given = [name.given, name['dropping-particle']].filter(Boolean).join(' ');
  return [family, name.suffix ?? '', given].filter(Boolean).join(', ');
}

/** The name as it is spoken: "Anna van der Berg". */
export function nameSpoken(name: Name): string {
  if (name.literal) return name.literal;
  return [name.given, name['dropping-particle'], name['non-dropping-particle'], name.family, name.suffix]
    .filter(Boolean)
    .join(' ');
}

/** The shortest form by which a reader knows the author: the family name, or the literal. */
export function nameShort(name: Name): string {
  return name.literal ?? ([name['non-dropping-particle'], name.family].filter(Boolean).join(' ') || name.given || '');
}

/** "Okonjo", "Okonjo and Tregenza", "Okonjo, Ito and Vance", "Okonjo and 4 others". */
export function namesShort(names: Name[] | undefined): string {
  if (!names?.length) return '';
  const short = names.filter((n) => !isOthers(n)).map(nameShort);
  if (short.length < names.length) return [short[0] ?? '', OTHERS.literal].join(' ').trim();
  if (short.length === 1) return short[0]!;
  if (short.length > 3) return `${short[0]} and ${short.length - 1} others`;
  return `${short.slice(0, -1).join(', ')} and ${short.at(-1)}`;
}
