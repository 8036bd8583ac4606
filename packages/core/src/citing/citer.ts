/**
 * Citations and bibliographies in any CSL 1.0.2 style. The style's and locales' XML come from outside: this module
 * reads no files. Behind this interface works citeproc, the reference processor of CSL.
 */
import CSL from 'citeproc';
import { toCslItem } from '../formats/index.ts';
import { isNameVariable, isOthers, type CiteItem, type Name, type SourceRecord } from '../source/index.ts';
import { forLaw, lawForms, placeInStatute, withLaw, type LawForms } from './law.ts';
import { htmlToText } from './text.ts';

export interface Citable {
  id: string;
  record: SourceRecord;
}

export interface FormattedBibliography {
  /** One entry each, as HTML with only inline elements; in the order of the style. */
  entries: { id: string; html: string; text: string }[];
  hangingIndent: boolean;
  /** The sources the style prints nothing for: it has no form for their kind, or fails on what they hold. */
  unprinted: string[];
}

const MOST_ITEMS = 2000;
const NOTHING = { entries: [], hangingIndent: false };
/** What the processor prints where a style gives a source no form. */
const UNPRINTED = /^\s*$|\[CSL STYLE ERROR: reference with no printed form\.\]|\[NO_PRINTED_FORM\]/;

export class Citer {
  private readonly items = new Map<string, Record<string, unknown>>();
  private engine: InstanceType<typeof CSL.Engine>;
  private readonly isEnglish: boolean;
  private readonly makeEngine: () => InstanceType<typeof CSL.Engine>;

