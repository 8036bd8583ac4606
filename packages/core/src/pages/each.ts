/** A page of the web as a format: the works it lists, or the page itself. */
import type { Item } from '../formats/message.ts';
import { tooDeep } from './depth.ts';
import { readPage } from './read.ts';

/** A text that is a page of the web, and not another kind of XML. */
export const isPage = (text: string): boolean =>
  /^[\s\uFEFF]*(?:<!doctype html|<html[\s>])/i.test(
    text.slice(0, 2000).replace(/^[\s\uFEFF]*(?:<\?xml[^>]*\?>|<!--[\s\S]*?-->)\s*/, ''),
  );

export function* eachOfPage(html: string, address: string): Generator<Item, void> {
  if (tooDeep(html)) {
    yield {
      message: {
        severity: 'error',
        rule: 'too-deep',
        line: 0,
        column: 0,
        what: 'Its elements nest deeper than those of any page',
        done: 'it was not read',
      },
    };
    return;
  }
  const { record, subjects, items } = readPage(html, address);
  if (items.length) for (const item of items) yield { source: { record: item, subjects: [], line: 1 } };
  else yield { source: { record, subjects, line: 1 } };
}
