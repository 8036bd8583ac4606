import type { Found, Rule } from '../rule.ts';

/** Two reports in one: "[1987] 2 Est R 114; [1987] NCA 12". */
const PARALLEL = /\d.*[;,=]\s*(?:\[\d{4}\]|\(\d{4}\)|\d+\s\p{Lu})/u;

export const lawParts: Rule = {
  id: 'law-parts',
  severity: 'wrong',
  title: 'Case cited in one field',
  why: 'Styles of law print report, volume, page and pinpoint each in its place.',
  find({ record: r }) {
    if (r.type !== 'legal_case') return [];
    const out: Found[] = [];
    const report = r['container-title'] ?? '';
    if (PARALLEL.test(report))
      out.push({ field: 'container-title', what: `“${report}” holds a parallel citation`, sure: 0.9 });
    else if (/\d/.test(report))
      out.push({ field: 'container-title', what: `“${report}” holds volume or page`, sure: 0.85 });
    const pin = /^(\d+)\s*(?:,|at)\s*(?:p\.?\s*)?(\d+|\[\d+\])$/.exec(r.page ?? '');
    if (pin)
      out.push({ field: 'page', what: `“${r.page}” is a page and a pinpoint`, sure: 0.92, mend: { page: pin[1]! } });
    return out;
  },
};
