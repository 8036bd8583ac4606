/** Which stretch of a printed reference is which field; what has been read is not read again. */

/** What a stretch may be, in the order a reference has them, with its name for a person. */
export const SPAN_FIELDS = {
  author: 'Authors',
  issued: 'Date',
  title: 'Title',
  editor: 'Editors',
  'container-title': 'Published in',
  volume: 'Volume',
  issue: 'Issue',
  page: 'Pages',
  parallel: 'Parallel citations',
  edition: 'Edition',
  genre: 'Genre',
  publisher: 'Publisher',
  'publisher-place': 'Place',
  authority: 'Court',
  section: 'Section',
  number: 'Number',
  DOI: 'DOI',
  ISBN: 'ISBN',
  PMID: 'PMID',
  URL: 'URL',
  accessed: 'Date of access',
} as const;
export type SpanField = keyof typeof SPAN_FIELDS;

/** In UTF-16 units of the reference as it came. */
export interface Span {
  field: SpanField;
  start: number;
  end: number;
}

/** The text of a reference with what was read of it blanked out: places stay as they are. */
export class Slate {
  /** A field was taken from what was left, by its place alone. */
  guessed = false;
  readonly spans: Span[] = [];
  left: string;

  constructor(readonly text: string) {
    this.left = text;
  }

  /** Takes a stretch as a field, without the blanks and signs at its ends. */
  take(field: SpanField, start: number, end: number): string {
    let [from, to] = [start, end];
    while (from < to && /[\s,;:.]/.test(this.text[from]!)) from += 1;
    while (to > from && /[\s,;:]/.test(this.text[to - 1]!)) to -= 1;
    if (to > from) this.spans.push({ field, start: from, end: to });
    this.blank(start, end);
    return this.text.slice(from, to);
  }

  blank(start: number, end: number): void {
    this.left = this.left.slice(0, start) + '\u0000'.repeat(end - start) + this.left.slice(end);
  }

  /** The first match in what is left; its groups as fields, by name of the group (without what CSL has of dashes). */
  match(pattern: RegExp, fields: Record<string, SpanField>, from = 0): Record<string, string> | undefined {
    const flags = pattern.flags.includes('d') ? pattern.flags : `${pattern.flags}d`;
    const sticky = new RegExp(pattern.source, flags.includes('g') ? flags : `${flags}g`);
    sticky.lastIndex = from;
    const m = sticky.exec(this.left);
    if (!m?.groups || !m.indices?.groups) return undefined;
    const out: Record<string, string> = {};
    for (const [group, field] of Object.entries(fields)) {
      const at = m.indices.groups[group];
      if (at) out[field] = this.take(field, at[0], at[1]);
    }
    this.blank(m.index, m.index + m[0].length);
    out['@'] = String(m.index);
    return out;
  }
}
