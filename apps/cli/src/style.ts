import type { Citer } from '@pandecta/core/citing';

/** The processor of a style that is installed, in the language it is made for unless one is named. */
export async function citerFor(style: string, locale: string | undefined): Promise<Citer> {
  const { Citer } = await import('@pandecta/core/citing');
  const { localeXml, styleRules, STYLES_FOLDER } = await import('@pandecta/debian/styles');
  const { xml, language } = styleRules(STYLES_FOLDER, style);
  return new Citer(xml, (l) => localeXml(STYLES_FOLDER, l), locale ?? language);
}
