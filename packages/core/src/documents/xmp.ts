/**
 * What a file says of itself in XMP (ISO 16684-1): found by scanning, in time that grows with the text and not with its
 * square. It comes from outside, and may be anything.
 */
import { characterOf } from '../text/index.ts';

export interface Xmp {
  titles: string[];
  creators: string[];
  subjects: string[];
  identifiers: string[];
}

export function readXmp(xmp: string): Xmp {
  return {
    titles: items(xmp, 'dc:title'),
    creators: items(xmp, 'dc:creator'),
    subjects: items(xmp, 'dc:subject'),
    identifiers: [...elements(xmp, 'prism:doi'), ...elements(xmp, 'dc:identifier')].map(decoded).filter(Boolean),
  };
}

/** The items of the list in the first element of this name. */
function items(xmp: string, name: string): string[] {
  const [list] = elements(xmp, name);
  return list ? elements(list, 'rdf:li').map(decoded).filter(Boolean) : [];
}

/** What stands in the elements of this name, one after another; of those within one another the outer begins. */
function elements(xml: string, name: string): string[] {
  const out: string[] = [];
  const [open, close] = [`<${name}`, `</${name}>`];
  for (let at = 0; ;) {
    const start = xml.indexOf(open, at);
    const content = start < 0 ? -1 : xml.indexOf('>', start);
    if (content < 0) return out;
    at = content;
    // Not an element whose name only begins so, nor one without content.
    if (!/[\s>]/.test(xml[start + open.length]!) || xml[content - 1] === '/') continue;
    const end = xml.indexOf(close, content);
    if (end < 0) return out;
    out.push(xml.slice(content + 1, end));
    at = end;
  }
}

const NAMED: Record<string, string> = { amp: '&', lt: '<', gt: '>', quot: '"', apos: "'" };

const decoded = (text: string): string =>
  text
    .replace(/&#(?:x([0-9a-f]{1,6})|(\d{1,7}));/gi, (_, hex?: string, decimal?: string) =>
      characterOf(hex ? parseInt(hex, 16) : Number(decimal)),
    )
    .replace(/&(amp|lt|gt|quot|apos);/g, (_, name: string) => NAMED[name]!)
    .trim();
