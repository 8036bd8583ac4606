import type { Rule } from '../rule.ts';

const RANGE = /^\s*(\p{L}{0,2})(\d+)\s*[-–—−]{1,2}\s*(\p{L}{0,2})(\d+)\s*$/u;

export const pages: Rule = {
  id: 'pages',
  severity: 'wrong',
  title: 'Pages that run backwards',
  why: 'The last page cannot come before the first.',
  find({ record: { page } }) {
    const m = RANGE.exec(page ?? '');
    if (!m || m[1] !== (m[3] || m[1])) return [];
    const [from, to] = [m[2]!, m[4]!];
    if (Number(to) >= Number(from)) return [];
    // "123-9" is 123 to 129; "311-27" is 311 to 327.
    const whole = to.length < from.length ? from.slice(0, from.length - to.length) + to : to;
    if (Number(whole) >= Number(from)) return [];
    const turned = to.length === from.length ? { mend: { page: `${m[1]}${to}-${m[1]}${from}` } } : {};
    return [{ field: 'page', what: `Pages ${page} run backwards`, sure: turned.mend ? 0.85 : 0.95, ...turned }];
  },
};
