/**
 * The other reports of a case: one text in the record (`parallel`), as it is printed behind the first report, and a list of
 * fields. "[1987] 2 WLR 30, 33 (CA); 26 DLR (4th) 200" and its like are read; what is not is one report "as written".
 */

/** One report; fields have CSL's names where CSL has them. Text that cannot be parsed is kept whole in `container-title`. */
export interface Report {
  /** With its brackets: "[1987]" finds the volume, "(1987)" dates the case. */
  year?: string;
  volume?: string;
  'container-title'?: string;
  page?: string;
  /** The page or paragraph that is meant: "33", "[12]". */
  locator?: string;
  authority?: string;
}

const SERIES = String.raw`\p{Lu}[\p{L}\d.&'’ ]*?(?: ?\((?:\d(?:st|nd|rd|th|d)|\p{Lu}[\p{L}. ]*)\))?`;
const REPORT = new RegExp(
  String.raw`^(?:(?<year>\[\d{4}\]|\(\d{4}\)|\d{4}) )?(?:(?<volume>\d{1,4}) )?(?<series>${SERIES}) (?<page>\d{1,6}(?:[-–]\d{1,6})?)` +
    String.raw`(?:,? (?:at )?(?<locator>\d{1,5}(?:[-–]\d{1,5})?|\[\d{1,4}\](?:[-–]\[\d{1,4}\])?))?(?: \((?<court>[^()]{1,80})\))?$`,
  'u',
);
/** Where another report may begin behind a comma: with its year, or its volume and a series. */
const NEXT = /,\s*(?=\[\d{4}\]|\(\d{4}\)|\d{1,4} \p{Lu})/u;

/** The reports a text tells of, in its order. */
export function readReports(text: string): Report[] {
  return text
    .split(/[;\n]/)
    .map((one) => one.replace(/\s+/g, ' ').trim())
    .filter(Boolean)
    .flatMap((one) => {
      const reports = one.split(NEXT).map((part) => readReport(part.trim()));
      return reports.every((r) => r.page) ? reports : [readReport(one)];
    });
}

function readReport(text: string): Report {
  const found = REPORT.exec(text)?.groups;
  if (!found) return { 'container-title': text };
  const { year, volume, series, page, locator, court } = found;
  return {
    ...(year && { year }),
    ...(volume && { volume }),
    ...(series && { 'container-title': series }),
    ...(page && { page }),
    ...(locator && { locator }),
    ...(court && { authority: court }),
  };
}

function reportToText(report: Report): string {
  const { year, volume, 'container-title': series, page, locator, authority } = report;
  const place = [year, volume, series, page].filter(Boolean).join(' ');
  return [[place, locator].filter(Boolean).join(', '), authority && `(${authority})`].filter(Boolean).join(' ');
}

/** @param between what stands between two: "; " in the record, ", " in print */
export const reportsToText = (reports: readonly Report[], between = '; '): string =>
  reports.map(reportToText).filter(Boolean).join(between);
