import { expect, test } from 'vitest';
import { englishWords } from './index.ts';

const { isCommon, isName, isPlain } = englishWords();

test.each(['gate', 'estuaries', 'colour', 'morphodynamics', 'eutrophication', 'saltmarsh', 'biogeochemical'])(
  '%s is a word',
  (word) => {
    expect(isCommon(word)).toBe(true);
  },
);

test.each(['donald', 'prague', 'stanford', 'bayesian', 'zambezi'])('%s is a name', (word) => {
  expect([isName(word), isCommon(word)]).toEqual([true, false]);
});

test('what is both is told by how plain it is', () => {
  expect([isName('brown'), isPlain('brown')]).toEqual([true, true]);
  expect([isName('robert'), isPlain('robert')]).toEqual([true, false]);
});
