/** Records to BibTeX or BibLaTeX. What the dialect cannot hold goes, as JSON, into the field `csl`. */
import { freeCitationKey, wantedCitationKey } from '../../citation-key/index.ts';
import { dateToEdtf, type Name, type SourceRecord } from '../../source/index.ts';
import { isPart } from './inherit.ts';
import { readBibtex } from './read.ts';
import { langid } from './keys.ts';
import { entryOfKind, FIELD_OF_VARIABLE, NAME_FIELDS, VERBATIM } from './tables.ts';
import { protectCapitals, textToLatex } from '../latex/index.ts';
import type { Writable } from '../message.ts';
import { remainderOf } from '../remainder.ts';

export type BibDialect = 'bibtex' | 'biblatex';

export function* eachBibtexEntry(sources: Writable, dialect: BibDialect): Generator<string, void> {
  const keys = new Set<string>();
  for (const s of sources) yield (keys.size ? '\n' : '') + writeEntry(s, dialect, uniqueKey(s.record, keys));
}

function uniqueKey(record: SourceRecord, taken: Set<string>): string {
  const key = freeCitationKey(wantedCitationKey(record), (k) => taken.has(k));
  taken.add(key.toLowerCase());
  return key;
}

function writeEntry(source: { record: SourceRecord; subjects: string[] }, dialect: BibDialect, key: string): string {
  const { record } = source;
  const kept = (typeof record.custom?.bibtex === 'object' ? record.custom.bibtex : {}) as Record<string, unknown>;
  const type =
    typeof kept.entrytype === 'string' && /^[a-z]+$/.test(kept.entrytype)
      ? kept.entrytype
      : entryOfKind(record.type, dialect);
  const fields: [string, string][] = [];
  for (const [field, variable] of Object.entries(NAME_FIELDS)) {
    const names = record[variable];
    if (names?.length) fields.push([field, names.map(nameToLatex).join(' and ')]);
  }
  pushDates(fields, record, dialect);
  for (const [variable, names] of FIELD_OF_VARIABLE) {
    const value = record[variable];
    if (value === undefined) continue;
    const field = volumeField(variable, record, type, dialect) ?? fieldName(variable, names[dialect], type, dialect);
    if (!field) continue;
    const key = field === 'langid' ? langid(value) : undefined;
    if (field === 'langid' && !key) fields.push(['language', textToLatex(value)]);
    else fields.push([field, key ?? valueToLatex(field, value)]);
  }
  const subtype = /^article-(magazine|newspaper)$/.exec(record.type)?.[1];
  if (subtype && type === 'article') fields.push(['entrysubtype', subtype]);
  const number = type === 'article' ? record.issue : (record['collection-number'] ?? record.number);
  if (number) fields.push(['number', textToLatex(number)]);
  if (source.subjects.length) fields.push(['keywords', source.subjects.map(textToLatex).join('; ')]);
  for (const [name, value] of Object.entries(kept)) {
    if (
      name !== 'entrytype' &&
      typeof value === 'string' &&
      balanced(value) &&
      /^[a-z][\w+-]*$/.test(name) &&
      !fields.some(([f]) => f === name)
    ) {
      fields.push([name, value]);
    }
  }
  const print = (all: [string, string][]): string =>
    `@${type}{${key},\n${all.map(([name, value]) => `  ${name} = {${value}},\n`).join('')}}\n`;
  // A value whose braces do not match would take its neighbours with it: the remainder holds it instead.
  const sound = fields.filter(([, value]) => balanced(value));
  fields.splice(0, fields.length, ...sound);
  const back = readBibtex(print(fields)).sources[0];
  // An entry must have a key: one made up for it is not worth a remark.
  const wanted = { ...source, record: { 'citation-key': key, ...record } };
  const remainder = remainderOf(wanted, back);
  if (remainder) fields.push(['csl', escapeBraces(JSON.stringify(remainder))]);
  return print(fields);
}

