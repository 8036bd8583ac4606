/** What the fields of a query ask for that are told by the record, its keys, and how it came. */
import { sql, type SQL } from 'drizzle-orm';
import { keptCitationKey } from '@pandecta/core/citation-key';
import { normaliseDoi } from '@pandecta/core/identifiers';
import type { Condition } from '@pandecta/core/narrowing';
import { parseDays, parseYears, shifted, type DayRange } from '@pandecta/core/query';
import { ALL_KINDS, findKinds, KINDS } from '@pandecta/core/source';
import { wordSet } from '../columns/load.ts';
import { bareIdentifier, identifierPrefix } from '../database/lexemes.ts';
import { literally } from '../database/sql.ts';
import { chainFrom } from '../database/merged.ts';
import { namedFacet, NOTHING } from '../searching/facets.ts';
import type { FieldContext, FieldDefinition, FieldsOf } from '../searching/fields.ts';

const moment = (of: 'added' | 'changed'): FieldDefinition => ({
  condition(text) {
    const range = parseDays(text);
    return range ? { is: 'times', of, ...timesOf(range) } : NOTHING;
  },
});

const identifier = (field: Parameters<typeof bareIdentifier>[0]): FieldDefinition => ({
  condition(text, { scope, set }) {
    const bare = bareIdentifier(field, text);
    const lead = identifierPrefix(scope.workspaceNumber, field);
    return bare ? set(wordSet('fields', `'${lead}${bare}':*`)) : NOTHING;
  },
});

const stated = (key: string): FieldDefinition => ({ condition: (_, { facet }) => facet('has', [key]) });

export const sourceFields: FieldsOf<
  | 'year'
  | 'date'
  | 'added'
  | 'changed'
  | 'kind'
  | 'key'
  | 'doi'
  | 'isbn'
  | 'issn'
  | 'pmid'
  | 'pmcid'
  | 'number'
  | 'language'
  | 'until'
  | 'by'
  | 'from'
  | 'has:note'
  | 'has:abstract'
  | 'has:identifier'
  | 'has:date'
> = {
  year: {
    condition(text) {
      const range = parseYears(text);
      return range ? { is: 'years', ...range } : NOTHING;
    },
  },
  date: {
    condition(text, to) {
      const range = parseDays(text);
      return range ? issuedWithin(range, to) : NOTHING;
    },
  },
  added: moment('added'),
  changed: moment('changed'),
  kind: {
    condition: (text, { facet }) => facet('kind', findKinds(text)),
    suggest: async (_db, _actor, fits) => ALL_KINDS.map((k) => ({ value: KINDS[k].name })).filter((v) => fits(v.value)),
  },
  key: {
    condition(text, { scope: { workspaceId }, sources }) {
      const key = keptCitationKey(text.replace(/^@/, ''));
      const seed = sql`select source_id from source_keys where workspace_id = ${workspaceId} and key = ${key}`;
      return sources(sql`${chainFrom(workspaceId, seed)} select id from chain`);
    },
  },
  doi: {
    condition(text, { scope: { workspaceId }, sources }) {
      const doi = normaliseDoi(text);
      const key = doi ? sql`key = ${`doi:${doi}`}` : sql`key like ${`doi:${literally(text.toLowerCase())}%`}`;
      return sources(sql`select source_id from source_keys where workspace_id = ${workspaceId} and ${key}`);
    },
  },
  isbn: identifier('isbn'),
  issn: identifier('issn'),
  pmid: identifier('pmid'),
  pmcid: identifier('pmcid'),
  number: identifier('number'),
  language: namedFacet('language'),
  until: namedFacet('until'),
  by: namedFacet('by'),
  from: namedFacet('batch'),
  'has:note': stated('note'),
  'has:abstract': stated('abstract'),
  'has:identifier': stated('identifier'),
  // A range without ends holds every year there is.
  'has:date': { condition: () => ({ is: 'years' }) },
};

const DAY_MS = 86_400_000;

/** Milliseconds since 1970, the end left out. The last days are counted back from now. */
function timesOf(range: DayRange): { from?: number; before?: number } {
  if ('last' in range) return { from: Date.now() - range.last * DAY_MS };
  return {
    ...(range.from && { from: Date.parse(range.from) }),
    ...(range.to && { before: Date.parse(shifted(range.to, 1)) }),
  };
}

/** Sources whose date, as far as it is known, lies within: one of a year alone is asked for by that year. */
function issuedWithin(range: DayRange, { scope, set }: FieldContext): Condition {
  const days =
    'last' in range
      ? { from: new Date(Date.now() - range.last * DAY_MS).toISOString().slice(0, 10), to: undefined }
      : range;
  const number = (day: string): number => Number(day.replaceAll('-', ''));
  const year = (day: string): number => Number(day.slice(0, 4));
  const { from, to } = days;
  const part = (n: number, without: number): SQL =>
    sql`coalesce((p->>${sql.raw(String(n))})::int, ${sql.raw(String(without))})`;
  const issued = (month: number, day: number): SQL =>
    sql`(p->>0)::int * 10000 + ${part(1, month)} * 100 + ${part(2, day)}`;
  return set({
    query: sql`select ss.number from source_sort ss join sources s on s.workspace_id = ss.workspace_id and s.id = ss.source_id,
      lateral (select s.record->'issued'->'date-parts'->0) x(p)
      where ss.workspace_id = ${scope.workspaceId} and ss.year is not null
        and ${from ? sql`ss.year >= ${year(from)} and ${issued(1, 1)} >= ${number(from)}` : sql`true`}
        and ${to ? sql`ss.year <= ${year(to)} and ${issued(12, 31)} <= ${number(to)}` : sql`true`}`,
  });
}
