/**
 * Cases and statutes as they are cited: parties, year, volume, report, page, court, pinpoint. The forms are those the law's
 * own guides to citation share (common practice): the year in square brackets finds the volume, in round ones it dates it.
 */
import { parseDate, type SourceRecord } from '../source/index.ts';
import { isReportSeries, readReports, reportsToText, type Report } from '../law/index.ts';
import type { Slate } from './spans.ts';

const REPORT = String.raw`(?<report>\p{Lu}[\p{L}.&' ]*?(?:\((?:[A-Z][\w. ]*)\))?)`;
const PARTIES = String.raw`^(?<title>(?:(?:Re|In re|Ex parte|R|The)\s+)?[^\u0000\[\]()]{1,160}?\sv\.?\s[^\u0000\[\]]{1,160}?|(?:In re|Re|Ex parte|In the matter of)\s[^\u0000\[\](),]{2,120}),?\s+`;
const COURT = String.raw`(?:,?\s*\((?<court>[^()\d]{2,60})\))?`;
// A number with a series behind it is the volume of another report.
const PINPOINT = String.raw`(?:,?\s*(?:at\s+)?(?<pin>(?:\d+(?:[-–]\d+)?(?!\d|\s+\p{Lu})|\[\d{1,3}\](?:[-–]\[\d{1,3}\])?)))?`;

const CASES = [
  // [1987] 2 Est R 114 (Ct App), 120; [2009] NCA 12
  String.raw`\[(?<year>\d{4})\]\s+(?:(?<volume>\d{1,3})\s+)?${REPORT}\s+(?<page>\d{1,5})${COURT}${PINPOINT}`,
  // (1987) 12 Est R 114 (Ct App)
  String.raw`\((?<year>\d{4})\)\s+(?:(?<volume>\d{1,3})\s+)?${REPORT}\s+(?<page>\d{1,5})${COURT}${PINPOINT}`,
  // 12 Est. R. 114, 120 (Ct. App. 1987)
  String.raw`(?<volume>\d{1,4})\s+${REPORT}\s+(?<page>\d{1,5})(?:,\s*(?<pin>\d+(?:[-–]\d+)?)(?!\d|\s+\p{Lu}))?(?:,\s*(?<parallel>\d{1,4}\s+\p{Lu}[^()\[\]]{2,80}?\s\d{1,5}))?\s*\((?<court>[^()\d]{0,60}?)\s*(?:[A-Z][a-z]{2,8}\.?\s+\d{1,2},\s+)?(?<year>\d{4})\)`,
];
const NAMED = CASES.map((c) => new RegExp(PARTIES + c, 'du'));
const UNNAMED = CASES.map((c) => new RegExp(`^${c}$`, 'u'));

const STATUTE =
  /^(?<title>(?:The\s+)?\p{Lu}[^\u0000.]{2,140}?\b(?:Act|Code|Ordinance|Regulations?|Rules|Order|Directive|Statute)(?:\s+\([^)]+\))?),?\s+(?<year>1[2-9]\d\d|20\d\d)(?:,?\s+(?<section>(?:ss?|sch|reg|art|c)\.?\s*[\dA-Z][\w().-]*))?/du;

/** Where a case stands, without who its parties are: "[1987] 2 Est R 114". */
export function readCitation(text: string): SourceRecord | undefined {
  for (const pattern of UNNAMED) {
    const found = pattern.exec(text.replace(/\s+/g, ' ').trim())?.groups;
    if (found) return caseAt(found, text);
  }
  return undefined;
}

type CaseParts = Partial<Record<'year' | 'volume' | 'report' | 'page' | 'court', string | undefined>>;

function caseAt({ year, volume, report = '', page, court }: CaseParts, text: string): SourceRecord {
  // A neutral citation has the court where other citations have the report series: "[2009] NCA 12". If the court is
  // named separately, it is a report series: "[1932] AC 562 (HL)".
  const looksLikeCourt = !volume && !court && /^[A-Z]{2,7}(?: \(?[A-Z][a-z]*\)?)?$/.test(report);
  const neutral = looksLikeCourt && !isReportSeries(report) && /\[\d{4}\]/.test(text);
  return {
    type: 'legal_case',
    ...(year && { issued: parseDate(year)! }),
    ...(volume && { volume }),
    'container-title': report,
    ...(page && (neutral ? { page, number: page } : { page })),
    ...(court && { authority: court }),
  };
}

const withoutCourt = ({ authority: _, ...rest }: Report): Report => rest;

/** What follows the first report of a case, if it is reports and nothing else. */
function otherReports(slate: Slate): string | undefined {
  const start = slate.left.lastIndexOf('\u0000') + 1;
  const rest = /^[\s,;]+(\S[\s\S]*?)[\s.]*$/.exec(slate.left.slice(start));
  if (!rest || !readReports(rest[1]!).every((report) => report.page)) return undefined;
  const from = start + rest[0].indexOf(rest[1]!);
  return slate.take('parallel', from, from + rest[1]!.length);
}

/** Reads a case or a statute, or nothing where it is neither. */
export function readLaw(slate: Slate): SourceRecord | undefined {
  for (const pattern of NAMED) {
    const found = slate.match(pattern, {
      title: 'title',
      year: 'issued',
      volume: 'volume',
      report: 'container-title',
      page: 'page',
      court: 'authority',
      parallel: 'parallel',
    });
    if (!found?.title) continue;
    const { title, issued, volume, page } = found;
    const parallel = found.parallel ?? otherReports(slate);
    const others = parallel ? readReports(parallel) : [];
    // The court stands behind the last report, and is that of the case.
    const court = found.authority ?? others.at(-1)?.authority;
    const reports = others.map((r) => (r.authority === court ? withoutCourt(r) : r));
    return {
      title,
      ...caseAt({ year: issued, volume, report: found['container-title'], page, court }, slate.text),
      ...(reports.length && { parallel: reportsToText(reports) }),
    };
  }
  const act = slate.match(STATUTE, { title: 'title', year: 'issued', section: 'section' });
  if (!act?.title) return undefined;
  return {
    type: /Regulation|Rules|Order/.test(act.title) ? 'regulation' : 'legislation',
    title: act.title,
    ...(act.issued && { issued: parseDate(act.issued)! }),
    ...(act.section && { section: act.section.replace(/^s{1,2}\.?\s*/, '') }),
  };
}
