/**
 * What styles do not say of cases: a court's own number in place of a report ("[2015] UKSC 12"), and the other reports of a
 * case (parallel citations). Styles differ in which variables they print; each is tried once with a case nobody has, and
 * what it would leave out, or say twice, is given to it in the way it prints.
 */
import type { SourceRecord } from '../source/index.ts';

/** What a style prints of a case. */
export interface LawForms {
  /** A number by itself, with its court, where there is no report. */
  number: boolean;
  /** All that stands in the field of pages, and not only the first of them. */
  wholePage: boolean;
}

export const TRIED = {
  number: {
    type: 'legal_case',
    title: 'Aa v Bb',
    number: '7319',
    authority: 'ZZQ',
    issued: { 'date-parts': [[1907]] },
  },
  page: { type: 'legal_case', title: 'Aa v Bb', 'container-title': 'QQR', volume: '3', page: '7310, 5 XXJ 4', issued: { 'date-parts': [[1907]] } }, // prettier-ignore
} as const satisfies Record<string, SourceRecord>;

/** @param print what the style makes of a record, as text: in the list and in the text */
export const lawForms = (print: (record: SourceRecord) => string): LawForms => {
  const number = print(TRIED.number);
  return {
    number: number.includes('7319') && number.includes('ZZQ'),
    wholePage: print(TRIED.page).includes('XXJ'),
  };
};

/** The neutral citation of a case: the court and its number. Older records hold them as report and page. */
function ownNumber({
  number,
  page,
  volume,
  authority,
  'container-title': report,
}: SourceRecord): [court: string, number: string] | undefined {
  if (!number || volume) return undefined;
  if (!report && !page && authority) return [authority, number];
  return report && page === number && !isReportSeries(report) ? [report, number] : undefined;
}

/** The fields of a case as the style prints them; the others stand as they are. */
export function caseFor(record: SourceRecord, forms: LawForms): SourceRecord {
  if (record.type !== 'legal_case') return record;
  const own = ownNumber(record);
  const { number, ...rest } = record;
  if (own) {
    const { 'container-title': _, page: __, authority, ...bare } = rest;
    const [court, of] = own;
    return forms.number
      ? { ...bare, authority: court, number: of }
      : { ...bare, 'container-title': court, page: of, ...(authority && authority !== court && { authority }) };
  }
  // Kept as number and as page, as it was read once: a report is found by its page.
  const single = number && number === record.page ? rest : record;
  const { page, parallel } = record;
  return parallel && forms.wholePage ? { ...single, page: [page, parallel].filter(Boolean).join(', ') } : single;
}

/**
 * The other reports of cases behind their first one, where the style prints no more than the first page.
 * @returns the text with them, and the ids of those for which the style left no place
 */
export function withParallel(
  html: string,
  cases: { id: string; record: SourceRecord }[],
  forms: LawForms,
): { html: string; missing: string[] } {
  const missing: string[] = [];
  for (const { id, record } of cases) {
    const { type, parallel, page } = record;
    if (type !== 'legal_case' || !parallel || forms.wholePage) continue;
    const report = record['container-title-short'] ?? record['container-title'];
    const first = /^\d+/.exec(page ?? '')?.[0];
    const [before, behind] = first && report ? parted(html, report, first) : [];
    if (before === undefined) missing.push(id);
    else html = `${before}, ${escaped(parallel)}${behind}`;
  }
  return { html, missing };
}

/** Parts the text behind the first page of a report. */
function parted(html: string, report: string, page: string): [string, string] | [] {
  const literally = escaped(report).replace(/[.*+?^${}()|[\]\\]/g, '\\$&');
  const found = new RegExp(`${literally}(?:\\s|<[^<>]*>|[.,])+${page}(?!\\d)`, 'u').exec(html);
  if (!found) return [];
  const at = found.index + found[0].length;
  return [html.slice(0, at), html.slice(at)];
}

const escaped = (text: string): string =>
  text.replaceAll('&', '&#38;').replaceAll('<', '&#60;').replaceAll('>', '&#62;');

/**
 * Series of reports whose abbreviation looks like a court's (common practice, from memory): "[1932] AC 562" stands in the
 * Appeal Cases, while "[2015] UKSC 12" is the court's own number.
 */
const SERIES = new Set(
  'AC APP QB QBD KB CH CHD PD PROB FAM WLR ER ALLER ICR IRLR BCLC BCC FSR RPC LGR ECR CMLR EHRR ECC CLR ALR FLR FCR NSWLR VR SASR WAR QDR TASR SCR OR DLR WWR BCLR NZLR IR ILRM SC SLT SCLR NI LR TLR LT JP STC TC CR RTR FLR HLR PLR EWLR'.split(
    ' ',
  ),
);

export const isReportSeries = (abbreviation: string): boolean =>
  SERIES.has(abbreviation.toUpperCase().replace(/[^A-Z]/g, ''));
