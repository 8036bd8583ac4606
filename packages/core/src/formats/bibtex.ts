/** BibTeX and BibLaTeX to records. Files of either dialect, and of both at once, are read by the same reader. */
import {
  monthOf,
  parseDate,
  parseName,
  type DateValue,
  type Kind,
  type Name,
  type NameVariable,
  type SourceRecord,
} from '../source/index.ts';
import { normaliseDoi } from '../identifiers/index.ts';
import { Lines, type Message, type ReadResult, type ReadSource } from './message.ts';
import { tokenize, type RawEntry, type RawField } from './bibtex-tokens.ts';
import { latexNames, latexToText } from './latex.ts';
import { keyword } from './biblatex-keys.ts';
import { applyRemainder } from './remainder.ts';
import {
  DATE_FIELDS,
  INHERITED_AS,
  KIND_OF_ENTRY,
  NAME_FIELDS,
  NOT_INHERITED,
  TEXT_FIELDS,
  VERBATIM,
} from './bibtex-tables.ts';

export function readBibtex(text: string): ReadResult {
  const { entries, troubles } = tokenize(text);
  const lines = new Lines(text);
  const messages: Message[] = troubles.map(({ offset, ...t }) => ({ ...t, ...lines.at(offset) }));
  const byKey = new Map<string, RawEntry>();
  for (const e of entries) {
    const key = e.key.toLowerCase();
    if (key && byKey.has(key)) {
      messages.push({
        severity: 'warning',
        rule: 'repeated-key',
        ...lines.at(e.offset),
        what: `The key “${e.key}” stands twice`,
        done: 'both entries were read',
      });
    } else byKey.set(key, e);
  }
  const context: Context = { byKey, lines, messages, entriesRead: new Set() };
  const sources = entries.filter((e) => e.type !== 'xdata' && e.type !== 'set').map((e) => readEntry(e, context));
  if (!entries.length && !messages.length) {
    messages.push({
      severity: 'info',
      rule: 'empty',
      line: 1,
      column: 1,
      what: 'The file holds no entries',
      done: 'nothing to read',
    });
  }
  messages.sort((a, b) => a.line - b.line || a.column - b.column);
  return { sources, messages };
}

interface Context {
  byKey: Map<string, RawEntry>;
  lines: Lines;
  messages: Message[];
  /** Entries whose fields were gone through once, whether for themselves or for one that inherits from them. */
  entriesRead: Set<RawEntry>;
}

type Fields = Map<string, RawField>;

/** The fields of an entry with those it inherits through crossref and xdata; a cycle ends where it closes. */
function fieldsOf(entry: RawEntry, context: Context, seen: Set<RawEntry> = new Set()): Fields {
  const fields: Fields = new Map();
  for (const f of entry.fields) {
    if (f.value.trim() === '') continue;
    const first = fields.get(f.name);
    if (!first) fields.set(f.name, f);
    else if (first.value !== f.value && !context.entriesRead.has(entry)) {
      context.messages.push({
        severity: 'warning',
        rule: 'repeated-field',
        ...context.lines.at(f.offset),
        what: `The field “${f.name}” stands twice in the entry “${entry.key}”`,
        done: `the first was used; this one says: ${f.value.trim()}`,
      });
    }
  }
  context.entriesRead.add(entry);
  seen.add(entry);
  for (const link of ['xdata', 'crossref']) {
    const named = fields.get(link);
    for (const key of named?.value.split(',') ?? []) {
      const parent = context.byKey.get(key.trim().toLowerCase());
      if (!parent || seen.has(parent)) {
        if (!parent)
          context.messages.push({
            severity: 'warning',
            rule: 'missing-crossref',
            ...context.lines.at(named!.offset),
            what: `The entry “${key.trim()}” it refers to is not in the file`,
            done: 'read without it',
          });
        continue;
      }
      for (const [name, field] of fieldsOf(parent, context, seen)) {
        if (NOT_INHERITED.has(name)) continue;
        const as = link === 'crossref' && /^in|^supp/.test(entry.type) ? (INHERITED_AS[name] ?? name) : name;
        if (!fields.has(as)) fields.set(as, { ...field, name: as });
      }
    }
  }
  return fields;
}

