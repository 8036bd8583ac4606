/** A MARC 21 record as a record. */
import { Making, parseName, type Kind, type Name, type NameVariable } from '../../source/index.ts';
import type { ReadSource } from '../message.ts';
import { applyRemainder } from '../remainder.ts';
import { Asked, bare, subfield, type MarcField, type MarcRecord } from './fields.ts';

/** A field for local use (9XX) with the name of its writer, as the format has it for what it has no place for. */
export const REMAINDER_FIELD = '989';

/** MARC relator codes and terms (id.loc.gov/vocabulary/relators) for the roles a record has. */
const ROLES: [RegExp, NameVariable][] = [
  [/^(?:aut|author|cre|creator|dis)/i, 'author'],
  [/^(?:edt|edit)/i, 'editor'],
  [/^(?:trl|translat)/i, 'translator'],
  [/^(?:ill|illustrat)/i, 'illustrator'],
  [/^com(?:piler)?/i, 'compiler'],
  [/^(?:rcp|addressee|recipient)/i, 'recipient'],
  [/^(?:ivr|interviewer)/i, 'interviewer'],
  [/^(?:drt|director|film director)/i, 'director'],
  [/^(?:cmp|composer)/i, 'composer'],
];

export function readMarc(marc: MarcRecord): ReadSource {
  const a = new Asked(marc);
  const m = new Making();
  readTitle(a, m);
  for (const f of a.fields('100', '110', '111', '700', '710', '711')) {
    // A title in an added entry says that it is of another work.
    if (/^7/.test(f.tag) && subfield(f, 't')) continue;
    const told = [subfield(f, '4'), subfield(f, 'e'), /^.11$/.test(f.tag) ? subfield(f, 'j') : undefined].find(Boolean);
    const role = told ? ROLES.find(([like]) => like.test(bare(told)!))?.[1] : /^1/.test(f.tag) ? 'author' : undefined;
    const added = told === undefined && !a.fields('100', '110', '111').length ? 'author' : undefined;
    if (role ?? added) m.names((role ?? added)!, [nameOf(f)]);
  }
  const printed = a.fields('260', '264').filter((f) => f.tag === '260' || f.indicators?.[1] !== '4');
  const imprint = printed.find((f) => f.indicators?.[1] === '1') ?? printed[0];
  m.text('publisher-place', unbracketed(bare(firstOf(imprint, 'a'))));
  m.text('publisher', bare(firstOf(imprint, 'b')));
  const thesis = a.fields('502')[0];
  m.text('publisher', bare(subfield(thesis, 'c')));
  m.text('genre', thesis && (bare(subfield(thesis, 'b')) ?? bare(subfield(thesis, 'a'))));
  readDate(a, m, imprint, thesis);
  m.text('edition', bare(a.first('250', 'a')));
  const extent = a.first('300', 'a');
  m.text('number-of-pages', /(\d+)\s*(?:p|S|pages|Seiten|leaves|ff)\b/.exec(extent ?? '')?.[1]);
  m.text('number-of-volumes', /(\d+)\s*(?:v|vols?|volumes|Bde?|Bände)\b/.exec(extent ?? '')?.[1]);
  m.text('collection-title', bare(a.first(['490', '830', '440'], 'a')));
  m.text('collection-number', bare(a.first(['490', '830', '440'], 'v'))?.replace(/^(?:vol|no|Bd|Band)\.?\s*/i, ''));
  const host = a.fields('773')[0];
  readHost(host, m);
  for (const f of a.fields('024')) if (/doi/i.test(subfield(f, '2') ?? '')) m.doi(subfield(f, 'a'));
  for (const f of a.fields('856')) {
    m.doi(subfield(f, 'u'));
    m.text('URL', firstOf(f, 'u'));
  }
  for (const f of a.fields('020')) m.isbn(firstOf(f, 'a'));
  for (const f of a.fields('022')) m.issn(firstOf(f, 'a'));
  m.text(
    'language',
    a.first('041', 'a')?.split(' ')[0] ??
      a
        .control('008')
        .slice(35, 38)
        .replace(/^(?:\|\|\||und|zxx|\s*)$/, ''),
  );
  m.text('abstract', a.first('520', 'a'));
  m.text(
    'note',
    a
      .fields('500', '504', '505')
      .map((f) => subfield(f, 'a'))
      .filter(Boolean)
      .join('\n'),
  );
  m.text('call-number', a.first(['050', '060', '082', '090'], 'ab'));
  for (const f of a.fields('600', '610', '611', '630', '648', '650', '651', '653')) m.about([subjectOf(f)]);
  const source: ReadSource = { record: m.as(kindOf(a, m, Boolean(host))), subjects: m.subjects, line: marc.line };
  for (const f of a.fields(REMAINDER_FIELD))
    if (subfield(f, '2') === 'pandecta') applyRemainder(source, subfield(f, 'a') ?? '');
  return source;
}

