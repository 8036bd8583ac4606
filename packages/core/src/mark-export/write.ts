import Papa from 'papaparse';
import { placeWritten } from '../page-numbers/index.ts';
import { isOnWords, SHAPE_NAMES, type Quote, type Rect, type Shape } from '../marks/index.ts';
import { webAnnotations } from './web-annotation.ts';

export const MARK_FORMATS = ['markdown', 'html', 'docx', 'csv', 'web-annotation'] as const;
export type MarkFormat = (typeof MARK_FORMATS)[number];

export const MARK_INFO: Record<MarkFormat, { name: string; extension: string; mediaType: string }> = {
  markdown: { name: 'Markdown', extension: 'md', mediaType: 'text/markdown' },
  html: { name: 'HTML', extension: 'html', mediaType: 'text/html' },
  docx: {
    name: 'Word (DOCX)',
    extension: 'docx',
    mediaType: 'application/vnd.openxmlformats-officedocument.wordprocessingml.document',
  },
  csv: { name: 'Table (CSV)', extension: 'csv', mediaType: 'text/csv' },
  'web-annotation': { name: 'Web Annotation (JSON-LD)', extension: 'jsonld', mediaType: 'application/ld+json' },
};

export interface ExportedMark {
  id: string;
  sourceId: string;
  fileId: string;
  title: string;
  /** Author and year, as one names the source in passing. */
  source: string;
  /** The source as its style prints it, as text. */
  citation: string;
  /** Counted from 1. */
  page: number;
  /** The place as it is cited: see core/page-numbers. */
  cited: string;
  sense: string;
  shape: Shape;
  quote: Quote;
  rects: Rect[];
  gloss: string;
  by: string;
  /** ISO 8601. */
  at: string;
}

/** In the order they come; what is on one source stands together where they come so. DOCX is put together from `bySource`. */
export function writeMarks(marks: readonly ExportedMark[], format: Exclude<MarkFormat, 'docx'>): string {
  return { markdown, html, csv, 'web-annotation': webAnnotations }[format](marks);
}

/** "Okonjo & Tregenza 2014, p. 207"; of a judgment "Marsh v Board 1998, para 33". */
export const shortCitation = ({ source, cited }: Pick<ExportedMark, 'source' | 'cited'>): string =>
  `${source}, ${placeWritten(cited)}`;

/** The words it stands on; empty for a place without words. */
export const wordsOf = ({ shape, quote }: ExportedMark): string => (isOnWords(shape) ? quote.exact : '');
/** "Claim"; of a place without words also what it is: "Region, Claim". */
export const whatOf = ({ shape, sense }: ExportedMark): string =>
  isOnWords(shape) ? sense : `${SHAPE_NAMES[shape]}, ${sense}`;

export interface Group {
  citation: string;
  marks: ExportedMark[];
}

/** Marks on one source that follow each other stand together. */
export function bySource(marks: readonly ExportedMark[]): Group[] {
  const groups: (Group & { id: string })[] = [];
  for (const mark of marks) {
    const last = groups.at(-1);
    if (last?.id === mark.sourceId) last.marks.push(mark);
    else groups.push({ id: mark.sourceId, citation: mark.citation || mark.title, marks: [mark] });
  }
  return groups;
}

/** Signs that Markdown would read as its own (CommonMark 0.31, 2.4). */
const plainMarkdown = (text: string): string =>
  text.replace(/[\\`*_[\]<>#|~]/g, '\\$&').replace(/^( {0,3})([-+]|\d{1,9}[.)])(?=\s)/gm, '$1\\$2');
const quoted = (text: string): string =>
  text
    .split('\n')
    .map((line) => `> ${line}`)
    .join('\n');

function markdown(marks: readonly ExportedMark[]): string {
  const out: string[] = [];
  for (const group of bySource(marks)) {
    out.push(`## ${plainMarkdown(group.citation)}`);
    for (const mark of group.marks) {
      const words = wordsOf(mark);
      if (words) out.push(quoted(plainMarkdown(words)));
      out.push(`(${plainMarkdown(shortCitation(mark))}) **${plainMarkdown(whatOf(mark))}**, ${plainMarkdown(mark.by)}`);
      if (mark.gloss) out.push(plainMarkdown(mark.gloss));
    }
  }
  return out.length ? out.join('\n\n') + '\n' : '';
}

const SIGNS: Record<string, string> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };
const escaped = (text: string): string => text.replace(/[&<>"]/g, (c) => SIGNS[c]!);

function html(marks: readonly ExportedMark[]): string {
  const sections = bySource(marks).map(({ citation, marks: of }) => {
    const each = of.map((mark) => {
      const words = wordsOf(mark);
      return [
        '<article>',
        words && `<blockquote>${escaped(words)}</blockquote>`,
        `<p class="place">${escaped(shortCitation(mark))} · ${escaped(whatOf(mark))} · ${escaped(mark.by)}</p>`,
        mark.gloss && `<p>${escaped(mark.gloss).replaceAll('\n', '<br>')}</p>`,
        '</article>',
      ]
        .filter(Boolean)
        .join('\n');
    });
    return `<section>\n<h2>${escaped(citation)}</h2>\n${each.join('\n')}\n</section>`;
  });
  return `<!doctype html>
<html lang="en">
<head><meta charset="utf-8"><title>Marks</title>
<style>body{font:1rem/1.5 Georgia,serif;max-width:42rem;margin:2rem auto;padding:0 1rem}blockquote{margin:1rem 0 .25rem;padding-left:1rem;border-left:3px solid #8a8f94}.place{color:#555;font-size:.9rem;margin:0}h2{font-size:1.05rem;margin-top:2rem}</style></head>
<body>
${sections.join('\n')}
</body>
</html>
`;
}

/** RFC 4180; what a spreadsheet would run as a formula begins with an apostrophe. */
const csv = (marks: readonly ExportedMark[]): string =>
  Papa.unparse(
    marks.map((m) => ({
      Source: m.source,
      Title: m.title,
      Page: m.cited,
      Sense: m.sense,
      Shape: SHAPE_NAMES[m.shape],
      Text: m.quote.exact,
      Gloss: m.gloss,
      'Marked by': m.by,
      Date: m.at,
      Citation: m.citation,
    })),
    { newline: '\r\n', escapeFormulae: true },
  ) + '\r\n';
