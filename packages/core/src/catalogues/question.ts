/** What a person asks of catalogues: words, and fields where a catalogue can be asked by them. */
export interface OutsideQuestion {
  words: string;
  author?: string;
  title?: string;
  yearFrom?: number;
  yearTo?: number;
  /** An identifier to be looked up, instead of words. */
  identifier?: { kind: 'isbn' | 'issn' | 'pmid' | 'pmcid' | 'doi'; value: string };
  /** Beside an ISSN: where in the journal it stands. */
  volume?: string;
  page?: string;
}

/** The question in one line, as the log of searches has it. */
export const inOneLine = (q: OutsideQuestion): string =>
  [
    q.words,
    q.author && `author: ${q.author}`,
    q.title && `title: ${q.title}`,
    (q.yearFrom || q.yearTo) && `${q.yearFrom ?? ''}–${q.yearTo ?? ''}`,
  ]
    .filter(Boolean)
    .join(' · ');
