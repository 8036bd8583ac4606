/** What readers of XML share: an element is an entry, and what is wrong with the file is a message at its end. */
import type { Item, ReadSource } from '../message.ts';
import { eachElement, type Element } from './tree.ts';

export function* eachEntry(
  xml: string,
  names: readonly string[],
  read: (element: Element) => ReadSource | undefined,
): Generator<Item, void> {
  let last = 1;
  try {
    for (const element of eachElement(xml, names)) {
      last = element.line;
      const source = read(element);
      if (source) yield { source };
    }
  } catch (error) {
    yield {
      message: {
        severity: 'error',
        rule: 'broken-xml',
        line: last,
        column: 1,
        what: `The XML is not whole: ${(error as Error).message}`,
        done: 'what came before it was read',
      },
    };
  }
}
