/** The character U+0000 has no place in a text: no bibliographic format uses it and databases refuse it. */
export const withoutNul = (text: string): string => (text.includes('\u0000') ? text.replaceAll('\u0000', '') : text);

/** Takes U+0000 written as an escape out of JSON; an escaped backslash before the letters u0000 is left alone. */
export const jsonWithoutNul = (json: string): string =>
  json.includes('\\u0000') ? json.replace(/(?<!\\)((?:\\\\)*)\\u0000/g, '$1') : json;