function readEntry(entry: RawEntry, context: Context): ReadSource {
  const { lines, messages } = context;
  const fields = fieldsOf(entry, context);
  const kind = kindOf(entry.type, fields);
  const record: SourceRecord = { type: kind ?? 'document' };
  const place = lines.at(entry.offset);
  const source: ReadSource = { record, subjects: [], line: place.line };
  const kept: Record<string, string> = {};
  if (!kind) {
    messages.push({
      severity: 'warning',
      rule: 'unknown-type',
      ...place,
      what: `The type “${entry.type}” is not a BibTeX or BibLaTeX type`,
      done: 'read as a document, the type kept',
    });
  }
  if (!kind || PARTICULAR.has(entry.type)) kept.entrytype = entry.type;
  if (entry.key) record['citation-key'] = entry.key;
  const unknown = new Set<string>();
  const remainder = fields.get('csl');
  for (const [name, field] of fields) {
    if (name !== 'csl' && !readField(source, fields, name, field.value, unknown)) kept[name] = field.value;
  }
  readIssued(record, fields, kept);
  readTitles(record, fields, unknown, kept);
  readNumber(record, fields, entry.type, kept);
  readEprint(record, fields);
  const implied = IMPLIED_TYPE[entry.type];
  if (implied) record.genre ??= keyword('type', implied);
  for (const name of unknown) {
    messages.push({
      severity: 'info',
      rule: 'unknown-command',
      ...place,
      what: `The command \\${name} is not known`,
      done: 'its text was kept',
    });
  }
  if (Object.keys(kept).length) record.custom = { bibtex: kept };
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
  journal: 'journaltitle',
  address: 'location',
  language: 'langid',
  annote: 'annotation',
};

const LATER = new Set(['year', 'month', 'day', 'number', 'subtitle', 'booksubtitle', 'crossref', 'xdata', 'date']);

