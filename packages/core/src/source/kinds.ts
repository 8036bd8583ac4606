/**
 * The kinds of source: the item types of CSL 1.0.2 (appendix III of the specification), each with the name
 * shown to a person and the two-letter stamp that stands for it in lists.
 */
export interface KindInfo {
  name: string;
  stamp: string;
  /** Which body of practice the kind belongs to; the interface tints law and archive stamps. */
  group: 'text' | 'law' | 'archive' | 'other';
}

export const KINDS = {
  article: { name: 'Article or preprint', stamp: 'Pp', group: 'text' },
  'article-journal': { name: 'Journal article', stamp: 'Ar', group: 'text' },
  'article-magazine': { name: 'Magazine article', stamp: 'Mg', group: 'text' },
  'article-newspaper': { name: 'Newspaper article', stamp: 'Nw', group: 'text' },
  bill: { name: 'Bill', stamp: 'Bl', group: 'law' },
  book: { name: 'Book', stamp: 'Bk', group: 'text' },
  broadcast: { name: 'Broadcast', stamp: 'Br', group: 'other' },
  chapter: { name: 'Book chapter', stamp: 'Ch', group: 'text' },
  classic: { name: 'Classical work', stamp: 'Cl', group: 'text' },
  collection: { name: 'Archival collection', stamp: 'Co', group: 'archive' },
  dataset: { name: 'Dataset', stamp: 'Da', group: 'other' },
  document: { name: 'Document', stamp: 'Do', group: 'other' },
  entry: { name: 'Database entry', stamp: 'En', group: 'other' },
  'entry-dictionary': { name: 'Dictionary entry', stamp: 'Di', group: 'text' },
  'entry-encyclopedia': { name: 'Encyclopedia entry', stamp: 'Ey', group: 'text' },
  event: { name: 'Event', stamp: 'Ev', group: 'other' },
  figure: { name: 'Figure', stamp: 'Fi', group: 'other' },
  graphic: { name: 'Picture', stamp: 'Pi', group: 'other' },
  hearing: { name: 'Hearing', stamp: 'He', group: 'law' },
  interview: { name: 'Interview', stamp: 'In', group: 'other' },
  legal_case: { name: 'Legal case', stamp: 'Cs', group: 'law' },
  legislation: { name: 'Legislation', stamp: 'Lg', group: 'law' },
  manuscript: { name: 'Manuscript', stamp: 'Ms', group: 'archive' },
  map: { name: 'Map', stamp: 'Mp', group: 'archive' },
  motion_picture: { name: 'Film or video', stamp: 'Fm', group: 'other' },
  musical_score: { name: 'Musical score', stamp: 'Mu', group: 'other' },
  pamphlet: { name: 'Pamphlet', stamp: 'Pa', group: 'archive' },
  'paper-conference': { name: 'Conference paper', stamp: 'Cp', group: 'text' },
  patent: { name: 'Patent', stamp: 'Pt', group: 'law' },
  performance: { name: 'Performance', stamp: 'Pf', group: 'other' },
  periodical: { name: 'Periodical', stamp: 'Pe', group: 'text' },
  personal_communication: { name: 'Letter or message', stamp: 'Le', group: 'archive' },
  post: { name: 'Forum post', stamp: 'Po', group: 'other' },
  'post-weblog': { name: 'Blog post', stamp: 'Bg', group: 'other' },
  regulation: { name: 'Regulation', stamp: 'Rg', group: 'law' },
  report: { name: 'Report', stamp: 'Re', group: 'text' },
  review: { name: 'Review', stamp: 'Rv', group: 'text' },
  'review-book': { name: 'Book review', stamp: 'Rb', group: 'text' },
  software: { name: 'Software', stamp: 'Sw', group: 'other' },
  song: { name: 'Sound recording', stamp: 'So', group: 'other' },
  speech: { name: 'Talk or speech', stamp: 'Sp', group: 'other' },
  standard: { name: 'Standard', stamp: 'St', group: 'text' },
  thesis: { name: 'Thesis', stamp: 'Th', group: 'text' },
  treaty: { name: 'Treaty', stamp: 'Ty', group: 'law' },
  webpage: { name: 'Web page', stamp: 'We', group: 'other' },
} as const satisfies Record<string, KindInfo>;

export type Kind = keyof typeof KINDS;

export const ALL_KINDS = Object.keys(KINDS) as Kind[];

export function isKind(value: unknown): value is Kind {
  return typeof value === 'string' && Object.hasOwn(KINDS, value);
}

/** Finds kinds by name or stamp, else by CSL type, else by a word of either, or its beginning; case does not matter. */
export function findKinds(word: string): Kind[] {
  const wanted = word.trim().toLowerCase();
  const exact = ALL_KINDS.filter(
    (k) => KINDS[k].name.toLowerCase() === wanted || KINDS[k].stamp.toLowerCase() === wanted,
  );
  if (exact.length || !wanted) return exact;
  // A type of one word is a word people use of several kinds: "article".
  if (isKind(wanted) && /[-_]/.test(wanted)) return [wanted];
  return ALL_KINDS.filter((k) =>
    `${KINDS[k].name} ${k}`
      .toLowerCase()
      .split(/[^a-z]+/)
      .some((part) => part.startsWith(wanted)),
  );
}
