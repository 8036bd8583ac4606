// @vitest-environment happy-dom
import { beforeEach, describe, expect, test } from 'vitest';
import { lightWords, showHit } from './light.ts';

const lit = (): string[] => [...document.querySelectorAll('mark')].map((m) => m.textContent);
beforeEach(() => {
  document.body.innerHTML =
    '<h1>The gate</h1><p>Who closes the <i>gate</i>, and the gatehouse? The tide gate (1872).</p>';
});

describe('words that were found in a page of the web', () => {
  test('are lit wherever they stand whole, in whatever case', () => {
    lightWords(document.body, ['Gate']);
    expect(lit()).toEqual(['gate', 'gate', 'gate']);
    expect(document.body.textContent).toBe('The gateWho closes the gate, and the gatehouse? The tide gate (1872).');
  });

  test('a phrase is lit as one', () => {
    lightWords(document.body, ['tide gate', 'gate']);
    expect(lit()).toEqual(['gate', 'gate', 'tide gate']);
  });

  test('what was lit before is not any more, and the text is as it was', () => {
    const before = document.body.innerHTML;
    lightWords(document.body, ['gate']);
    lightWords(document.body, []);
    expect(document.body.innerHTML).toBe(before);
  });

  test('signs that mean something to a pattern are signs', () => {
    lightWords(document.body, ['(1872']);
    expect(lit()).toEqual(['(1872']);
    lightWords(document.body, ['187.']);
    expect(lit()).toEqual([]);
    lightWords(document.body, ['1872']);
    expect(lit()).toEqual(['1872']);
  });

  test('one of them is shown apart from the others, the first again after the last', () => {
    lightWords(document.body, ['gate']);
    showHit(document.body, 3);
    const shown = [...document.querySelectorAll('mark')].map((m) => /outline/.test(m.getAttribute('style') ?? ''));
    expect(shown).toEqual([true, false, false]);
  });
});
