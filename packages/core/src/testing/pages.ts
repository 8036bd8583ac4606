/** Pages as pdftotext gives them, made of lines: for tests of what a document shows. */
import { BboxReader, type Page } from '../documents/index.ts';

/** A line: its pieces from the left, each `[text, x?]`; `^` leads what is raised beside the word before it. */
export type TestLine = { size: number; pieces: [text: string, x?: number][]; gap?: number };

export const line = (size: number, ...pieces: (string | [text: string, x?: number])[]): TestLine => ({
  size,
  pieces: pieces.map((p) => (typeof p === 'string' ? [p] : p)),
});

const escape = (t: string): string => t.replace(/&/g, '&amp;').replace(/</g, '&lt;').replace(/>/g, '&gt;');

/** A page of 600 by 800 points with these lines from its top; an empty line is space. */
export function pageOf(...lines: TestLine[]): Page {
  let y = 60;
  let out = '<page width="600" height="800">\n';
  for (const { size, pieces } of lines) {
    let x = 60;
    for (const [text, at] of pieces) {
      if (at !== undefined) x = at;
      out += '<block>\n<line>\n';
      for (const word of text.split(' ').filter(Boolean)) {
        const raised = word.startsWith('^');
        const shown = raised ? word.slice(1) : word;
        const [h, top] = raised ? [size * 0.65, y - size * 0.1] : [size, y];
        if (raised) x -= size * 0.3;
        const width = shown.length * h * 0.5;
        out += `<word xMin="${x}" yMin="${top}" xMax="${x + width}" yMax="${top + h}">${escape(shown)}</word>\n`;
        x += width + size * 0.3;
      }
      out += '</line>\n</block>\n';
    }
    y += size * 1.3;
  }
  const [page] = new BboxReader().push(`${out}</page>\n`);
  return page!;
}

/** Lines of running text, which end the front of a document. */
export const PROSE: TestLine[] = Array.from({ length: 9 }, (_, i) =>
  line(10, `the operators closed the gate late in the night, and the silt came in with line ${i}`),
);
