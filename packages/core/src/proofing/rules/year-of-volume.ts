import { yearOf } from '../../source/index.ts';
import { short, type Rule } from '../rule.ts';

export const yearOfVolume: Rule = {
  id: 'year-of-volume',
  severity: 'look',
  title: 'Year other than its volume is of',
  why: 'Other works of the journal say when the volume came out: volume or year is a slip.',
  find({ record, among }) {
    const year = yearOf(record.issued);
    const expected = among?.yearOfVolume(record);
    if (year === undefined || expected === undefined || Math.abs(expected - year) <= 1) return [];
    const container = short(record['container-title']!);
    return [{ field: 'issued', what: `Volume ${record.volume} of “${container}” is of ${expected} in other records, here of ${year}`, sure: 0.6 }]; // prettier-ignore
  },
};
