/** A list of printed references as a format: each entry a record, each text that is none a message. */
import type { Item } from '../formats/message.ts';
import { shortBlanks } from '../text/index.ts';
import { looksLikeReference, readReference } from './read.ts';
import { splitReferences } from './split.ts';

export function* eachReference(list: string): Generator<Item, void> {
  const text = shortBlanks(list);
  let line = 1;
  let at = 0;
  for (const piece of splitReferences(text)) {
    line += text.slice(at, piece.start).split('\n').length - 1;
    at = piece.start;
    if (looksLikeReference(piece.text))
      yield { source: { record: readReference(piece.text).record, subjects: [], line } };
    else
      yield {
        message: {
          severity: 'warning',
          rule: 'no-reference',
          line,
          column: 1,
          what: `“${piece.text.slice(0, 80)}” could not be read as a reference`,
          done: 'it was left out',
        },
      };
  }
}