/** The number the catalogue knows the record by. */
export const marcIdentifier = (marc: MarcRecord): string | undefined =>
  new Asked(marc).control('001').trim() || undefined;

const firstOf = (f: MarcField | undefined, code: string): string | undefined =>
  f?.subfields?.find(([c, v]) => c === code && v.trim())?.[1].trim();
const unbracketed = (text: string | undefined): string | undefined => text?.replace(/^\[(.*?)\]?$/, '$1');

function readTitle(a: Asked, m: Making): void {
  const f = a.fields('245')[0];
  const title = bare(subfield(f, 'a'));
  const rest = bare(subfield(f, 'b'));
  const part = (f?.subfields ?? []).filter(([c]) => c === 'n' || c === 'p').map(([, v]) => bare(v));
  m.text('title', [[title, rest].filter(Boolean).join(': '), ...part].filter(Boolean).join(', '));
  m.text('title-short', bare(a.first('210', 'a')));
  m.text('original-title', bare(a.first('240', 'a')));
}

/** "Halvard, Runa, 1901-1980, author." is a person, of which the years and the role are no part. */
function nameOf(f: MarcField): Name {
  if (!/^.00$/.test(f.tag))
    return { literal: [bare(subfield(f, 'a')), bare(subfield(f, 'b'))].filter(Boolean).join(', ') };
  const text = bare(subfield(f, 'a')) ?? '';
  const suffix = bare(subfield(f, 'c'));
  // The first indicator tells a forename alone (0) from a family name (1).
  if (f.indicators?.[0] === '0') return { literal: [text, bare(subfield(f, 'bc'))].filter(Boolean).join(' ') };
  return { ...parseName(text), ...(suffix && /^(?:jr|sr|[ivx]+)\.?$/i.test(suffix) && { suffix }) };
}

function readDate(a: Asked, m: Making, imprint: MarcField | undefined, thesis: MarcField | undefined): void {
  const of773 = /\b(\d{4})\b/.exec(subfield(a.fields('773')[0], 'g') ?? '')?.[1];
  // What a record says for machines (046, EDTF since 2013) goes before what is printed with brackets and letters.
  m.date(
    a
      .fields('046')
      .map((f) => (subfield(f, '2') === 'edtf' ? (subfield(f, 'k') ?? subfield(f, 'o')) : undefined))
      .find(Boolean),
  );
  const printed = bare(firstOf(imprint, 'c')) ?? bare(a.first('264', 'c')) ?? subfield(thesis, 'd');
  const clean = printed?.replace(/[[\]©]|^[cp](?=\d)/g, '').trim();
  const coded = a.control('008').slice(7, 11);
  m.date(/^\d{4}(?:\D\d{1,2}){0,2}$/.test(clean ?? '') || !/\d{4}/.test(clean ?? '') ? clean : undefined);
  m.date(/^\d{4}$/.test(coded) ? coded : undefined);
  m.date(clean && (/\d{4}/.exec(clean)?.[0] ?? clean));
  m.date(of773);
}

