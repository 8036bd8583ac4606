/** The paragraphs, footnotes and endnotes of a DOCX document (ECMA-376, WordprocessingML), in their order. */
import { childOf, childrenOf, eachElement, type Element } from '../formats/xml/tree.ts';
import { filesIn } from './archive.ts';
import type { Paragraph } from './paragraph.ts';

export function paragraphsOfDocx(bytes: Uint8Array): Paragraph[] {
  const files = filesIn(
    bytes,
    /^word\/(?:document|footnotes|endnotes)\.xml$|^word\/_rels\/(?:document|footnotes|endnotes)\.xml\.rels$/,
  );
  const out: Paragraph[] = [];
  for (const part of ['document', 'footnotes', 'endnotes']) {
    const xml = files.get(`word/${part}.xml`);
    if (!xml) continue;
    const targets = targetsOf(files.get(`word/_rels/${part}.xml.rels`) ?? '');
    if (part === 'document') for (const p of eachElement(xml, ['p'])) out.push(paragraphOf(p, targets));
    else
      for (const note of eachElement(xml, ['footnote', 'endnote'])) {
        // Separators are notes of a type of their own.
        if (note.attributes.type && note.attributes.type !== 'normal') continue;
        const parts = childrenOf(note, 'p').map((p) => paragraphOf(p, targets));
        out.push({ text: parts.map((p) => p.text).join('\n'), as: 'note', links: parts.flatMap((p) => p.links) });
      }
  }
  return out.filter((p) => p.text.trim() || p.links.length);
}

function targetsOf(rels: string): Map<string, string> {
  const out = new Map<string, string>();
  if (rels)
    for (const r of eachElement(rels, ['Relationship']))
      if (r.attributes.TargetMode === 'External') out.set(r.attributes.Id ?? '', r.attributes.Target ?? '');
  return out;
}

function paragraphOf(p: Element, targets: Map<string, string>): Paragraph {
  const links: string[] = [];
  const text: string[] = [];
  /** The instruction of a field that is spread over runs: from its begin to its separator. */
  let instruction: string | undefined;
  const instructed = (said: string): void => {
    const address = /HYPERLINK\s+"([^"]+)"/.exec(said)?.[1];
    if (address) links.push(address);
  };
  const walk = (e: Element): void => {
    for (const c of e.content) {
      if (typeof c === 'string') continue;
      switch (c.name) {
        case 't':
          text.push(c.content.join(''));
          break;
        case 'tab':
        case 'br':
        case 'cr':
          text.push(' ');
          break;
        case 'noBreakHyphen':
          text.push('-');
          break;
        case 'fldChar':
          if (c.attributes.fldCharType === 'begin') instruction = '';
          else if (instruction !== undefined) {
            instructed(instruction);
            instruction = undefined;
          }
          break;
        case 'instrText':
          if (instruction !== undefined) instruction += c.content.join('');
          break;
        case 'fldSimple':
          instructed(c.attributes.instr ?? '');
          walk(c);
          break;
        case 'hyperlink': {
          const target = targets.get(c.attributes.id ?? '');
          if (target) links.push(target);
          walk(c);
          break;
        }
        // What was struck out, and what describes how text looks, is no text.
        case 'del':
        case 'pPr':
        case 'rPr':
          break;
        default:
          walk(c);
      }
    }
  };
  walk(p);
  const look = childOf(p, 'pPr');
  const style = childOf(look, 'pStyle')?.attributes.val ?? '';
  const as = /^heading|^title|^berschrift|^Überschrift/i.test(style)
    ? 'heading'
    : childOf(look, 'numPr') || /bibliograph|list|reference/i.test(style)
      ? 'list'
      : 'text';
  return {
    text: text
      .join('')
      .replace(/[ \t\u00a0]+/g, ' ')
      .trim(),
    as,
    links,
  };
}
