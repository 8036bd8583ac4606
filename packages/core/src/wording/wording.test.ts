import { expect, test } from 'vitest';
import { counted, formatDate, formatNumber } from './index.ts';

test('numbers have their thousands apart, and one thing is not called many', () => {
  expect([formatNumber(7), formatNumber(1204), formatNumber(-3_000_000)]).toEqual(['7', '1,204', '-3,000,000']);
  expect(formatNumber(undefined)).toBe('');
  expect([counted(1, 'mark'), counted(0, 'mark'), counted(1204, 'mark'), counted(2, 'entry', 'entries')]).toEqual([
    '1 mark',
    '0 marks',
    '1,204 marks',
    '2 entries',
  ]);
});

test('a day is written as it is needed where it stands', () => {
  const at = new Date(2026, 10, 29, 12).getTime();
  expect(formatDate(at)).toBe('29 November 2026');
  expect(
    (['short', 'weekday', 'this year', 'this week', 'month', 'minute', 'time'] as const).map((as) =>
      formatDate(at, as),
    ),
  ).toEqual([
    '29 Nov 2026',
    'Sunday, 29 November 2026',
    '29 November',
    'Sunday',
    'November 2026',
    '29 Nov 2026, 12:00',
    '12:00',
  ]);
  expect(formatDate(new Date(at).toISOString())).toBe(formatDate(at));
});
