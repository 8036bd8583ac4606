/**
 * Series of law reports and courts by their abbreviations. Facts of the trade (common practice), from memory; a series that
 * is not here is printed as the style prints it.
 */

/**
 * `square`: the year finds the volume ("[1932] AC 562"); `round`: it dates the case ("(1992) 175 CLR 1"); `behind`: it
 * dates the case and stands last ("347 U.S. 483 (1954)").
 */
export type YearForm = 'square' | 'round' | 'behind';

const words = (text: string): Set<string> => new Set(text.split(/\s+/));

/** Volumes begin anew each year, or the year is the volume. */
const BY_YEAR = words(
  'AC APP QB KB CH PROB P FAM WLR ALLER ICR IRLR BCLC BCC FSR RPC LGR ECR CMLR ECC VR QDR SCR NZLR IR ILRM WWR LLOYDSREP SLT SCLR NI TLR STC TC RTR HLR PLR CRIMLR EMLR',
);
/** Volumes are counted through. */
const COUNTED = words(
  'CLR ALR FLR FCR NSWLR SASR WAR TASR OR DLR DLR2D DLR3D DLR4TH OR2D OR3D BCLR EHRR QBD CHD PD LR ER LT JP CR CCC CR3D CCC3D NR NBR2D NSR2D FC',
);
/** Volumes of the United States, counted through. */
const AMERICAN = words(
  'US SCT LED LED2D F F2D F3D F4TH FSUPP FSUPP2D FSUPP3D NY NY2D NY3D NE NE2D NE3D NW NW2D SE SE2D SO SO2D SO3D SW SW2D SW3D A A2D A3D P2D P3D CAL CAL2D CAL3D CAL4TH MASS ILL ILL2D WIS WIS2D NJ PA',
);
/** Both, at different times, or neither: nothing is said of them. */
const OTHERS = words('SC CRAPPR APPCAS EWLR');

/** What an abbreviation is compared by: without full stops, blanks and the like. */
const plain = (abbreviation: string): string => abbreviation.toUpperCase().replace(/[^A-Z0-9]/g, '');

export const isReportSeries = (abbreviation: string): boolean => isKnown(plain(abbreviation));
const isKnown = (name: string): boolean =>
  /^LR\d/.test(name) || [BY_YEAR, COUNTED, AMERICAN, OTHERS].some((set) => set.has(name));

/** The first year whose reports are found by it: "[1891] AC". */
const FIRST_OF_THE_YEAR = 1891;

/**
 * How the year stands beside a report.
 * @param volume as the record has it
 * @returns undefined where the series is not known
 */
export function yearOf(series: string, volume: string | undefined, year: number | undefined): YearForm | undefined {
  const name = plain(series);
  if (AMERICAN.has(name)) return 'behind';
  if (/^LR\d/.test(name) || (year && year < FIRST_OF_THE_YEAR)) return 'round';
  if (COUNTED.has(name)) return volume ? 'round' : 'square';
  // No year has so many volumes: one of before the series began to count anew.
  return BY_YEAR.has(name) ? (Number(volume ?? 0) > 30 ? 'round' : 'square') : undefined;
}

/** Courts that number their judgments themselves: "[2015] UKSC 12", "2008 SCC 9". */
const NUMBERING =
  /^(?:UK(?:SC|HL|PC|UT|FTT|EAT)|EW(?:CA|HC|COP|FC)|NI(?:CA|KB|QB|CH)|CS(?:IH|OH)|HCJAC|IE(?:SC|CA|HC)|NZ(?:SC|CA|HC)|HCA|FCA|FCAFC|FAMCA|NT(?:SC|CA)|NSW(?:SC|CA|CCA)|VS(?:C|CA)|Q(?:SC|CA)|WAS(?:C|CA)|SAS(?:C|CFC)|TASSC|ACTSC|SCC|FCA?|(?:ON|BC|AB|SK|MB|QC|NB|NS|PE|NL)(?:CA|SC|QB|KB|CJ)|ZA(?:CC|SCA)|SG(?:CA|HC)|HK(?:CFA|CA))(?:CIV|CRIM|ADMIN|CH|QB|KB|COMM|FAM|TCC|PAT|IPEC|AAC|LC|TC|IAC)?$/;
const CANADIAN = /^(?:SCC|FCA?|(?:ON|BC|AB|SK|MB|QC|NB|NS|PE|NL)(?:CA|SC|QB|KB|CJ))$/;

/** Whether an abbreviation is that of a court which numbers its judgments. */
export const isCourt = (abbreviation: string): boolean => NUMBERING.test(plain(abbreviation));

/** The year before a court's own number: without brackets in Canada. */
export const yearBeforeNumber = (court: string, year: number | string): string =>
  CANADIAN.test(plain(court)) ? String(year) : `[${year}]`;

const SUPREME_COURT = /^(?:u\.?\s?s\.?|scotus|(?:u\.?s\.? )?supreme court.*)$/i;
/** Series that report one court only: readers know the court from the series, so guides omit it. */
const OF_ONE_COURT: Record<string, RegExp> = {
  US: SUPREME_COURT,
  SCT: SUPREME_COURT,
  LED: SUPREME_COURT,
  CLR: /^(?:hca|high court.*)$/i,
  SCR: /^(?:scc|supreme court.*)$/i,
};

/** Whether the series says by itself that this court decided. */
export const courtOfSeries = (series: string, court: string): boolean =>
  OF_ONE_COURT[plain(series).replace(/2D$/, '')]?.test(court.trim()) ?? false;
