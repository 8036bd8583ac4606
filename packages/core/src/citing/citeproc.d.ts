declare module 'citeproc' {
  interface Sys {
    retrieveLocale(lang: string): string | false;
    retrieveItem(id: string): unknown;
  }
  interface BibliographyMeta {
    entry_ids: string[][];
    bibliography_errors: unknown[];
    hangingindent?: boolean | number;
    'second-field-align'?: string | boolean;
  }
  interface CitationItem {
    id: string;
    locator?: string;
    label?: string;
    prefix?: string;
    suffix?: string;
    'suppress-author'?: boolean;
    'author-only'?: boolean;
  }
  class Engine {
    constructor(sys: Sys, style: string, lang?: string, forceLang?: boolean);
    updateItems(ids: string[]): void;
    updateUncitedItems(ids: string[]): void;
    makeBibliography(): [BibliographyMeta, string[]] | false;
    makeCitationCluster(items: CitationItem[]): string;
    setOutputFormat(mode: 'html' | 'text'): void;
    getTerm(name: string): string;
    opt: { xclass?: string };
    cslXml?: unknown;
    bibliography: { tokens: unknown[] };
  }
  const CSL: { Engine: typeof Engine };
  export default CSL;
}