/** Braces inside JSON strings are written as \u escapes, so that those of the field stay balanced. */
function escapeBraces(json: string): string {
  return json.replace(/"(?:[^"\\]|\\.)*"/g, (s) =>
    s.replace(/[{}]/g, (c) => `\\u00${c.charCodeAt(0).toString(16)}`).replace(/\\\\/g, '\\u005c'),
  );
}

/**
 * Where the titles of a volume and of its whole go (BibLaTeX manual, 2.3.5). BibTeX has no field for both: there the
 * title of the volume is left to the remainder.
 */
function volumeField(variable: string, record: SourceRecord, type: string, dialect: BibDialect): string | undefined {
  if (record['volume-title'] === undefined || dialect === 'bibtex') return undefined;
  if (/^(?:article|suppperiodical|periodical)$/.test(type))
    return variable === 'volume-title' ? 'issuetitle' : undefined;
  const whole = isPart(type) ? 'container-title' : 'title';
  if (variable === whole) return 'maintitle';
  return variable === 'volume-title' ? (isPart(type) ? 'booktitle' : 'title') : undefined;
}

function fieldName(variable: string, name: string, type: string, dialect: BibDialect): string {
  if (variable === 'container-title' && /^in|^conference|^supp(book|coll)|^bookin/.test(type)) return 'booktitle';
  if (variable === 'publisher' && /thesis$/.test(type)) return dialect === 'bibtex' ? 'school' : 'institution';
  if (variable === 'publisher' && /report$/.test(type)) return 'institution';
  return name;
}

function valueToLatex(field: string, value: string): string {
  if (VERBATIM.has(field)) return balanced(value) ? value : textToLatex(value);
  if (field === 'pages') return textToLatex(value).replace(/^(\w+)-(\w+)$/, '$1--$2');
  const latex = textToLatex(value);
  return /^(?:main|book|short|)title$/.test(field) ? protectCapitals(latex) : latex;
}

function balanced(text: string): boolean {
  let depth = 0;
  for (let i = 0; i < text.length; i += 1) {
    if (text[i] === '\\') i += 1;
    else if (text[i] === '{') depth += 1;
    else if (text[i] === '}') depth -= 1;
    if (depth < 0) return false;
  }
  return depth === 0 && !/\\$/.test(text);
}

function pushDates(fields: [string, string][], record: SourceRecord, dialect: BibDialect): void {
  const { issued } = record;
  const parts = issued?.['date-parts'];
  if (issued && dialect === 'biblatex')
    fields.push(['date', textToLatex(dateToEdtf(issued)).replaceAll('\\textasciitilde{}', '~')]);
  else if (parts?.length === 1) {
    const [year, month, day] = parts[0]!;
    fields.push(['year', String(year)]);
    if (month) fields.push(['month', String(month)]);
    if (day) fields.push(['day', String(day)]);
  } else if (issued) fields.push(['year', textToLatex(dateToEdtf(issued)).replaceAll('\\textasciitilde{}', '~')]);
  if (record.accessed) fields.push(['urldate', textToLatex(dateToEdtf(record.accessed))]);
  if (record['original-date']) fields.push(['origdate', textToLatex(dateToEdtf(record['original-date']))]);
  if (record['event-date']) fields.push(['eventdate', textToLatex(dateToEdtf(record['event-date']))]);
}

function nameToLatex(name: Name): string {
  if (name.literal) return name.literal === 'et al.' ? 'others' : `{${textToLatex(name.literal)}}`;
  const guard = (s: string | undefined): string => {
    const latex = textToLatex(s ?? '');
    return /,|\band\b/i.test(latex) ? `{${latex}}` : latex;
  };
  const family = [name['non-dropping-particle'], guard(name.family)].filter(Boolean).join(' ');
  return [family, guard(name.suffix), guard(name.given)].filter(Boolean).join(', ');
}
