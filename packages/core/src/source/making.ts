/** A record in the making: what is put first into a field stands, and nothing empty is put. */
import { plainDoi, normaliseIsbn, normaliseIssn } from '../identifiers/index.ts';
import { isBody } from './bodies.ts';
import { parseDate } from './dates.ts';
import type { Kind } from './kinds.ts';
import { parseName, type Name } from './names.ts';
import type { SourceRecord } from './record.ts';
import type { DateVariable, NameVariable, TextVariable } from './variables.ts';

const squeezed = (text: string): string => text.replace(/\s+/g, ' ').trim();

/** A name as pages and catalogues have it; a body is not taken apart. */
export const personOf = (text: string): Name => (isBody(text) ? { literal: text } : parseName(text));

export class Making {
  readonly record: Partial<SourceRecord> = {};
  readonly subjects: string[] = [];

  text(field: TextVariable, value: string | undefined): void {
    const v = value && squeezed(value);
    if (v && !this.record[field]) this.record[field] = v;
  }
  date(value: string | undefined, field: DateVariable = 'issued'): void {
    if (!value || this.record[field]) return;
    const day = value.replace(/(\d)T\d.*$/, '$1').trim();
    const date = parseDate(
      /^\d{4}(?:\/\d{1,2}){1,2}\/?$/.test(day) ? day.replace(/\/$/, '').replaceAll('/', '-') : day,
    );
    if (date) this.record[field] = date;
  }
  /** Names written out; all of a role at once. */
  people(role: NameVariable, names: (string | undefined)[]): void {
    this.names(
      role,
      names.map((n) => (n && squeezed(n) ? personOf(squeezed(n)) : {})),
    );
  }
  /** Names already taken apart, after those the role has. */
  names(role: NameVariable, names: Name[]): void {
    const some = names.filter((n) => Object.keys(n).length);
    if (some.length) this.record[role] = [...(this.record[role] ?? []), ...some];
  }
  /** A first and a last page, of which the last may be cut short: 123, 9. */
  pages(from: string | undefined, to?: string): void {
    if (from) this.text('page', to && to !== from ? `${from}-${to}` : from);
  }
  doi(value: string | undefined): void {
    this.text('DOI', value && plainDoi(value));
  }
  isbn(value: string | undefined): void {
    this.text('ISBN', value && normaliseIsbn(value.replace(/\s*[(:].*$/, '')));
  }
  issn(value: string | undefined): void {
    this.text('ISSN', value && normaliseIssn(value));
  }
  about(subjects: (string | undefined)[]): void {
    for (const s of subjects) if (s?.trim() && !this.subjects.includes(squeezed(s))) this.subjects.push(squeezed(s));
  }
  as(kind: Kind): SourceRecord {
    return { ...this.record, type: kind };
  }
}
