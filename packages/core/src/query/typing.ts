/** What one is about to write, for offering how it may go on. */
import { fieldNamed, type QueryField } from './fields.ts';

export interface Typing {
  /** The field whose value is being written; none while it may be a field or a word. */
  field?: QueryField;
  /** What stands there so far, without its quotation mark. */
  begun: string;
  /** What a suggestion takes the place of: offsets into the text. */
  start: number;
  end: number;
}

/** What stands before the caret, where it is at the end of a word, a field or a value. */
export function typingAt(text: string, caret: number): Typing | undefined {
  const before = text.slice(0, caret);
  const value = /(?:^|[\s(-])(([A-Za-z][A-Za-z-]*):(?:["“]([^"”]*)|([^\s")“”]*)))$/.exec(before);
  if (value) {
    const field = fieldNamed(value[2]!);
    const typed = value[3] ?? value[4] ?? '';
    const start = caret - value[1]!.length;
    if (field) return { field, begun: typed, start, end: endOf(text, caret, value[3] !== undefined) };
  }
  // Within a phrase nothing is offered.
  if ((before.match(/["“”]/g)?.length ?? 0) % 2) return undefined;
  const word = /(?:^|[\s(-])([A-Za-z]+)$/.exec(before);
  return word ? { begun: word[1]!, start: caret - word[1]!.length, end: endOf(text, caret, false) } : undefined;
}

/** Where what is being written ends: behind its quotation mark, or at the next space. */
function endOf(text: string, caret: number, isQuoted: boolean): number {
  const rest = (isQuoted ? /^[^"”]*["”]?/ : /^[^\s)]*/).exec(text.slice(caret));
  return caret + (rest?.[0].length ?? 0);
}

/** A field with its value, as it is written. */
export const written = (field: QueryField, value: string): string =>
  `${field}:${/[\s()"“”]/.test(value) || !value ? `"${value.replace(/["“”]/g, '')}"` : value}`;
