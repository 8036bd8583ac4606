import fc from 'fast-check';
import { describe, expect, test } from 'vitest';
import {
  confidenceOf,
  correctedPage,
  linesOf,
  lineText,
  paragraphsOf,
  runningLines,
  type PageWord,
  type ReadPage,
} from './index.ts';

/** A page of lines, each word six points a letter wide; `^` begins a paragraph, a hyphen at the end is joined. */
function page(lines: { text: string; x?: number; y?: number; size?: number; block?: boolean }[]): ReadPage {
  let text = '';
  const words: PageWord[] = [];
  lines.forEach(({ text: line, x = 72, y, size = 10, block }, i) => {
    if (i) {
      if (/\p{L}-$/u.test(text) && /^\p{Ll}/u.test(line)) {
        text = text.slice(0, -1);
        words.at(-1)!.end -= 1;
      } else text += block ? '\n\n' : '\n';
    }
    let at = x;
    const top = y ?? 120 + i * 14;
    for (const word of line.split(' ')) {
      if (text && !/\n$/.test(text) && at > x) text += ' ';
      words.push({ start: text.length, end: text.length + word.length, box: { x0: at, y0: top, x1: at + word.length * 6, y1: top + size } }); // prettier-ignore
      text += word;
      at += word.length * 6 + 6;
    }
  });
  return { text, words, height: 800 };
}

describe('the lines of a page', () => {
  const of = page([{ text: 'The Com-' }, { text: 'missioners shut' }, { text: 'the gate.', block: true }]);

  test('are told from its text, a broken word with its hyphen', () => {
    const lines = linesOf(of);
    expect(lines.map((_, i) => lineText(of.text, lines, i))).toEqual(['The Com-', 'missioners shut', 'the gate.']);
    expect(of.text).toBe('The Commissioners shut\n\nthe gate.');
  });

  test('are corrected one by one: the words go where they stand, and the rest stays', () => {
    const done = correctedPage(of, new Map([[1, 'missioners did shut']]));
    expect(done.text).toBe('The Commissioners did shut\n\nthe gate.');
    const did = done.words.find((w) => done.text.slice(w.start, w.end) === 'did')!;
    expect(did.box.y0).toBe(134);
    expect([did.box.x0 > 72, did.box.x1 < 72 + 90]).toEqual([true, true]);
    expect(correctedPage(of, new Map([[0, 'The whole']])).text).toBe('The whole\nmissioners shut\n\nthe gate.');
  });

  test('none corrected, or each by what it is, are the page as it was', () => {
    const word = fc.stringMatching(/^[a-z]{1,8}$/);
    const some = fc.array(fc.record({ text: fc.array(word, { minLength: 1, maxLength: 5 }).map((w) => w.join(' ')), block: fc.boolean() }), { minLength: 1, maxLength: 8 }); // prettier-ignore
    fc.assert(
      fc.property(some, (lines) => {
        const whole = page(lines);
        const at = linesOf(whole);
        const same = new Map(at.map((_, i) => [i, lineText(whole.text, at, i)]));
        expect(correctedPage(whole, same)).toEqual({ text: whole.text, words: whole.words });
      }),
    );
  });

  test('corrected to any words have each of them in the text, in its line', () => {
    fc.assert(
      fc.property(fc.array(fc.stringMatching(/^[A-Z][a-z]{0,8}$/), { minLength: 1, maxLength: 9 }), (words) => {
        const done = correctedPage(of, new Map([[2, words.join('  ')]]));
        expect(done.text.endsWith(`\n\n${words.join(' ')}`)).toBe(true);
        expect(done.words.slice(-words.length).map((w) => done.text.slice(w.start, w.end))).toEqual(words);
      }),
    );
  });
});

describe('paragraphs', () => {
  test('are joined over their lines, without running heads and page numbers, notes at the end', () => {
    const pages = [1, 2].map((n) =>
      page([
        { text: `Water and Law ${n}`, y: 40 },
        { text: '2. The licences', y: 100, size: 14, block: true },
        { text: 'Between 1961 and 2009 the', y: 130, block: true },
        { text: 'Board granted them.', y: 144 },
        { text: 'Next it did not.', y: 158, x: 84 },
        { text: '1 See Box 4.', y: 600, size: 8, block: true },
        { text: `${200 + n}`, y: 770, block: true },
      ]),
    );
    expect(paragraphsOf(pages[0]!, runningLines(pages)).map((p) => [p.kind, p.text])).toEqual([
      ['heading', '2. The licences'],
      ['text', 'Between 1961 and 2009 the Board granted them.'],
      ['text', 'Next it did not.'],
      ['note', '1 See Box 4.'],
    ]);
  });

  test('say where they begin in the text of the page', () => {
    const one = page([{ text: 'One gate.' }, { text: 'Two gates.', block: true }]);
    for (const { start, text } of paragraphsOf(one))
      expect(one.text.slice(start).startsWith(text.slice(0, 5))).toBe(true);
  });
});

test('how sure a word is goes with it, though the lists differ by words that are in one alone', () => {
  const said = ['Sir', 'the', 'Com', 'boatmen', 'unseen', 'beg'];
  const recognised = [
    ['|', 3],
    ['Sir', 96],
    ['the', 91],
    ['Com-', 60],
    ['boatmen', 88],
    ['beg', 42],
  ] as const;
  const sure = confidenceOf(
    said,
    recognised.map(([text, confidence]) => ({ text, confidence })),
  );
  expect([...sure]).toEqual([96, 91, 60, 88, 255, 42]);
});
