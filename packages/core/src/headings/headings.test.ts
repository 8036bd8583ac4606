import { expect, test } from 'vitest';
import { namesAlike, nameKey } from './index.ts';

test('names of one person in other forms may be the same; what contradicts is another person', () => {
  const pairs: [string, string, string][] = [
    ['Okonjo, Elias', 'Elias Okonjo', 'same'],
    ['Okonjo, Elias', 'OKONJO, Elias', 'same'],
    ['Vance, Inés', 'Vance, Ines', 'same'],
    ['Okonjo, Elias', 'Okonjo, E.', 'perhaps'],
    ['Okonjo, E. B.', 'Okonjo, Elias', 'perhaps'],
    ['Okonjo, E.B.', 'Okonjo, E. C.', 'different'],
    ['Okonjo, Elias', 'Okonjo', 'perhaps'],
    ['Okonjo, Elias', 'Okonjo, Edith', 'different'],
    ['Okonjo, Elias', 'Tregenza, Elias', 'different'],
    ['Penhallow, Jonas, Jr.', 'Penhallow, Jonas', 'perhaps'],
    ['van der Berg, Anna', 'Anna van der Berg', 'same'],
  ];
  for (const [a, b, is] of pairs) {
    expect([a, b, namesAlike(a, b)]).toEqual([a, b, is]);
    expect([b, a, namesAlike(b, a)]).toEqual([b, a, is]);
  }
  expect(nameKey('Société d’Études')).toBe('societe d etudes');
});
