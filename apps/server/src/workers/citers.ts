/** The processors of styles, kept for the next time. */
import { Citer } from '@pandecta/core/citing';
import { localeXml, styleRules } from '@pandecta/debian/styles';

const citers = new Map<string, Citer>();
const MOST_CITERS = 12;

export function citerOf(folder: string, style: string, locale?: string): Citer {
  const key = `${style} ${locale ?? ''}`;
  const known = citers.get(key);
  if (known) return known;
  const { xml, language } = styleRules(folder, style);
  const made = new Citer(xml, (lang) => localeXml(folder, lang), locale ?? language);
  if (citers.size >= MOST_CITERS) citers.delete(citers.keys().next().value!);
  citers.set(key, made);
  return made;
}
