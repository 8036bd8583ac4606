/** Whether a text is a table with headings of a bibliography, without taking in the reader of tables. */
import { columnsOf } from './columns.ts';

const LONGEST_HEADING = 60;

/** The sign that parts the columns, where the first line is headings and another line follows. */
export function separatorOf(start: string): ',' | ';' | '\t' | undefined {
  const [head = '', next = ''] = start.replace(/^\uFEFF/, '').split(/\r\n|\n|\r/, 2);
  if (!next.trim() || /^\s*[<[{@%]/.test(head)) return undefined;
  return ([',', ';', '\t'] as const).find((sign) => {
    const headings = head.split(sign).map((h) => h.trim().replace(/^"(.*)"$/, '$1'));
    if (headings.length < 2 || headings.some((h) => h.length > LONGEST_HEADING) || !next.includes(sign)) return false;
    const fields = Object.values(columnsOf(headings)).filter(Boolean);
    return fields.length >= 2 && (fields.includes('title') || fields.includes('DOI'));
  });
}
