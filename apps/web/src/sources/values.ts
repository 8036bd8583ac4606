/** Values of a record as text, for showing records beside each other. */
import {
  ALL_KINDS,
  dateShort,
  isDateVariable,
  isNameVariable,
  KINDS,
  nameInverted,
  variablesOf,
  withoutMarkup,
  type DateValue,
  type Kind,
  type Name,
  type SourceRecord,
} from '@pandecta/core/source';
import { readReports, reportsToText } from '@pandecta/core/law';
import { formatDate } from '@pandecta/core/wording';

/** A value on one line; of several reports of a case each on one of its own. */
export function valueInWords(field: string, value: unknown): string {
  if (value === undefined || value === null) return '';
  if (field === 'type') return KINDS[value as Kind]?.name ?? String(value);
  if (isNameVariable(field)) return (value as Name[]).map(nameInverted).join('; ');
  if (isDateVariable(field)) return dateShort(value as DateValue);
  if (field === 'parallel') return reportsToText(readReports(String(value)), '\n');
  return typeof value === 'string' ? withoutMarkup(value) : JSON.stringify(value);
}

/** Fields in the order a catalogue card has them. */
export function inOrder(fields: readonly string[], record: SourceRecord): string[] {
  const order = ['title', 'author', 'editor', 'issued', 'container-title', 'volume', 'issue', 'page', 'publisher', ...variablesOf(record.type), 'DOI'] as string[]; // prettier-ignore
  const place = (f: string): number => {
    const at = order.indexOf(f);
    return f === 'type' ? 900 : f === 'abstract' || f === 'note' ? 999 : at < 0 ? 800 : at;
  };
  return [...fields].sort((x, y) => place(x) - place(y));
}

/** How a field is known. */
const FROM: Record<string, string> = {
  'document identifier': 'from the document',
  'embedded metadata': 'the file says so',
  'page layout': 'read from layout',
  'file name': 'guessed from the file’s name',
  'identifier registry': 'from the registry',
  catalogue: 'from the catalogue',
  'stated on the page': 'stated on the page',
  'printed reference': 'read from the text',
  import: 'came with the record',
  person: 'by hand',
};

export const originInWords = ({ from, sure }: { from: string; sure: number }): string =>
  `${FROM[from] ?? from}${sure < 1 ? `, ${Math.round(sure * 100)} % sure` : ''}`;

/** The day of a time as the server has it: "2027-03-01…" is 1 Mar 2027. */
export const dayInWords = (at: string): string => dateShort({ 'date-parts': [at.slice(0, 10).split('-').map(Number)] });

/** All kinds by their names, to choose from. */
export const KIND_CHOICES = ALL_KINDS.map((value) => ({ value, name: KINDS[value].name })).sort((a, b) =>
  a.name.localeCompare(b.name, 'en'),
);

const WEEK_MS = 7 * 86_400_000;
/** A time not long ago by the day of the week, an earlier one by its date: "Monday", "1 Mar 2027". */
export const sinceInWords = (at: string, now = Date.now()): string =>
  now - Date.parse(at) < WEEK_MS - 86_400_000 ? formatDate(at, 'this week') : dayInWords(at);
