/** What each field of a query asks for that asks for no words: told by facets, columns, keys and tables. */
import { sql, type SQL } from 'drizzle-orm';
import { keptCitationKey } from '@pandecta/core/citation-key';
import { HIGHEST_RATING, READING_STATES } from '@pandecta/core/changes';
import { normaliseDoi } from '@pandecta/core/identifiers';
import type { Condition } from '@pandecta/core/narrowing';
import { findRules } from '@pandecta/core/proofing';
import {
  fieldOf,
  parseDays,
  parseYears,
  shifted,
  valueMeant,
  type DayRange,
  type OtherField,
} from '@pandecta/core/query';
import { findKinds } from '@pandecta/core/source';
import { fold } from '@pandecta/core/words';
import { SOUND } from '../check/facets.ts';
import type { Db } from '../database/connect.ts';
import { literally } from '../database/sql.ts';
import { bareIdentifier, identifierPrefix } from '../indexing/vector.ts';
import { savedNamed, seenSet, watchesOf } from '../saved/store.ts';
import { chainFrom } from '../sources/merged.ts';
import { sourceSet, wordSet, type NumberSet } from './columns/load.ts';
import { anyFacet, collectionsNamed, facetIds, facetsNamed, NOTHING, type Scope } from './facets.ts';

/** What a field is told with. */
export interface Telling {
  db: Db;
  scope: Scope;
  set(set: NumberSet): Condition;
  /** What a saved search of this name asks for; undefined where there is none, or it would ask for itself. */
  saved(name: string): Promise<Condition | undefined>;
  /** What stands in any of these collections, with what is below them or without. */
  within(collections: string[], below: boolean): Promise<Condition>;
}

/** What `file:` asks for by a word; any other text is looked for in the names of files. */
const FILE_STATES: Partial<Record<string, string[]>> = {
  text: ['text'],
  yes: ['text', 'image only', 'other'],
  none: ['none'],
  no: ['none'],
  image: ['image only'],
};

/** @returns the condition; undefined where nothing here bears the name that is asked for */
export async function told(
  field: OtherField,
  text: string,
  exactly: boolean,
  to: Telling,
): Promise<Condition | undefined> {
  const { db, scope } = to;
  const { workspaceId } = scope;
  const facet = async (type: string, keys: string[]): Promise<Condition> =>
    anyFacet(
      await facetIds(
        db,
        scope,
        keys.map((k) => [type, k]),
      ),
    );
  const bySource = (ids: SQL): Condition => to.set(sourceSet(workspaceId, ids));
  switch (field) {
    case 'year': {
      const range = parseYears(text);
      return range ? { is: 'years', ...range } : NOTHING;
    }
    case 'rating': {
      const { from = 1, to = HIGHEST_RATING } = parseYears(text) ?? { from: HIGHEST_RATING + 1 };
      const wanted = Array.from({ length: HIGHEST_RATING }, (_, i) => i + 1).filter((r) => r >= from && r <= to);
      return facet('rating', wanted.map(String));
    }
    case 'date': {
      const range = parseDays(text);
      return range ? issuedWithin(range, to) : NOTHING;
    }
    case 'added':
    case 'changed': {
      const range = parseDays(text);
      return range ? { is: 'times', of: field, ...timesOf(range) } : NOTHING;
    }
    case 'kind':
      return facet('kind', findKinds(text));
    case 'finding':
      return facet('finding', fold(text) === 'none' ? [SOUND] : findRules(text));
    case 'is': {
      const meant = valueMeant('is', text);
      if (meant === 'again') return facet('again', ['yes']);
      if (meant === 'cited')
        return bySource(sql`select to_id from relations where workspace_id = ${workspaceId} and "as" = 'cites'`);
      return meant === 'starred' ? facet('star', ['yes']) : meant ? facet('loose', ['yes']) : NOTHING;
    }
    case 'has': {
      const meant = valueMeant('has', text);
      if (meant === 'file') return { is: 'not', part: await facet('file', ['none']) };
      if (meant === 'tag') return facet('tagged', ['yes']);
      // A range without ends holds every year there is.
      if (meant === 'date') return { is: 'years' };
      if (meant === 'relation')
        return bySource(sql`select unnest(array[from_id, to_id]) from relations where workspace_id = ${workspaceId}`);
      if (meant === 'mark' || meant === 'gloss') return facet('marked', [meant]);
      return meant ? facet('has', [meant]) : NOTHING;
    }
    case 'state': {
      const meant = valueMeant('state', text);
      if (meant === 'none') return { is: 'not', part: await facet('reading', [...READING_STATES]) };
      return meant ? facet('reading', [meant]) : NOTHING;
    }
    case 'file': {
      const states = FILE_STATES[text.toLowerCase().trim()];
      if (states) return facet('file', states);
      return bySource(sql`select sf.source_id from source_files sf join files f on f.workspace_id = sf.workspace_id and f.id = sf.file_id
          where sf.workspace_id = ${workspaceId} and f.name ilike ${`%${literally(text)}%`}`);
    }
    case 'key': {
      const key = keptCitationKey(text.replace(/^@/, ''));
      const seed = sql`select source_id from source_keys where workspace_id = ${workspaceId} and key = ${key}`;
      return bySource(sql`${chainFrom(workspaceId, seed)} select id from chain`);
    }
    case 'doi': {
      const doi = normaliseDoi(text);
      const key = doi ? sql`key = ${`doi:${doi}`}` : sql`key like ${`doi:${literally(text.toLowerCase())}%`}`;
      return bySource(sql`select source_id from source_keys where workspace_id = ${workspaceId} and ${key}`);
    }
    case 'isbn':
    case 'issn':
    case 'pmid':
    case 'pmcid':
    case 'number': {
      const bare = bareIdentifier(field, text);
      const lead = identifierPrefix(scope.workspaceNumber, field);
      return bare ? to.set(wordSet('fields', `'${lead}${bare}':*`)) : NOTHING;
    }
    case 'saved':
      return to.saved(text);
    case 'new': {
      // What is not watched has nothing that was not seen.
      const [found, condition] = await Promise.all([savedNamed(db, workspaceId, scope.member, text), to.saved(text)]);
      if (!found || !condition) return undefined;
      if (!(await watchesOf(db, { workspaceId, userId: scope.member })).has(found.id)) return NOTHING;
      return {
        is: 'and',
        parts: [condition, { is: 'not', part: to.set(seenSet(workspaceId, scope.member, found.id)) }],
      };
    }
    case 'in':
    case 'filed': {
      const found = await collectionsNamed(db, scope, text, exactly);
      return found.length ? to.within(found, field === 'in') : undefined;
    }
    case 'tag':
    case 'subject':
    case 'sense':
    case 'label':
    case 'language':
    case 'until':
    case 'by':
    case 'from': {
      const { asks } = fieldOf(field);
      const found = await facetsNamed(db, scope, 'facet' in asks ? asks.facet : field, text, exactly);
      return found.length ? anyFacet(found) : undefined;
    }
  }
}

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
function issuedWithin(range: DayRange, { scope, set }: Telling): Condition {
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
