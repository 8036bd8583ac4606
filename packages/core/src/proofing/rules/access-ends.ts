import { dateShort, lastDayOf } from '../../source/index.ts';
import type { Rule } from '../rule.ts';

const NEAR_DAYS = 30;
const DAY_MS = 86_400_000;

export const accessEnds: Rule = {
  id: 'access-ends',
  severity: 'look',
  title: 'Access ends soon',
  why: 'What one still needs of it has to be read and noted before.',
  find({ record, today }) {
    const until = record['access-until'];
    const last = lastDayOf(until);
    if (!last || !today) return [];
    const days = Math.round((Date.parse(last) - Date.parse(today)) / DAY_MS);
    if (days > NEAR_DAYS) return [];
    return [{ field: 'access-until', what: `Access ${days < 0 ? 'ended' : 'ends'} ${dateShort(until)}`, sure: 1 }];
  },
};