/** "Vol. 24, no. 2 (June 2000), p. 361-378": the part of the host, as cataloguing rules print it. */
function readHost(host: MarcField | undefined, m: Making): void {
  if (!host) return;
  m.text('container-title', bare(subfield(host, 't')));
  m.text('container-title-short', bare(subfield(host, 'p')));
  m.issn(subfield(host, 'x'));
  m.isbn(subfield(host, 'z'));
  const imprint = subfield(host, 'd') ?? '';
  const colon = imprint.indexOf(':');
  if (colon > 0 && colon < imprint.length - 1) {
    m.text('publisher-place', imprint.slice(0, colon));
    m.text('publisher', imprint.slice(colon + 1).replace(/(?:,\s*\d{4})?\.?$/, ''));
  }
  const g = subfield(host, 'g') ?? '';
  m.text('volume', /\b(?:vol|v|bd|band|jg|t)\w*\.?\s*([\w/-]+)/i.exec(g)?.[1]);
  m.text('issue', /\b(?:no|nr|issue|heft|h|iss|n)\.?\s*([\w/-]+)/i.exec(g)?.[1]);
  m.text('page', /\b(?:pp?|pages?|s|seiten?)\.?\s*([\w]+(?:\s*[-–]\s*\w+)?)/i.exec(g)?.[1]?.replace(/\s*–\s*/, '-'));
  // 773 $q: "24:2<361" (volume, issue, first page).
  const q = /^([^:<]*)(?::([^:<]*))?(?:<(\w+))?$/.exec(subfield(host, 'q') ?? '');
  m.text('volume', q?.[1]);
  m.text('issue', q?.[2]);
  m.text('page', q?.[3]);
}

function subjectOf(f: MarcField): string | undefined {
  const main = bare(
    (f.subfields ?? [])
      .filter(([c]) => /[a-t]/.test(c) && !'e'.includes(c))
      .map(([, v]) => v)
      .join(' '),
  );
  const parts = (f.subfields ?? []).filter(([c]) => /[vxyz]/.test(c)).map(([, v]) => bare(v));
  return [main, ...parts].filter(Boolean).join('--');
}

/** Genre terms (655), then the leader: type of record (06) and bibliographic level (07). */
function kindOf(a: Asked, m: Making, hosted: boolean): Kind {
  const genres = a.fields('655').map((f) => subfield(f, 'a') ?? '');
  const told = genres.flatMap((g) => GENRES.find(([like]) => like.test(g))?.[1] ?? [])[0];
  if (told) return told;
  const [type, level] = [a.record.leader[6], a.record.leader[7]];
  if (a.fields('502').length) return 'thesis';
  if (type === 'e' || type === 'f') return 'map';
  if (type === 'c' || type === 'd') return 'musical_score';
  if (type === 'i' || type === 'j') return 'song';
  if (type === 'g') return 'motion_picture';
  if (type === 'k') return 'graphic';
  if (type === 'm') return 'software';
  if (type === 't') return 'manuscript';
  if (hosted || level === 'a' || level === 'b')
    return m.record.ISSN || m.record.volume || m.record.issue ? 'article-journal' : 'chapter';
  if (level === 's') return 'periodical';
  if (level === 'c') return 'collection';
  return 'book';
}

const GENRES: [RegExp, Kind][] = [
  [/journal articles?|^articles?$/i, 'article-journal'],
  [/newspaper articles?/i, 'article-newspaper'],
  [/conference papers?/i, 'paper-conference'],
  [/book chapters?/i, 'chapter'],
  [/thes[ie]s|dissertation|hochschulschrift/i, 'thesis'],
  [/technical reports?|^reports?$/i, 'report'],
  [/law reports|legal cases?|judg?ments?/i, 'legal_case'],
  [/statutes|legislation/i, 'legislation'],
  [/web ?sites?|web pages?/i, 'webpage'],
  [/letters|correspondence/i, 'personal_communication'],
  [/data ?sets?/i, 'dataset'],
  [/patents?/i, 'patent'],
];
