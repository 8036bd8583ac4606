/**
 * Takes apart what is typed or pasted: each part goes its own way, and all of the text that has a letter or a digit is of
 * some part.
 */
import { detectFormat } from '../formats/detect.ts';
import {
  findArxivIds,
  findDois,
  isbn10Check,
  isbn13Check,
  normaliseIsbn,
  normaliseIssn,
  normalisePmcid,
} from '../identifiers/index.ts';
import type { SourceRecord } from '../source/index.ts';
import { shortBlanks } from '../text/index.ts';
import { looksLikeReference, readCitation, splitReferences } from '../references/index.ts';

export const PART_KINDS = [
  'records',
  'doi',
  'isbn',
  'pmid',
  'pmcid',
  'arxiv',
  'issn',
  'citation',
  'link',
  'reference',
  'text',
] as const;
export type PartKind = (typeof PART_KINDS)[number];

export interface DoorPart {
  kind: PartKind;
  /** As it was typed. */
  text: string;
  start: number;
  /** An identifier in its normal form. */
  value?: string;
  /** What more it says of the work: where in a journal it stands, or in a report of cases. */
  says?: Partial<SourceRecord>;
  /** What is wrong with it: "check digit wrong: it would be 4". */
  wrong?: string;
}

/** More than this is a file, and comes in as one; in UTF-16 units. */
export const MOST_TYPED = 400_000;

interface Found {
  part: Omit<DoorPart, 'start'>;
  start: number;
  end: number;
}

export function takeApart(typed: string): DoorPart[] {
  const text = shortBlanks(typed);
  const format = detectFormat(text);
  if (format) return [{ kind: 'records', text, start: 0 }];
  const out: DoorPart[] = [];
  let prose = { start: 0, text: '' };
  const endProse = (): void => {
    for (const piece of splitReferences(prose.text)) out.push(...partsOfPiece(piece.text, prose.start + piece.start));
    prose = { start: 0, text: '' };
  };
  for (const m of text.matchAll(/[^\n]*(?:\n|$)/g)) {
    if (!m[0]) continue;
    const found = identifiersIn(m[0]);
    if (found.length && !lettersBeside(m[0], found)) {
      endProse();
      out.push(...found.map(({ part, start }) => ({ ...part, start: m.index + start })));
      continue;
    }
    if (!prose.text) prose = { start: m.index, text: '' };
    prose.text += m[0];
  }
  endProse();
  return once(out);
}

/** A piece of prose: a reference with what it holds, or what can be told of it, or a text left for the person. */
function partsOfPiece(text: string, start: number): DoorPart[] {
  const found = identifiersIn(text);
  // A sentence that begins small and cites cases is none of their references.
  const tells = /^\s*\p{Ll}/u.test(text) && found.some((f) => f.part.kind === 'citation');
  if (!tells && looksLikeReference(text)) return [{ kind: 'reference', text, start }];
  if (found.length) return found.map((f) => ({ ...f.part, start: start + f.start }));
  return /[\p{L}\p{N}]/u.test(text) ? [{ kind: 'text', text, start }] : [];
}

/** An identifier, a link or a reference stands for one thing, however often it is said. */
export function once(parts: DoorPart[]): DoorPart[] {
  const seen = new Set<string>();
  return parts.filter((p) => {
    if (p.kind === 'text' || p.kind === 'records') return true;
    const value = p.value ?? p.text;
    // Capitals and small letters make no difference in a DOI.
    const key = `${p.kind} ${p.kind === 'doi' ? value.toLowerCase() : value} ${p.says?.volume ?? ''} ${p.says?.page ?? ''}`;
    return seen.has(key) ? false : seen.add(key);
  });
}

const NAMES_OF_IDENTIFIERS = /\b(?:doi|isbn|issn|pmid|pmcid|arxiv|e?issn|and|see|vol|pp?)\b|\b1[03]\b/gi;

/** Whether a line says more than the identifiers in it. */
function lettersBeside(line: string, found: Found[]): boolean {
  let rest = line;
  for (const { start, end } of found.toSorted((a, b) => b.start - a.start))
    rest = rest.slice(0, start) + ' ' + rest.slice(end);
  return (rest.replace(NAMES_OF_IDENTIFIERS, '').match(/\p{L}{2,}/gu)?.length ?? 0) > 0;
}

