/** The dates of an entry: `date` of BibLaTeX, and `year`, `month` and `day` as people fill them in. */
import { isBackward, monthOf, parseDate, seasonOf, type DateValue } from '../../source/index.ts';
import { latexToText, type Reading } from '../latex/index.ts';
import type { Tell } from './entry.ts';
import type { Fields } from './inherit.ts';

/** A date in EDTF, where a tilde says "about"; any other is LaTeX. */
export function dateOf(raw: string, reading: Reading): DateValue | undefined {
  // A set of EDTF stands in braces of its own, as does a date braced twice.
  const edtf = /^[\dXYES~?%/.,: T{}[\]-]+$/.test(raw) && !/--|^\{[^,.]*\}$/.test(raw.trim());
  return parseDate(edtf ? raw : latexToText(raw, reading));
}

/** Reads the date of issue; what it does not take of the fields goes to `kept`. */
export function readIssued(
  fields: Fields,
  reading: Reading,
  kept: Record<string, string>,
  tell: Tell,
): DateValue | undefined {
  const date = fields.get('date');
  const year = fields.get('year');
  const dated = date && dateOf(date.value, reading);
  if (date && (dated?.['date-parts'] || !year)) {
    if (!dated?.['date-parts']) tellUnclear(date.value, reading, 'date', tell);
    for (const name of ['year', 'month', 'day']) if (fields.has(name)) kept[name] = fields.get(name)!.value;
    return dated;
  }
  if (date) kept.date = date.value;
  const month = fields.get('month');
  const day = fields.get('day');
  if (!year) {
    for (const [name, field] of [
      ['month', month],
      ['day', day],
    ] as const)
      if (field) kept[name] = field.value;
    return undefined;
  }
  const issued = yearOf(year.value, reading, kept);
  if (issued?.literal) tellUnclear(year.value, reading, 'year', tell);
  if (!month && !day) return issued;
  const parts = issued?.['date-parts'];
  const whole = parts?.length === 1 && parts[0]!.length === 1 && issued!.edtf === undefined;
  const finer = whole && month ? withMonth(parts[0]![0]!, month.value, day?.value, reading) : undefined;
  if (month && !finer) kept.month = month.value;
  if (day && !finer?.day) kept.day = day.value;
  return finer ? { ...issued, ...finer.date } : issued;
}

/** Says so when the text is an interval that ends before it begins. */
export function tellBackward(text: string, field: string, tell: Tell): boolean {
  if (!isBackward(text)) return false;
  tell('backward-interval', `The interval “${text}” (${field}) ends before it begins`, 'kept as it stands');
  return true;
}

function tellUnclear(raw: string, reading: Reading, field: string, tell: Tell): void {
  const text = latexToText(raw, reading);
  if (!tellBackward(text, field, tell))
    tell('unclear-date', `The date “${text}” (${field}) could not be read`, 'kept as it stands', 'info');
}

/** The year, also with the letter that tells works of one year apart: that is kept aside. */
function yearOf(raw: string, reading: Reading, kept: Record<string, string>): DateValue | undefined {
  const date = dateOf(raw, reading);
  const lettered = date?.literal && /^(\d{4})[a-z]$/.exec(date.literal);
  if (!lettered) return date;
  kept.year = raw;
  return parseDate(lettered[1]!);
}

/** A year with its month, season or days: "Winter", "June--July", "29 February", a day of "8--9". */
function withMonth(
  year: number,
  month: string,
  day: string | undefined,
  reading: Reading,
): { date: DateValue; day: boolean } | undefined {
  const text = latexToText(month, reading)
    .replace(/\u00A0/g, ' ')
    .replace(/^[\s,(]+|[\s,)]+$/g, '');
  const season = seasonOf(text) || (/^2[1-4]$/.test(text) ? Number(text) - 20 : 0);
  if (season) return { date: { 'date-parts': [[year]], season }, day: false };
  const found = text.match(/\p{L}+|\d+/gu) ?? [];
  const months = found.map(monthOf).filter(Boolean);
  const numbers = found.filter((f) => /^\d{1,2}$/.test(f)).map(Number);
  if (!months.length) months.push(...numbers.splice(0, /^\d+\s*[–/-]+\s*\d+$/.test(text) ? 2 : 1));
  const days = numbers.length ? numbers : (latexToText(day ?? '', reading).match(/\d{1,2}/g) ?? []).map(Number);
  const parts = [months[0]!, months[1] ?? months[0]!].map((m, i) =>
    [m, days[i] ?? days[0]].filter((n) => n !== undefined),
  );
  const [from, to] = parts.map((p) => validDay(year, p));
  if (!from || !to || months.length > 2) return undefined;
  const interval = months.length === 2 || (days.length > 1 && from.length === 3);
  if (interval && from.join() !== to.join()) {
    if (isBackward(`${iso(from)}/${iso(to)}`)) return undefined;
    return { date: { 'date-parts': [from, to] }, day: from.length === 3 };
  }
  return { date: { 'date-parts': [from] }, day: from.length === 3 };
}

const iso = (parts: number[]): string => parts.map((n, i) => String(n).padStart(i ? 2 : 4, '0')).join('-');

/** [year, month, day], without a day the month does not have; nothing when there is no such month. */
function validDay(year: number, [month, day]: number[]): number[] | undefined {
  if (!month || month > 12) return undefined;
  const full = day ? [Math.abs(year), month, day] : undefined;
  return full && parseDate(iso(full))?.['date-parts'] ? [year, month, day!] : [year, month];
}
