import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import {
  eventSpan,
  faultOf,
  joinTexts,
  lengthOf,
  linksIn,
  plainText,
  quotation,
  quotationsIn,
  splitText,
  takeOut,
  titleFrom,
  yearOfDay,
  type DocNode,
} from './index.ts';

const ID = '018f0000-0000-7000-8000-000000000001';
const origin = { source: ID, file: null, page: 2, cited: '214', mark: null };

const text = fc.string({ minLength: 1, maxLength: 12, unit: 'binary' });
const words: fc.Arbitrary<DocNode> = text.map((t) => ({ type: 'text', text: t }));
const reference: fc.Arbitrary<DocNode> = text.map((label) => ({
  type: 'reference',
  attrs: { to: 'note', id: ID, label, how: null },
}));
const inline = fc.array(fc.oneof({ weight: 4, arbitrary: words }, reference), { maxLength: 3 });
const leaf: fc.Arbitrary<DocNode> = fc.oneof(
  inline.map((content) => ({ type: 'paragraph', content })),
  inline.map((content) => ({ type: 'heading', attrs: { level: 2 }, content })),
  text.map((t) => quotation(origin, t)),
);
const table: fc.Arbitrary<DocNode> = inline.map((content) => ({
  type: 'table',
  content: [{ type: 'tableRow', content: [{ type: 'tableCell', content: [{ type: 'paragraph', content }] }] }],
}));
const nested: fc.Arbitrary<DocNode> = fc.array(leaf, { minLength: 1, maxLength: 3 }).map((content) => ({
  type: 'bulletList',
  content: content.map((child) => ({ type: 'listItem', content: [child] })),
}));
const doc: fc.Arbitrary<DocNode> = fc
  .array(fc.oneof(leaf, leaf, nested, table), { maxLength: 5 })
  .map((content) => ({ type: 'doc', content }));

/** All characters in their order, without the blocks they stand in. */
const letters = (node: DocNode): string => {
  if (node.type === 'text') return node.text!;
  if (node.type === 'reference') return `<${String(node.attrs!.label)}>`;
  return (node.content ?? []).map(letters).join('');
};
const quoted = (node: DocNode): string => quotationsIn(node).map((q) => q.words).join(''); // prettier-ignore

describe('a note is parted', () => {
  test('anywhere, and no character, quotation, link or way back is lost', () => {
    fc.assert(
      fc.property(doc, fc.nat(80), (d, at) => {
        const { left, right } = splitText(d, at);
        expect(letters(left) + letters(right)).toBe(letters(d));
        expect(quoted(left) + quoted(right)).toBe(quoted(d));
        expect([...linksIn(left), ...linksIn(right)]).toEqual(linksIn(d));
        for (const { origin: of } of [...quotationsIn(left), ...quotationsIn(right)]) expect(of).toEqual(origin);
        // Never between the two halves of a character.
        if (!/\p{Cs}/u.test(letters(d))) expect(letters(left) + letters(right)).not.toMatch(/\p{Cs}/u);
        if (!/\p{Cs}/u.test(letters(d))) for (const half of [left, right]) expect(letters(half)).not.toMatch(/\p{Cs}/u);
        for (const half of [left, right]) expect(faultOf(half)).toBe('');
      }),
    );
  });

  test('a stretch is taken out of it, and what stood around stays together', () => {
    fc.assert(
      fc.property(doc, fc.nat(60), fc.nat(30), (d, from, length) => {
        const { taken, left } = takeOut(d, from, from + length);
        expect([...letters(taken), ...letters(left)].sort()).toEqual([...letters(d)].sort());
        expect(quotationsIn(taken).length + quotationsIn(left).length).toBeGreaterThanOrEqual(quotationsIn(d).length);
      }),
    );
  });

  test('and joined again reads as before', () => {
    fc.assert(
      fc.property(doc, fc.nat(80), (d, at) => {
        const { left, right } = splitText(d, at);
        expect(letters(joinTexts(left, right))).toBe(letters(d));
      }),
    );
    const both = joinTexts({ type: 'doc', content: [quotation(origin, 'One')] }, { type: 'doc', content: [quotation(origin, 'Two')] }, 'Second'); // prettier-ignore
    expect(plainText(both)).toBe('One\nSecond\nTwo');
  });

  test('a table is not cut through', () => {
    const row = { type: 'tableRow', content: [{ type: 'tableCell', content: [{ type: 'paragraph', content: [{ type: 'text', text: 'tides' }] }] }] }; // prettier-ignore
    const d = { type: 'doc', content: [{ type: 'table', content: [row, row] }] };
    expect(splitText(d, 3).right).toEqual(d);
  });
});

test('a text that is none is refused with what is wrong', () => {
  expect(faultOf('text')).toMatch('is a document');
  expect(faultOf({ type: 'doc', content: [{ type: 'script' }] })).toMatch('no “script”');
  expect(faultOf({ type: 'doc', content: [{ type: 'text' }] })).toMatch('no characters');
  expect(faultOf({ type: 'doc', content: [{ type: 'text', text: 'x', marks: [{ type: 'glow' }] }] })).toMatch('look');
  let deep: DocNode = { type: 'paragraph' };
  for (let n = 0; n < 100; n += 1) deep = { type: 'blockquote', content: [deep] };
  expect(faultOf({ type: 'doc', content: [deep] })).toMatch('too deep');
  fc.assert(fc.property(fc.jsonValue(), (v) => void expect(typeof faultOf(v)).toBe('string')));
});

test('a note without a title takes the beginning of its text, cut at a word', () => {
  expect(titleFrom({ type: 'doc', content: [{ type: 'paragraph' }, quotation(origin, 'Nobody had objected')] })).toBe('Nobody had objected'); // prettier-ignore
  const long = 'the tidal barrier be not shut upon the ebb as the Commissioners did promise us at the Quayside';
  expect(titleFrom({ type: 'doc', content: [quotation(origin, long)] })).toMatch(/^the tidal .*\w…$/);
  expect(lengthOf({ type: 'doc', content: [quotation(origin, 'abc')] })).toBe(3);
});

describe('the date of an event is read as people write it', () => {
  const span = (t: string): [string, string] | undefined => {
    const days = eventSpan(t);
    const day = (n: number): string => new Date(n * 86_400_000).toISOString().slice(0, 10);
    return days && [day(days.from), day(days.to)];
  };
  test('a day, a month, a season, a year, an interval', () => {
    expect(span('18 February 1872')).toEqual(['1872-02-18', '1872-02-18']);
    expect(span('1872-02')).toEqual(['1872-02-01', '1872-02-29']);
    expect(span('spring 1872')).toEqual(['1872-03-01', '1872-05-31']);
    expect(span('winter 1872')).toEqual(['1872-12-01', '1873-02-28']);
    expect(span('1872')).toEqual(['1872-01-01', '1872-12-31']);
    expect(span('1871/1873')).toEqual(['1871-01-01', '1873-12-31']);
    expect(span('187X')).toEqual(['1870-01-01', '1879-12-31']);
  });
  test('what is no date has no place in time', () => {
    expect(span('when the ice broke')).toBeUndefined();
    expect(yearOfDay(eventSpan('-0043')!.from)).toBe(-44);
  });
});
