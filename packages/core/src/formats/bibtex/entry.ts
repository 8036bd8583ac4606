/** One entry of BibTeX or BibLaTeX to a record. Entries of either dialect, and of both at once, are read alike. */
import type { Kind, NameVariable, SourceRecord } from '../../source/index.ts';
import {
  latexToText,
  latexVerbatim,
  readNameList,
  splitNames,
  type Macros,
  type Reading,
  type Fate,
} from '../latex/index.ts';
import type { Lines, Message, ReadSource } from '../message.ts';
import { settleIdentifiers } from '../identifiers.ts';
import { splitKeywords } from '../keywords.ts';
import { applyRemainder } from '../remainder.ts';
import { dateOf, readIssued, tellBackward } from './dates.ts';
import { fieldsOf, type Fields } from './inherit.ts';
import { keyword } from './keys.ts';
import { DATE_FIELDS, KIND_OF_ENTRY, NAME_FIELDS, OF_AUTHORITY, PLACES, TEXT_FIELDS, VERBATIM } from './tables.ts';
import { readTitles, TITLE_FIELDS } from './titles.ts';
import type { RawEntry } from './tokens.ts';

export interface Context {
  /** The entries others refer to. */
  byKey: Map<string, RawEntry>;
  /** The commands the file defines. */
  macros: Macros;
  lines: Lines;
  messages: Message[];
  /** Entries whose fields were gone through once, whether for themselves or for one that inherits from them. */
  entriesRead: WeakSet<RawEntry>;
}

/** Says something of the entry that is being read. */
export type Tell = (rule: string, what: string, done: string, severity?: Message['severity']) => void;

export function readEntry(entry: RawEntry, context: Context): ReadSource {
  const { lines, messages } = context;
  const fields = fieldsOf(entry, context);
  const kind = kindOf(entry.type, fields);
  const record: SourceRecord = { type: kind ?? 'document' };
  const place = lines.at(entry.offset);
  const source: ReadSource = { record, subjects: [], line: place.line };
  const kept: Record<string, string> = {};
  const tell: Tell = (rule, what, done, severity = 'warning') =>
    void messages.push({ severity, rule, ...place, what, done });
  if (!kind) {
    tell(
      'unknown-type',
      `The type “${entry.type}” is not a BibTeX or BibLaTeX type`,
      'read as a document, the type kept',
    );
  }
  if (!kind || PARTICULAR.has(entry.type)) kept.entrytype = entry.type;
  if (entry.key) record['citation-key'] = entry.key;
  const unknown = new Map<string, Fate>();
  const links: string[] = [];
  const reading: Reading = { macros: context.macros, unknown, links };
  readTitles(record, entry.type, fields, reading, kept);
  for (const [name, field] of fields) {
    if (LATER.has(name) || TITLE_FIELDS.has(name)) continue;
    if (!readField(source, entry.type, fields, name, field.value, reading, tell)) kept[name] = field.value;
  }
  const issued = readIssued(fields, reading, kept, tell);
  if (issued) record.issued = issued;
  readNumber(record, fields, entry.type, reading, kept);
  readEprint(record, fields);
  const implied = IMPLIED_TYPE[entry.type];
  if (implied) record.genre ??= keyword('type', implied);
  if (links[0]) record.URL ??= links[0];
  settleIdentifiers(record);
  for (const [name, fate] of unknown) tell('unknown-command', `The command \\${name} is not known`, fate, 'info');
  if (Object.keys(kept).length) record.custom = { bibtex: kept };
  const remainder = fields.get('csl');
  if (remainder && !applyRemainder(source, remainder.value)) {
    messages.push({
      severity: 'warning',
      rule: 'broken-remainder',
      ...lines.at(remainder.offset),
      what: 'The field csl is damaged',
      done: 'the rest of the entry was read',
    });
  }
  return source;
}

/** The kind of an entry; an article may say that it stood in a newspaper or a magazine (BibLaTeX manual, 2.2.3). */
function kindOf(type: string, fields: Fields): Kind | undefined {
  const subtype = /^(newspaper|magazine)$/i.exec(fields.get('entrysubtype')?.value ?? '')?.[1];
  if (type !== 'article' || !subtype) return KIND_OF_ENTRY[type];
  fields.delete('entrysubtype');
  return subtype.toLowerCase() === 'magazine' ? 'article-magazine' : 'article-newspaper';
}

