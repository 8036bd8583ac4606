/** Documents that are no PDF as text one can read and mark: DOCX, ODT, plain text. */
import { paragraphsOfDocx } from './docx.ts';
import { paragraphsOfOdt } from './odt.ts';
import type { OfficeFormat } from './index.ts';
import type { Paragraph } from './paragraph.ts';

const SIGNS: Record<string, string> = { '&': '&amp;', '<': '&lt;', '>': '&gt;' };
const escaped = (text: string): string => text.replace(/[&<>]/g, (c) => SIGNS[c]!).replaceAll('\n', '<br>');

/**
 * A document of a word processor as HTML: headings, paragraphs, lists; its notes stand at the end.
 * @throws Error with what is wrong with the document
 */
export function officeToHtml(bytes: Uint8Array, format: OfficeFormat): string {
  const paragraphs = format === 'docx' ? paragraphsOfDocx(bytes) : paragraphsOfOdt(bytes);
  const [notes, text] = [paragraphs.filter((p) => p.as === 'note'), paragraphs.filter((p) => p.as !== 'note')];
  const list = (of: Paragraph[], tag: 'ul' | 'ol'): string =>
    of.length ? `<${tag}>${of.map((p) => `<li>${escaped(p.text)}</li>`).join('')}</${tag}>` : '';
  let html = '';
  let items: Paragraph[] = [];
  for (const p of text) {
    if (p.as === 'list') {
      items.push(p);
      continue;
    }
    html += list(items, 'ul');
    items = [];
    html += p.as === 'heading' ? `<h2>${escaped(p.text)}</h2>` : `<p>${escaped(p.text)}</p>`;
  }
  return html + list(items, 'ul') + (notes.length ? `<h2>Notes</h2>${list(notes, 'ol')}` : '');
}

/** Plain text as HTML: an empty line parts paragraphs; lines stay lines. */
export const textToHtml = (text: string): string =>
  text
    .replace(/\r\n?/g, '\n')
    .split(/\n[ \t]*\n\s*/)
    .filter((part) => part.trim())
    .map((part) => `<p>${escaped(part.trim())}</p>`)
    .join('');
