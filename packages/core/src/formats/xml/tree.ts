/**
 * XML as small trees, one after another: of a large file no more than an element is held. Entities that a file declares
 * itself are not known and never fetched (XML 1.0, 4.4.4 leaves it to the reader); a file that has any is told so.
 */
import { SaxesParser } from 'saxes';

export interface Element {
  /** Without its prefix. */
  name: string;
  attributes: Record<string, string>;
  children: Element[];
  /** All text in it, blanks as one. */
  text: string;
  /** Text and elements in the order they stand, blanks as they are. */
  content: (string | Element)[];
  line: number;
}

const DEEPEST = 200;
const CHUNK = 65_536;

/**
 * The elements of a name, wherever they stand, in order.
 * @throws Error with what is wrong and the line, after those that were whole were given
 */
export function* eachElement(xml: string, names: readonly string[]): Generator<Element, void> {
  const wanted = new Set(names);
  const ready: Element[] = [];
  const open: Element[] = [];
  let depth = 0;
  let inside = 0;
  let wrong: Error | undefined;
  const parser = new SaxesParser({ xmlns: false });
  parser.on(
    'error',
    (error) =>
      (wrong ??= new Error(`line ${parser.line}: ${error.message.replace(/^\d+:\d+: /, '').replace(/\.$/, '')}`)),
  );
  parser.on('doctype', (text) => {
    if (/<!ENTITY/i.test(text)) wrong ??= new Error('it declares entities of its own, which are not read');
  });
  parser.on('opentag', (tag) => {
    depth += 1;
    if (depth > DEEPEST) wrong ??= new Error(`line ${parser.line}: its elements nest too deep`);
    const name = tag.name.replace(/^.*:/, '');
    if (!inside && !wanted.has(name)) return;
    inside += 1;
    const attributes = Object.fromEntries(
      Object.entries(tag.attributes as Record<string, string>).map(([k, v]) => [k.replace(/^.*:/, ''), v]),
    );
    open.push({ name, attributes, children: [], text: '', content: [], line: parser.line });
  });
  const add = (text: string): void => void open.at(-1)?.content.push(text);
  parser.on('text', add);
  parser.on('cdata', add);
  parser.on('closetag', () => {
    depth -= 1;
    // Of what stands after a fault nothing is given.
    if (!inside || wrong) return;
    inside -= 1;
    const element = open.pop()!;
    const above = open.at(-1);
    element.text = rawText(element).replace(/\s+/g, ' ').trim();
    if (above) {
      above.children.push(element);
      above.content.push(element);
    } else ready.push(element);
  });
  for (let at = 0; at < xml.length && !wrong; at += CHUNK) {
    parser.write(xml.slice(at, at + CHUNK));
    yield* ready.splice(0);
  }
  if (!wrong) parser.close();
  yield* ready.splice(0);
  if (wrong) throw wrong;
}

const rawText = (e: Element): string => e.content.map((c) => (typeof c === 'string' ? c : rawText(c))).join('');

/** Elements of several vocabularies that say how text is set, as the markup a value may hold. */
const SET: Record<string, string> = {
  i: 'i',
  italic: 'i',
  em: 'i',
  emph: 'i',
  b: 'b',
  bold: 'b',
  strong: 'b',
  sup: 'sup',
  sub: 'sub',
  sc: 'sc',
};

/** The text in an element with what is set apart in it; elements named are passed over. */
export function markedText(e: Element, without: readonly string[] = []): string {
  const walk = (at: Element): string =>
    at.content
      .map((c) => {
        if (typeof c === 'string') return c;
        if (without.includes(c.name)) return '';
        const set = SET[c.name];
        return set ? `<${set}>${walk(c)}</${set}>` : walk(c);
      })
      .join('');
  return walk(e).replace(/\s+/g, ' ').trim();
}

export const childrenOf = (e: Element | undefined, name: string): Element[] =>
  e?.children.filter((c) => c.name === name) ?? [];
export const childOf = (e: Element | undefined, name: string): Element | undefined =>
  e?.children.find((c) => c.name === name);
/** The text at the end of a path of names; undefined where there is none. */
export function textAt(e: Element | undefined, ...path: string[]): string | undefined {
  let at = e;
  for (const name of path) at = childOf(at, name);
  return at?.text || undefined;
}

const ESCAPES: Record<string, string> = { '&': '&amp;', '<': '&lt;', '>': '&gt;', '"': '&quot;' };
/** Text as it stands in XML; characters XML 1.0 has no place for are left out. */
export const escapeXml = (text: string): string =>
  text.replace(/[\u0000-\u0008\u000B\u000C\u000E-\u001F\uFFFE\uFFFF]/g, '').replace(/[&<>"]/g, (c) => ESCAPES[c]!);