const URL = /\b(?:https?:\/\/|www\.)[^\s<>"“”|]+[^\s<>"“”|.,;:!?)\]'’]/gi;
const DOI = /(?:https?:\/\/(?:dx\.)?doi\.org\/|\bdoi:\s*)?\b10\.\d{4,9}(?:\.\d+)*\/[^\s"“”|]+/gi;
const ARXIV =
  /(?:\barXiv:\s*|https?:\/\/arxiv\.org\/(?:abs|pdf)\/)(?:\d{4}\.\d{4,5}|[a-z-]+(?:\.[A-Z]{2})?\/\d{7})(?:v\d+)?/gi;
const PMCID = /\bPMC\d{3,9}\b/gi;
const PMID = /\bPMID:?\s*(\d{1,8})\b|^\s*(\d{7,8})\s*$/gi;
const ISBN =
  /(?:\bISBN(?:-1[03])?:?\s*)?(?<![\d./-])(?:97[89][\s-]?(?:\d[\s-]?){9}[\d?X]|(?:(?<=ISBN(?:-10)?:?\s*)|(?=\d{1,5}-\d{1,7}-\d{1,6}-[\dX]))(?:\d[\s-]?){9}[\dX?])(?![\d-])/gi;
/** With volume, issue and page behind it, where they are: "1050-124X 41(3), 311", "ISSN 1050-124X, vol. 41, no. 3, p. 311". */
const ISSN =
  /(?:\be?ISSN:?\s*)?(?<![\d/-])\d{4}[-‐–]\d{3}[\dX](?![\d-])(?:[,;:\s]{1,3}(?:vol(?:ume|\.)?\s*)?(?<volume>\d{1,4})(?:\s*\((?<issue>[\w/–-]{1,8})\)|,?\s*(?:no|issue|nr)\.?\s*(?<number>[\w/–-]{1,8}))?[,:;\s]{1,3}(?:pp?(?:ages?)?\.?\s*)?(?<page>[A-Za-z]?\d{1,6})(?:\s?[-–]\s?\d{1,6})?(?![\d-]))?/gi;

/** A court's own number, or a report of cases, without its parties: "[2009] NCA 12", "(1987) 12 Est R 114", "12 Est. R. 114 (1987)". */
const CITATION =
  /[[(](?:1[5-9]|20)\d\d[\])]\s+(?:\d{1,3}\s+)?\p{Lu}[\p{L}.&']*(?:\s(?:\p{Lu}[\p{L}.&']*|\(\p{L}[\p{L} ]{1,12}\))){0,5}\s+\d{1,5}(?!\d)(?:\s*\(\p{Lu}[^()\d]{1,40}\))?|(?<![\d.])\d{1,4}\s+\p{Lu}[\p{L}.&']*(?:\s\p{Lu}[\p{L}.&']*){0,4}\s+\d{1,5}\s*\((?:\p{Lu}[^()\d]{0,40}\s)?(?:1[5-9]|20)\d\d\)/gu;

/** The identifiers and links in a text, in their order, each once. */
export const findIdentifiers = (text: string): DoorPart[] =>
  once(identifiersIn(text).map(({ part, start }) => ({ ...part, start })));

function identifiersIn(line: string): Found[] {
  const out: Found[] = [];
  const taken = (start: number, end: number): boolean => out.some((f) => start < f.end && end > f.start);
  type Make = (
    text: string,
    groups?: Record<string, string | undefined>,
  ) => Omit<DoorPart, 'start' | 'text'> | undefined;
  const look = (pattern: RegExp, make: Make): void => {
    for (const m of line.matchAll(pattern)) {
      if (taken(m.index, m.index + m[0].length)) continue;
      const part = make(m[0], m.groups);
      if (part) out.push({ part: { ...part, text: m[0].trim() }, start: m.index, end: m.index + m[0].length });
    }
  };
  look(ARXIV, (t) => withValue('arxiv', findArxivIds(t)[0]));
  look(DOI, (t) => withValue('doi', findDois(t)[0]));
  look(URL, (t) => ({ kind: 'link', value: /^www\./i.test(t) ? `https://${t}` : t }));
  look(PMCID, (t) => withValue('pmcid', normalisePmcid(t)));
  look(PMID, (t) => withValue('pmid', /\d+/.exec(t)?.[0].replace(/^0+/, '')));
  look(ISBN, isbn);
  look(ISSN, (t, { volume, issue, number, page } = {}) => {
    const value = normaliseIssn(/\d{4}[-‐–]\d{3}[\dX]/i.exec(t)![0]);
    if (!value) return /issn/i.test(t) ? { kind: 'issn', wrong: 'check digit wrong' } : undefined;
    const no = issue ?? number;
    return { kind: 'issn', value, ...(volume && page && { says: { volume, ...(no && { issue: no }), page } }) };
  });
  look(CITATION, (t) => {
    const says = readCitation(t);
    return says && { kind: 'citation', value: t.replace(/\s+/g, ' ').trim(), says };
  });
  return out.sort((a, b) => a.start - b.start);
}

const withValue = (kind: PartKind, value: string | undefined): { kind: PartKind; value: string } | undefined =>
  value ? { kind, value } : undefined;

function isbn(text: string): Omit<DoorPart, 'start' | 'text'> {
  const value = normaliseIsbn(text);
  if (value) return { kind: 'isbn', value };
  const d = text
    .replace(/^.*isbn(?:-1[03])?:?/i, '')
    .replace(/[\s-]/g, '')
    .toUpperCase();
  const right = d.length === 13 ? isbn13Check(d.slice(0, 12)) : isbn10Check(d.slice(0, 9));
  return { kind: 'isbn', wrong: `check digit wrong: it would be ${right}` };
}
