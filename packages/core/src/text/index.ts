/** What any text must be to be kept: whole characters, none of them U+0000. */

/** The character U+0000 has no place in a text: no bibliographic format uses it and databases refuse it. */
export const withoutNul = (text: string): string => (text.includes('\u0000') ? text.replaceAll('\u0000', '') : text);

/** Takes U+0000 written as an escape out of JSON; an escaped backslash before the letters u0000 is left alone. */
export const jsonWithoutNul = (json: string): string =>
  json.includes('\\u0000') ? json.replace(/(?<!\\)((?:\\\\)*)\\u0000/g, '$1') : json;

/** The character of a code; one that is none, or half of one, is U+FFFD. */
export const characterOf = (code: number): string =>
  code > 0 && code < 0x110000 && !(code >= 0xd800 && code < 0xe000) ? String.fromCodePoint(code) : '\uFFFD';

/** Half a character outside the basic plane: what is left when UTF-16 is cut in its middle, or an escape names it alone. */
const HALF = /\p{Cs}/gu;

/** Of whole characters: half ones, which no encoding of text can hold, become U+FFFD (Unicode, 3.9, D76). */
export const wholeCharacters = (text: string): string => text.replace(HALF, '\uFFFD');

/** True of JSON in which half a character is written as an escape, alone or beside its other half. */
export const hasHalfEscapes = (json: string): boolean =>
  /\\u[dD][89a-fA-F]/.test(json) && /(?<!\\)(?:\\\\)*\\u[dD][89a-fA-F]/.test(json);

/** Something done to all texts of a JSON value, keys too. */
function eachText<T>(value: T, work: (text: string) => string): T {
  if (typeof value === 'string') return work(value) as T;
  if (Array.isArray(value)) return value.map((v) => eachText<unknown>(v, work)) as T;
  if (typeof value !== 'object' || value === null) return value;
  return Object.fromEntries(Object.entries(value).map(([k, v]) => [work(k), eachText<unknown>(v, work)])) as T;
}

const LONG_BLANKS = /[^\S\n\r]{101,}/g;
/** The same in JSON, where some of it may be written as escapes. */
const LONG_BLANKS_ESCAPED = /(?:\s|\\[tnrf]|\\u[0-9a-fA-F]{4}){101}/;

/**
 * No run of blanks within a line longer than 100: more says nothing in any format, and what looks for the end of a run looks
 * from each of its characters.
 */
export const shortBlanks = (text: string): string => text.replace(LONG_BLANKS, (run) => run.slice(0, 100));

/** A value as its JSON, or YAML, gave it, with texts that can be kept: of whole characters, without long runs of blanks. */
export function soundValue<T>(written: string, value: T): T {
  const whole = hasHalfEscapes(written) ? eachText(value, wholeCharacters) : value;
  return LONG_BLANKS_ESCAPED.test(written) ? eachText(whole, shortBlanks) : whole;
}

/** How deep objects and lists of a JSON text are nested; brackets in its texts do not count. */
export function depthOf(json: string): number {
  let depth = 0;
  let deepest = 0;
  for (const [token] of json.matchAll(/"(?:[^"\\]|\\[^])*"|[{}[\]]/g)) {
    if (token === '{' || token === '[') deepest = Math.max(deepest, (depth += 1));
    else if (token === '}' || token === ']') depth -= 1;
  }
  return deepest;
}

/** Deeper than the data of any source go: JSON nested further is not kept, since not every program can read it. */
export const DEEPEST = 60;

/** The first characters of a text, none of them cut in its middle. The one way to shorten a text. */
export function cut(text: string, most: number): string {
  if (text.length <= most) return text;
  const code = text.charCodeAt(most - 1);
  return text.slice(0, code >= 0xd800 && code < 0xdc00 ? most - 1 : most);
}

/** The first character of a text, whole; empty where there is none. */
export const firstOf = (text: string): string => cut(text, 1) || cut(text, 2);

/** The last characters of a text, none of them cut in its middle. */
export function cutStart(text: string, most: number): string {
  if (text.length <= most) return text;
  const code = text.charCodeAt(text.length - most);
  return text.slice(code >= 0xdc00 && code < 0xe000 ? 1 - most : -most);
}
