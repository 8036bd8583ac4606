/** What a standard of XML could not hold, in the element it leaves to its users: see `../remainder.ts`. */
import type { Entry, ReadSource } from '../message.ts';
import { applyRemainder, plainJson, remainderOf } from '../remainder.ts';
import { eachElement, escapeXml, type Element } from './tree.ts';

const NAME = 'remainder';

/**
 * @param standard the entry in the standard form, with `REST` where its own part may stand
 * @param read how the entry is read back
 */
export function withRemainder(
  source: Entry,
  standard: (rest: string) => string,
  element: string,
  read: (element: Element) => ReadSource | undefined,
): string {
  const plain = standard('');
  let back: ReadSource | undefined;
  try {
    const [e] = eachElement(plain, [element]);
    back = e && read(e);
  } catch {
    // Then all of it is kept beside.
  }
  const remainder = remainderOf(source, back);
  if (!remainder) return plain;
  return standard(
    `<${NAME} xmlns="https://pandecta.example/ns/remainder">${escapeXml(plainJson(remainder))}</${NAME}>`,
  );
}

/** Lays over an entry what stood beside the standard form, wherever in the element it stands. */
export function readRemainder<S extends ReadSource>(element: Element, source: S): S {
  const find = (e: Element): Element | undefined =>
    e.name === NAME ? e : e.children.map(find).find((x) => x !== undefined);
  const found = find(element);
  if (found) applyRemainder(source, found.text);
  return source;
}