/** BibTeX's own types as BibLaTeX understands them (BibLaTeX manual, 2.1.2). */
const IMPLIED_TYPE: Record<string, string> = {
  mastersthesis: 'mathesis',
  phdthesis: 'phdthesis',
  techreport: 'techreport',
};

/** Types that say more than the kind they become; kept so that they are written back. */
const PARTICULAR = new Set([
  'mvbook',
  'collection',
  'mvcollection',
  'proceedings',
  'mvproceedings',
  'reference',
  'mvreference',
  'manual',
  'inbook',
  'bookinbook',
  'suppbook',
  'mastersthesis',
  'conference',
  'commentary',
]);

/** Fields that give way to another of the same meaning, whichever comes first. */
const PREFERRED: Record<string, string> = {
  organization: 'publisher',
  address: 'location',
  language: 'langid',
  annote: 'annotation',
};

const LATER = new Set(['year', 'month', 'day', 'date', 'number', 'crossref', 'xdata', 'csl']);

/** Puts a field into the record; false when there is no place for it. */
function readField(
  source: ReadSource,
  type: string,
  fields: Fields,
  name: string,
  raw: string,
  reading: Reading,
  tell: Tell,
): boolean {
  const { record } = source;
  const person = NAME_FIELDS[name];
  if (person) return readNames(record, person, raw, reading);
  if (name === 'keywords' || name === 'keyword') {
    source.subjects.push(...splitKeywords(latexToText(raw, reading)));
    return true;
  }
  const date = DATE_FIELDS[name];
  if (date) {
    if (record[date] !== undefined) return false;
    const value = dateOf(raw, reading);
    if (value?.literal) tellBackward(value.literal, name, tell);
    if (value) record[date] = value;
    return true;
  }
  const law = OF_AUTHORITY.has(type) && (name === 'institution' || name === 'organization');
  const variable = law ? 'authority' : TEXT_FIELDS[name];
  if (!variable || record[variable] !== undefined || fields.has(PREFERRED[name] ?? '')) return false;
  const value = VERBATIM.has(name) ? latexVerbatim(raw) : latexToText(PLACES.has(name) ? placesOf(raw) : raw, reading);
  if (!value) return false;
  record[variable] = name === 'pages' ? value.replace(/\s*[–—-]+\s*/g, '-') : keyword(name, value);
  return true;
}

function readNames(record: SourceRecord, variable: NameVariable, raw: string, reading: Reading): boolean {
  const names = readNameList(raw, reading);
  if (names.length) record[variable] = [...(record[variable] ?? []), ...names];
  return true;
}

/** Several places as CSL has them in one line: "Sallow; Withy". */
const placesOf = (raw: string): string => splitNames(raw).join('; ');

const NUMBER_IS_ISSUE = new Set(['article', 'periodical', 'suppperiodical', 'review']);
const NUMBER_IN_SERIES = new Set([
  'book',
  'inbook',
  'incollection',
  'inproceedings',
  'collection',
  'proceedings',
  'conference',
  'mvbook',
]);

/**
 * "number" is an issue, a number in a series or a number of its own, by the type of the entry. Of a periodical it is
 * what is printed, and an `issue` beside it is kept: that of BibLaTeX holds a season's name, others repeat a number.
 */
function readNumber(
  record: SourceRecord,
  fields: Fields,
  type: string,
  reading: Reading,
  kept: Record<string, string>,
): void {
  const number = fields.get('number');
  if (!number) return;
  const value = latexToText(number.value, reading);
  if (NUMBER_IS_ISSUE.has(type)) {
    const issue = fields.get('issue');
    if (issue && record.issue !== value) kept.issue = issue.value;
    record.issue = value;
  } else if (NUMBER_IN_SERIES.has(type)) record['collection-number'] = value;
  else record.number = value;
}

/** Where the text of an electronic print stands, by the archive that numbered it (BibLaTeX manual, 3.14.7). */
function readEprint(record: SourceRecord, fields: Fields): void {
  const id = fields.get('eprint')?.value.trim();
  const archive = (fields.get('eprinttype') ?? fields.get('archiveprefix'))?.value.trim().toLowerCase();
  if (!id || !/^[\w./:-]+$/.test(id)) return;
  if (archive === 'pubmed') record.PMID ??= id;
  else if (archive === 'arxiv') record.URL ??= `https://arxiv.org/abs/${id.replace(/^arxiv:/i, '')}`;
  else if (archive === 'jstor') record.URL ??= `https://www.jstor.org/stable/${id}`;
}
