/** The fields of a record as lines of text a person edits, and back. */
import {
  dateShort,
  dateTrouble,
  dateToEdtf,
  isDateVariable,
  isNameVariable,
  nameInverted,
  isBackward,
  parseDate,
  parseName,
  readingsOf,
  variablesOf,
  type DateValue,
  type FieldValue,
  type Kind,
  type Name,
  type SourceRecord,
  type Variable,
} from '@pandecta/core/source';
import { readNames } from '@pandecta/core/references';

/** What the record of a kind offers, and after it what else the record holds. */
export function fieldsOf(record: SourceRecord, kind: Kind): Variable[] {
  const offered = variablesOf(kind);
  const filled = Object.keys(record).filter((f) => f !== 'type' && f !== 'custom') as Variable[];
  return [...offered, ...filled.filter((f) => !offered.includes(f))];
}

export function fieldToText(variable: Variable, value: unknown): string {
  if (value === undefined || value === null) return '';
  if (isNameVariable(variable)) return (value as Name[]).map(nameToLine).join('\n');
  if (isDateVariable(variable)) return dateToText(value as DateValue);
  return value as string;
}

const nameToLine = (n: Name): string => (n.literal ? `{${n.literal}}` : nameInverted(n)).replace(/\s+/g, ' ').trim();

/** EDTF; a year before the common era as people write it, since EDTF counts a year 0. */
function dateToText(date: DateValue): string {
  const parts = date['date-parts'];
  const ancient = parts?.length === 1 && parts[0]!.length === 1 && parts[0]![0]! < 0 && !date.circa && !date.season;
  return ancient ? dateShort(date) : dateToEdtf(date);
}

/** A line that stands as it stood is the name it was, with all that a line does not show; the others are read anew. */
function linesToNames(text: string, before: Name[]): Name[] {
  const left = [...before];
  return text.split('\n').flatMap((line) => {
    const at = left.findIndex((n) => nameToLine(n) === line.trim());
    if (at >= 0) return left.splice(at, 1);
    const names = line
      .split(/;(?![^{}]*\})/)
      .map((one) => one.trim())
      .filter(Boolean);
    // Several people in one line, as they are printed: "Ngata, R. and S. Vale". Braces hold what is one.
    return names.flatMap((one) =>
      /\s(?:and|&|und|et)\s/.test(one) && !one.includes('{') ? readNames(one) : [parseName(one)],
    );
  });
}

/** @param before the value the text was made of */
export function textToField(variable: Variable, text: string, before?: unknown): FieldValue | null {
  const trimmed = text.trim();
  if (!trimmed) return null;
  if (isNameVariable(variable)) return linesToNames(trimmed, (before as Name[] | undefined) ?? []);
  // A date left alone stays what it was, also one that would be read otherwise today.
  const [reading, another] = isDateVariable(variable) ? readingsOf(trimmed) : [];
  if (reading && !another) return parseDate(reading)!;
  if (isDateVariable(variable))
    return trimmed === fieldToText(variable, before) ? (before as DateValue) : (parseDate(trimmed) ?? null);
  return trimmed;
}

/** How many lines the field takes in the editor. */
export function linesOf(variable: Variable, text: string): number {
  if (isNameVariable(variable)) return Math.max(1, text.split('\n').length);
  return variable === 'abstract' || variable === 'note' ? 4 : text.length > 70 ? 2 : 1;
}

/** What is wrong with what was typed; empty when nothing is. It is kept all the same. */
export function troubleOf(variable: Variable, text: string): string {
  if (!isDateVariable(variable)) return '';
  if (isBackward(text)) return 'The end is before the beginning; kept as typed';
  const error = dateTrouble(text);
  return error && `${error}; kept as typed`;
}

export function hintOf(variable: Variable, kind?: Kind): string {
  if (kind === 'legal_case' && variable === 'number') return 'docket number, or the court’s own: 13';
  if (isNameVariable(variable)) return 'Family, Given — one per line; {an institution} in braces';
  if (isDateVariable(variable)) return '1872-02-18, Feb 1872, 1871/1874, 1999–, c. 1870, 44 BC';
  return '';
}

/** What was typed may be meant in two ways: which way round its day and month stand, is asked. */
export function asksOf(variable: Variable, text: string): { value: string; says: string }[] {
  const readings = isDateVariable(variable) ? readingsOf(text, new Date().toISOString().slice(0, 10)) : [];
  // A day given by name (“yesterday”) is confirmed even though it has one reading only.
  return readings.length < 2 && !/^\p{L}+$/u.test(text.trim())
    ? []
    : readings.map((value) => ({ value, says: dateShort(parseDate(value)) }));
}