  /**
   * @param style the XML of an independent style
   * @param locale gives the XML of a locale such as "en-GB", or undefined where there is none
   * @param language the language to write in
   * @throws when the style is not one the processor can read
   */
  constructor(style: string, locale: (language: string) => string | undefined, language = 'en-US') {
    const system = {
      retrieveLocale: (lang: string) => locale(lang) ?? locale('en-US') ?? false,
      retrieveItem: (id: string) => this.items.get(id),
    };
    // Of a style made for another language the words it has itself are in that, whatever is asked.
    const own = /\bdefault-locale="([^"]*)"/.exec(style)?.[1] ?? language;
    this.isEnglish = [own, language].every((l) => /^en\b/.test(l));
    this.makeEngine = () => new CSL.Engine(system, onTheLine(style), language, true);
    this.engine = this.makeEngine();
  }

  /** What the style prints of cases and statutes; asked once, of some that nobody has. */
  private get law(): LawForms {
    if (this.lawKnown) return this.lawKnown;
    // Nothing is altered in what is tried.
    this.lawKnown = { number: true, containerInBrackets: false, section: 'with a word', place: 'with a word', isEnglish: false }; // prettier-ignore
    return (this.lawKnown = lawForms(this.isEnglish, (record, section) => {
      const sources = [{ id: 'tried', record }];
      const items = section ? [{ id: 'tried', locator: section, label: 'section' as const }] : [];
      try {
        return [htmlToText(this.citation(sources, items)), this.list(sources)?.entries[0]?.text ?? ''];
      } catch {
        this.engine = this.makeEngine();
        return ['', ''];
      }
    }));
  }
  private lawKnown: LawForms | undefined;

  /** The bibliography of the sources; a style without one gives its citations, a source an entry. */
  bibliography(sources: Citable[]): FormattedBibliography {
    const made = this.list(sources) ?? this.list(sources.filter((s) => this.list([s]))) ?? NOTHING;
    const told = new Set(made.entries.map((e) => e.id));
    return { ...made, unprinted: sources.filter((s) => !told.has(s.id)).map((s) => s.id) };
  }

  /**
   * One citation of all the sources, as it stands in the text or the note, in HTML; empty when the style has none.
   * @param items where in a source, words around it, how its author is named; of those of which something is said
   */
  citation(sources: Citable[], items: readonly CiteItem[] = []): string {
    const ids = this.take(sources);
    this.engine.updateItems(ids);
    const said = new Map(items.map((i) => [i.id, i]));
    const { law } = this;
    const cited = sources.map(({ id, record }) => {
      const item = said.get(id) ?? { id };
      return itemOf(item.locator?.trim() ? item : { ...item, ...placeInStatute(record, law) });
    });
    const records = sources.map((s) => s.record);
    const html = withLaw(this.withOthers(this.engine.makeCitationCluster(cited)), records);
    if (UNPRINTED.test(htmlToText(html))) return '';
    // Named in the sentence are those of whom it is said, one after another, before what they are cited by.
    const inText = ids.filter((id) => said.get(id)?.author === 'in the text');
    const names = inText.map((id) => this.withOthers(this.engine.makeCitationCluster([{ id, 'author-only': true }])));
    const named = names.filter((n) => !UNPRINTED.test(htmlToText(n)));
    return [...new Set(named), html].join(' ');
  }

  /** The list as the processor makes it, or nothing when the style fails on one of the sources. */
  private list(sources: Citable[]): Omit<FormattedBibliography, 'unprinted'> | undefined {
    try {
      this.engine.updateItems(this.take(sources));
      const made = this.engine.makeBibliography();
      const entries = made
        ? made[1].map((html, i) => this.listed(made[0].entry_ids[i]?.[0] ?? '', html, sources))
        : sources.map((s) => this.entry(s.id, this.citation([s])));
      return {
        entries: entries.filter((e) => !UNPRINTED.test(e.text)),
        hangingIndent: Boolean(made && made[0].hangingindent),
      };
    } catch {
      // The processor is left in the middle of its work.
      this.engine = this.makeEngine();
      return undefined;
    }
  }

  private listed(id: string, html: string, sources: Citable[]): ReturnType<Citer['entry']> {
    const records = sources.filter((s) => s.id === id).map((s) => s.record);
    return this.entry(id, withLaw(this.withOthers(html), records));
  }

  private take(sources: Citable[]): string[] {
    const { law } = this;
    // The registry keeps what it knows of an item: emptied first, so that a changed record shows at once.
    this.engine.updateItems([]);
    if (this.items.size > MOST_ITEMS) this.items.clear();
    for (const s of sources) this.items.set(s.id, forStyle(s, law));
    return sources.map((s) => s.id);
  }

  /** Puts the words of the language for those a record leaves out, without the "and" before the last of a list. */
  private withOthers(html: string): string {
    if (!/[\uE001\uE002]/.test(html)) return html;
    const [and, others] = [this.engine.getTerm('and'), this.engine.getTerm('et-al')];
    const before = `([,;]?)\\s*(?:(?:&#38;|&amp;|&|${and.replace(/[^\p{L}]/gu, '.')})\\s*)?`;
    const link = new RegExp(`${before}([${ONE_NAMED}${MORE_NAMED}])(\\.?)`, 'gu');
    return html.replace(link, (_, mark: string, token: string, stop: string) =>
      [token === ONE_NAMED ? '' : mark || ',', ' ', others, others.endsWith('.') ? '' : stop].join(''),
    );
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

/**
 * The style without "on the baseline" where it stands for "as usual": the processor makes invalid markup of it, and
 * fails on a raised or lowered part inside.
 */
function onTheLine(style: string): string {
  return style.replace(/\s+vertical-align="baseline"/g, '');
}

/** Stand for "et al." until the style has set the list: after one name, or after more. */
const ONE_NAMED = '\uE001';
const MORE_NAMED = '\uE002';

const itemOf = ({
  id,
  locator,
  label,
  before,
  after,
  author = 'as usual',
}: CiteItem): Parameters<InstanceType<typeof CSL.Engine>['makeCitationCluster']>[0][number] => ({
  id,
  ...(locator?.trim() && { locator: locator.trim(), label: label ?? 'page' }),
  // The processor sets them as they are: the blank between belongs to them.
  ...(before?.trim() && { prefix: `${before.trim()} ` }),
  ...(after?.trim() && { suffix: /^[,.;:)]/.test(after.trim()) ? after.trim() : `, ${after.trim()}` }),
  ...(author !== 'as usual' && { 'suppress-author': true }),
});

/** The record as the processor takes it: without what is kept aside and what it does not know. */
function forStyle(source: Citable, law: LawForms): Record<string, unknown> {
  const { custom, ...item } = toCslItem({ record: forLaw(source.record, law), subjects: [] }, source.id);
  void custom;
  // The processor asks by this, whatever key the record is cited by elsewhere.
  item.id = source.id;
  for (const [variable, names] of Object.entries(item)) {
    if (!isNameVariable(variable) || !(names as Name[]).some(isOthers)) continue;
    const named = (names as Name[]).filter((n) => !isOthers(n));
    item[variable] = named.length ? [...named, { literal: named.length > 1 ? MORE_NAMED : ONE_NAMED }] : names;
  }
  return item;
}
