import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { anchor, likeness, quoteAt, spanAfter } from './index.ts';

const PAGE =
  'The keeper of the lower gate shut it at dusk. None of the ordinances says who must close the gate, nor at what hour. ' +
  'In the spring of 1872 the Commission wrote to the boatmen, who did not answer.';
const quote = (words: string, text = PAGE) => quoteAt(text, text.indexOf(words), text.indexOf(words) + words.length);
const read = (pages: string[], words: string, page = 1): string | undefined => {
  const at = anchor(
    pages.map((text, i) => ({ number: i + 1, text })),
    quote(words),
    page,
  );
  return at && `${at.page}: ${pages[at.page - 1]!.slice(at.start, at.end)}`;
};

describe('a quotation on pages that read otherwise', () => {
  test('is found on another page of a newer file', () =>
    expect(read(['Preface', PAGE], 'who must close the gate')).toBe('2: who must close the gate'));
  test('is found where most of its words are left', () =>
    expect(
      read([PAGE.replace('must close', 'shall shut')], 'None of the ordinances says who must close the gate'),
    ).toBe('1: None of the ordinances says who shall shut the gate'));
  test('is not found where its sentence was taken out', () =>
    expect(
      read([PAGE.replace(/None.*hour\. /, '')], 'None of the ordinances says who must close the gate'),
    ).toBeUndefined());
  test('of a word or two is found to the letter or not at all', () =>
    expect(read([PAGE.replace('boatmen', 'ferrymen')], 'boatmen')).toBeUndefined());
  test('of nothing is nowhere', () => expect(anchor([{ number: 1, text: PAGE }], quote(''), 1)).toBeUndefined());
});

const words = fc.array(fc.constantFrom('gate', 'keeper', 'tide', 'sluice', 'ebb', 'of', 'the', 'quay', 'silt'), {
  minLength: 5,
  maxLength: 60,
});

test('whatever is broken into lines otherwise, a quotation from the page stands again on the same words', () =>
  fc.assert(
    fc.property(words, fc.nat(), fc.integer({ min: 1, max: 12 }), fc.array(fc.nat(3)), (all, from, count, breaks) => {
      const start = from % all.length;
      const said = all.slice(start, start + count);
      const text = all.join(' ');
      const at = all.slice(0, start).join(' ').length + (start ? 1 : 0);
      const made = quoteAt(text, at, at + said.join(' ').length);
      const anew = all.map((w, i) => w + (breaks[i % Math.max(1, breaks.length)] ? '\n' : ' ')).join('');
      const found = anchor([{ number: 1, text: anew }], made, 1, at);
      expect(anew.slice(found!.start, found!.end).split(/\s+/)).toEqual(said);
    }),
  ));

test('a span keeps its words where others are altered, and takes the new ones where its own are', () => {
  const at = (text: string, part: string) => ({ start: text.indexOf(part), end: text.indexOf(part) + part.length });
  const altered = PAGE.replace('boatmen', 'ferrymen of February');
  const said = (part: string): string => {
    const { start, end } = spanAfter(PAGE, altered, at(PAGE, part));
    return altered.slice(start, end);
  };
  expect(said('who must close the gate')).toBe('who must close the gate');
  expect(said('did not answer')).toBe('did not answer');
  expect(said('boatmen')).toBe('ferrymen of February');
  expect(said('to the boatmen, who')).toBe('to the ferrymen of February, who');
});

test('whatever is altered, a span before or after it keeps its letters', () =>
  fc.assert(
    fc.property(words, words, words, fc.boolean(), (head, was, now, isBefore) => {
      const [a, b] = [
        `${head.join(' ')}. ${was.join(' ')}. End of it`,
        `${head.join(' ')}. ${now.join(' ')}. End of it`,
      ];
      const part = isBefore ? { start: 0, end: head[0]!.length } : { start: a.length - 9, end: a.length };
      const moved = spanAfter(a, b, part);
      expect(b.slice(moved.start, moved.end)).toBe(a.slice(part.start, part.end));
    }),
  ));

test('a page is like itself, and unlike one of other words or of none', () => {
  expect(likeness(PAGE, PAGE)).toBe(1);
  expect(likeness(PAGE, 'Harbour dues of the upper quay')).toBeLessThan(0.3);
  expect(likeness('', '')).toBe(0);
});
