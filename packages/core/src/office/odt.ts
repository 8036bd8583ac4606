/** The paragraphs and notes of an ODT document (OpenDocument 1.2, ISO/IEC 26300), in their order. */
import { eachElement, type Element } from '../formats/xml/tree.ts';
import { filesIn } from './archive.ts';
import type { Paragraph } from './paragraph.ts';

export function paragraphsOfOdt(bytes: Uint8Array): Paragraph[] {
  const xml = filesIn(bytes, /^content\.xml$/).get('content.xml') ?? '';
  const out: Paragraph[] = [];
  const [body] = eachElement(xml, ['body']);
  const walk = (e: Element, inList: boolean): void => {
    for (const c of e.children) {
      if (c.name === 'p' || c.name === 'h') out.push(...read(c, inList));
      else if (c.name !== 'tracked-changes') walk(c, inList || c.name === 'list' || c.name === 'bibliography');
    }
  };
  if (body) walk(body, false);
  return out.filter((p) => p.text.trim() || p.links.length);
}

/** A paragraph, and after it the notes that stand in it. */
function read(p: Element, inList: boolean): Paragraph[] {
  const links: string[] = [];
  const notes: Paragraph[] = [];
  const textOf = (e: Element): string =>
    e.content
      .map((c) => {
        if (typeof c === 'string') return c;
        switch (c.name) {
          case 's':
          case 'tab':
          case 'line-break':
            return ' ';
          case 'note':
            notes.push(noteOf(c));
            return '';
          case 'annotation':
            return '';
          case 'a':
            if (c.attributes.href) links.push(c.attributes.href);
            return textOf(c);
          default:
            return textOf(c);
        }
      })
      .join('');
  const text = textOf(p).replace(/\s+/g, ' ').trim();
  return [{ text, as: p.name === 'h' ? 'heading' : inList ? 'list' : 'text', links }, ...notes];
}

function noteOf(note: Element): Paragraph {
  const body = note.children.find((c) => c.name === 'note-body');
  const parts = (body?.children ?? []).flatMap((p) => read(p, false));
  return { text: parts.map((p) => p.text).join('\n'), as: 'note', links: parts.flatMap((p) => p.links) };
}
