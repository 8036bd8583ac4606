/**
 * Citations and bibliographies in any CSL 1.0.2 style. The style's and locales' XML come from outside: this module
 * reads no files. Behind this interface works citeproc, the reference processor of CSL.
 */
import CSL from 'citeproc';
import { toCslItem } from '../formats/index.ts';
import type { SourceRecord } from '../source/index.ts';
import { htmlToText } from './text.ts';

export interface Citable {
  id: string;
  record: SourceRecord;
}

export interface FormattedBibliography {
  /** One entry each, as HTML with only inline elements; in the order of the style. */
  entries: { id: string; html: string; text: string }[];
  hangingIndent: boolean;
}

const MOST_ITEMS = 2000;

export class Citer {
  private readonly items = new Map<string, Record<string, unknown>>();
  private readonly engine: InstanceType<typeof CSL.Engine>;

  /**
   * @param style the XML of an independent style
   * @param locale gives the XML of a locale such as "en-GB", or undefined where there is none
   * @param language the language to write in
   * @throws when the style is not one the processor can read
   */
  constructor(style: string, locale: (language: string) => string | undefined, language = 'en-US') {
    this.engine = new CSL.Engine(
      {
        retrieveLocale: (lang) => locale(lang) ?? locale('en-US') ?? false,
        retrieveItem: (id) => this.items.get(id),
      },
      style,
      language,
      true,
    );
  }

  /** The bibliography of the sources; a style without one gives its citations, a source an entry. */
  bibliography(sources: Citable[]): FormattedBibliography {
    const ids = this.take(sources);
    this.engine.updateItems(ids);
    const made = this.engine.makeBibliography();
    if (!made) return { entries: sources.map((s) => this.entry(s.id, this.citation([s]))), hangingIndent: false };
    const [meta, html] = made;
    return {
      entries: html.map((h, i) => this.entry(meta.entry_ids[i]?.[0] ?? '', h)),
      hangingIndent: Boolean(meta.hangingindent),
    };
  }

  /** One citation of all the sources, as it stands in the text or the note, in HTML. */
  citation(sources: Citable[], locators: Record<string, string> = {}): string {
    const ids = this.take(sources);
    this.engine.updateItems(ids);
    const citationItems = ids.map((id) => ({ id, ...(locators[id] ? { locator: locators[id], label: 'page' } : {}) }));
    return this.engine.makeCitationCluster(citationItems);
  }

  private take(sources: Citable[]): string[] {
    // The registry keeps what it knows of an item: emptied first, so that a changed record shows at once.
    this.engine.updateItems([]);
    if (this.items.size > MOST_ITEMS) this.items.clear();
    for (const s of sources) this.items.set(s.id, forStyle(s));
    return sources.map((s) => s.id);
  }

  private entry(id: string, html: string): { id: string; html: string; text: string } {
    const inline = html
      .replace(/<div class="csl-left-margin">([\s\S]*?)<\/div>/g, '$1 ')
      .replace(/<\/?div[^>]*>/g, '')
      .replace(/\s+/g, ' ')
      .trim();
    return { id, html: inline, text: htmlToText(inline) };
  }
}

/** The record as the processor takes it: without what is kept aside, and with markup it does not know escaped. */
function forStyle(source: Citable): Record<string, unknown> {
  const { custom, ...item } = toCslItem({ record: source.record, subjects: [] }, source.id);
  void custom;
  return item;
}
