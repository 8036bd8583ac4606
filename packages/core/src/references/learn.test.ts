import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import { applyLearnt, learn, type Span } from './index.ts';

/** A reference by its pieces: fields and what stands between. */
function printed(...pieces: (string | [Span['field'], string])[]): { text: string; spans: Span[] } {
  let text = '';
  const spans: Span[] = [];
  for (const piece of pieces) {
    if (typeof piece === 'string') text += piece;
    else {
      spans.push({ field: piece[0], start: text.length, end: text.length + piece[1].length });
      text += piece[1];
    }
  }
  return { text, spans };
}
const taught = printed(['author', 'Okonjo, M.'], ' ', ['title', 'Gates'], '. ', ['publisher', 'Sallow'], ': ', ['publisher-place', 'Tern Press'], ', ', ['issued', '2014'], '.'); // prettier-ignore
const at = (text: string, words: string): { start: number; end: number } => ({
  start: text.indexOf(words),
  end: text.indexOf(words) + words.length,
});

describe('what a person corrects in one reference of a list', () => {
  const learnt = learn(taught.text, taught.spans, { ...at(taught.text, 'Tern Press'), field: 'publisher' })!;

  test('is found in one that is made the same way', () => {
    const other = printed(['author', 'Vance, I.'], ' ', ['title', 'Silt'], '. ', ['publisher', 'Northmere'], ': ', ['publisher-place', 'Reed and Sons'], ', ', ['issued', '1987'], '.'); // prettier-ignore
    expect(applyLearnt(learnt, other.text, other.spans)).toEqual({ ...at(other.text, 'Reed and Sons'), field: 'publisher' }); // prettier-ignore
  });

  test.each([
    ['other signs', printed(['publisher', 'Northmere'], ', ', ['publisher-place', 'Reed'], ', ', ['issued', '1987'])],
    ['another neighbour', printed(['title', 'Silt'], ': ', ['publisher-place', 'Reed'], ', ', ['issued', '1987'])],
    ['another field there', printed(['publisher', 'Northmere'], ': ', ['edition', 'Second'], ', ', ['issued', '1987'])],
    ['a number where words were', printed(['publisher', 'N'], ': ', ['publisher-place', '12'], ', ', ['issued', '1987'])], // prettier-ignore
  ])('is not found where there are %s', (_, other) => {
    expect(applyLearnt(learnt, other.text, other.spans)).toBeUndefined();
  });

  test('words nothing was read from are given a field by the signs about them', () => {
    const one = printed(['author', 'Okonjo, M.'], '. ', 'Report 12', '. ', ['title', 'Gates'], '.');
    const other = printed(['author', 'Vance, I.'], '. ', 'Report 7b', '. ', ['title', 'Silt'], '.');
    const rule = learn(one.text, one.spans, { ...at(one.text, 'Report 12'), field: 'number' })!;
    expect(applyLearnt(rule, other.text, other.spans)).toEqual({ ...at(other.text, 'Report 7b'), field: 'number' });
  });

  test('a stretch far from its neighbours teaches nothing', () => {
    const one = printed(['author', 'Okonjo, M.'], ' as she told it in the spring at Sallow: ', 'Gates');
    expect(learn(one.text, one.spans, { ...at(one.text, 'Gates'), field: 'title' })).toBeUndefined();
  });

  test('in whatever was corrected, the same reference answers with the same stretch', () => {
    const field = fc.constantFrom<Span['field'][]>('author', 'title', 'publisher', 'volume', 'issued');
    const piece = fc.tuple(field, fc.stringMatching(/^[A-Za-z]{2,9}$/));
    fc.assert(
      fc.property(fc.array(piece, { minLength: 1, maxLength: 6 }), fc.nat(5), (pieces, nth) => {
        const { text, spans } = printed(...pieces.flatMap(([f, t]) => [[f, t] as [Span['field'], string], ', ']));
        const span = spans[nth % spans.length]!;
        const change = { start: span.start, end: span.end, field: 'genre' as const };
        const again = applyLearnt(learn(text, spans, change)!, text, spans)!;
        expect(spans.find((s) => s.start === again.start)?.field).toBe(span.field);
      }),
    );
  });
});
