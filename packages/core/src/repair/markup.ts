/** Entities, tags and LaTeX that were meant as letters. */
import { decodeHTML } from 'entities';
import { latexToText } from '../formats/latex/decode.ts';
import { repairEncoding } from './encoding.ts';

const ENTITY = /&(?:amp;)*(?:#\d{2,7}|#x[0-9a-f]{2,6}|[a-z][a-z0-9]{1,30});/gi;

/** Named and numbered, escaped once or oftener: "&amp;eacute;" is "é". What is no entity stays. */
export const decodeEntities = (text: string): string =>
  text.includes('&') ? text.replace(ENTITY, (e) => decodeHTML(e.replace(/&(?:amp;)+(?=[#a-z])/gi, '&'))) : text;

/** Tags of HTML and JATS go, their text stays; a sign for "less than" is no tag. */
export const stripTags = (text: string): string =>
  text.includes('<') ? text.replace(/<\/?[a-z][a-z0-9:]*(?:\s+[\w:-]+="[^"]*")*\s*\/?>/gi, '') : text;

/** A text as it was meant: letters alone, on one line. */
/** What none of the repairs looks at. */
const SUSPECT = /[\u00c2-\u00f4&<\\{}$\t\n\r]|\s\s|^\s|\s$/;

export function plainText(text: string): string {
  if (!SUSPECT.test(text)) return text;
  let out = text;
  if (/[\u00c2-\u00f4]/.test(out)) out = repairEncoding(out);
  if (out.includes('&')) out = decodeEntities(out);
  if (out.includes('<')) out = stripTags(out);
  if (/[\\{}]|\$[^$]+\$/.test(out)) out = latexToText(out);
  return out.replace(/\s+/g, ' ').trim();
}
