import { expect, test } from 'vitest';
import { renamed } from './names.ts';

test('of a name the ending of its kind is replaced, and a dot that belongs to the name stays', () => {
  expect(['scan_014.JPEG', 'Box 4, No.12', 'report.final.pdf', 'plan'].map((name) => renamed(name, '.pdf'))).toEqual(
    ['scan_014.pdf', 'Box 4, No.12.pdf', 'report.final.pdf', 'plan.pdf'], // prettier-ignore
  );
});
