/**
 * What readers of XML share: an element is an entry, and what is wrong with the file is a message at its end. Of an element
 * that is none, a reader says why.
 */
import { tryEntry, type Item, type Message, type ReadSource } from '../message.ts';
import { eachElement, type Element } from './tree.ts';

export function* eachEntry(
  xml: string,
  names: readonly string[],
  read: (element: Element) => ReadSource | string | undefined,
): Generator<Item, void> {
  let last = 1;
  try {
    for (const element of eachElement(xml, names)) {
      last = element.line;
      const { given, message } = tryEntry(last, () => read(element));
      if (message) yield { message };
      else if (typeof given === 'string') yield { message: leftOut(element.line, given) };
      else if (given) yield { source: given };
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

const leftOut = (line: number, what: string): Message => ({
  severity: 'warning',
  rule: 'no-record',
  line,
  column: 1,
  what,
  done: 'left out; the others were read',
});
