/** Styles as a person chooses them. A style is known by its file name; its title comes from its XML. */
export interface StyleInfo {
  id: string;
  title: string;
  /** How the style cites, from its categories: author-date, numeric, note, … */
  manner: string;
  /** The style whose rules this one uses, where it has none of its own. */
  parent?: string;
  /** The language the style is made for, such as "de-DE", where it names one (CSL's default-locale). */
  language?: string;
}

/** The usual styles, by file name: what a person finds before typing a name. */
export const USUAL_STYLES = [
  'chicago-author-date',
  'apa',
  'harvard-cite-them-right',
  'modern-language-association',
  'ieee',
  'vancouver',
  'nature',
  'chicago-fullnote-bibliography',
  'modern-humanities-research-association',
  'oscola',
  'bluebook-law-review',
  'mcgill-en',
];

export const DEFAULT_STYLE = 'chicago-author-date';

/** Reads the head of a style's XML; undefined when the text is not a CSL style. */
export function readStyleInfo(id: string, xml: string): StyleInfo | undefined {
  const title = /<title[^>]*>([\s\S]*?)<\/title>/.exec(xml)?.[1];
  if (!title || !xml.includes('<style')) return undefined;
  const parent = /rel="independent-parent"/.test(xml)
    ? (/<link(?=[^>]*rel="independent-parent")[^>]*href="[^"]*\/([^"/]+)"/.exec(xml)?.[1] ?? undefined)
    : undefined;
  const manner = /citation-format="([^"]+)"/.exec(xml)?.[1] ?? 'other';
  const language = /<style[^>]*\sdefault-locale="([^"]+)"/.exec(xml)?.[1];
  return {
    id,
    title: unescapeXml(title.trim()),
    manner,
    ...(parent ? { parent } : {}),
    ...(language ? { language } : {}),
  };
}

function unescapeXml(text: string): string {
  return text.replace(
    /&(amp|lt|gt|quot|apos);/g,
    (_, n: string) => ({ amp: '&', lt: '<', gt: '>', quot: '"', apos: "'" })[n]!,
  );
}