/** Puts a field into the record; false when there is no place for it. */
function readField(source: ReadSource, fields: Fields, name: string, raw: string, unknown: Set<string>): boolean {
  const { record } = source;
  if (LATER.has(name)) return true;
  const person = NAME_FIELDS[name];
  if (person) return readNames(record, person, raw, unknown);
  if (name === 'keywords' || name === 'keyword') {
    const text = latexToText(raw, unknown);
    source.subjects.push(...text.split(text.includes(';') ? /\s*;\s*/ : /\s*,\s*/).filter(Boolean));
    return true;
  }
  const date = DATE_FIELDS[name];
  if (date) {
    record[date] ??= dateOf(raw);
    return true;
  }
  const variable = TEXT_FIELDS[name];
  if (!variable || record[variable] !== undefined || fields.has(PREFERRED[name] ?? '')) return false;
  const value = VERBATIM.has(name) ? raw.replace(/\\([_%&#~])/g, '$1').trim() : latexToText(raw, unknown);
  if (name === 'howpublished' && record.URL === undefined && /^https?:\/\/\S+$/.test(value)) record.URL = value;
  else if (name === 'doi') record.DOI = normaliseDoi(value) ?? value;
  else if (name === 'pages') record.page = value.replace(/\s*[–—-]+\s*/g, '-');
  else record[variable] = keyword(name, value);
  return true;
}

function readNames(record: SourceRecord, variable: NameVariable, raw: string, unknown: Set<string>): boolean {
  const names = splitNames(raw).map((n) => readName(n, unknown));
  const others = names.findIndex((n) => n.family === 'others' && !n.given);
  if (others >= 0) names[others] = { literal: 'et al.' };
  record[variable] = [...(record[variable] ?? []), ...names];
  return true;
}

/** Splits at the word "and" that stands outside braces (BibTeX's rule). */
function splitNames(raw: string): string[] {
  if (!raw.includes('{'))
    return raw
      .split(/\s+and\s+/i)
      .map((n) => n.trim())
      .filter(Boolean);
  const out: string[] = [];
  let depth = 0;
  let from = 0;
  for (let i = 0; i < raw.length; i += 1) {
    const c = raw[i];
    if (c === '{') depth += 1;
    else if (c === '}') depth -= 1;
    else if (depth === 0 && /\s/.test(c!)) {
      const m = /\s+and\s+/iy;
      m.lastIndex = i;
      const found = m.exec(raw);
      if (found) {
        out.push(raw.slice(from, i));
        i = m.lastIndex - 1;
        from = m.lastIndex;
      }
    }
  }
  out.push(raw.slice(from));
  return out.map((n) => n.trim()).filter(Boolean);
}

function readName(raw: string, unknown: Set<string>): Name {
  if (/^\{.*\}$/s.test(raw) && closesAtEnd(raw)) return { literal: latexToText(raw.slice(1, -1), unknown) };
  return parseName(/[\\{}~]/.test(raw) ? latexNames(raw, unknown) : raw);
}

function closesAtEnd(raw: string): boolean {
  let depth = 0;
  for (let i = 0; i < raw.length; i += 1) {
    if (raw[i] === '{') depth += 1;
    else if (raw[i] === '}') depth -= 1;
    if (depth === 0 && i < raw.length - 1) return false;
  }
  return depth === 0;
}

function readIssued(record: SourceRecord, fields: Fields, kept: Record<string, string>): void {
  const date = fields.get('date');
  const year = fields.get('year');
  const month = fields.get('month');
  if (date) {
    record.issued = dateOf(date.value);
    if (year) kept.year = year.value;
    if (month) kept.month = month.value;
    return;
  }
  if (!year) {
    if (month) kept.month = month.value;
    return;
  }
  const issued = dateOf(year.value);
  const parts = issued?.['date-parts'];
  if (month && parts?.length === 1 && parts[0]!.length === 1) {
    const m = latexToText(month.value);
    const number = /^\d{1,2}$/.test(m) ? Number(m) : monthOf(/[A-Za-z]+/.exec(m)?.[0] ?? '');
    const dayText = fields.get('day')?.value ?? /\b(\d{1,2})\b/.exec(m.replace(/^\d{1,2}$/, ''))?.[1];
    if (number >= 1 && number <= 12) parts[0] = [parts[0]![0]!, number, ...(dayText ? [Number(dayText)] : [])];
    else kept.month = month.value;
  } else if (month) kept.month = month.value;
  if (issued) record.issued = issued;
}

/** A date in EDTF, where a tilde says "about"; any other is LaTeX. */
function dateOf(raw: string): DateValue | undefined {
  return parseDate(/^[\dX~?%/.: T-]+$/.test(raw) ? raw : latexToText(raw));
}

function readTitles(record: SourceRecord, fields: Fields, unknown: Set<string>, kept: Record<string, string>): void {
  const join = (main: string | undefined, sub: string): string =>
    !main ? sub : /[?!.]$/.test(main) ? `${main} ${sub}` : `${main}: ${sub}`;
  const subtitle = fields.get('subtitle');
  if (subtitle) record.title = join(record.title, latexToText(subtitle.value, unknown));
  const sub = fields.get('booksubtitle');
  if (sub && record['container-title'])
    record['container-title'] = join(record['container-title'], latexToText(sub.value, unknown));
  else if (sub) kept.booksubtitle = sub.value;
}

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

/** "number" is an issue, a number in a series or a number of its own, by the type of the entry. */
function readNumber(record: SourceRecord, fields: Fields, type: string, kept: Record<string, string>): void {
  const number = fields.get('number');
  if (!number) return;
  const value = latexToText(number.value);
  const issue = NUMBER_IS_ISSUE.has(type);
  if (issue && record.issue !== undefined) kept.number = number.value;
  else if (issue) record.issue = value;
  else if (NUMBER_IN_SERIES.has(type)) record['collection-number'] = value;
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
