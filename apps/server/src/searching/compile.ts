/**
 * Turns a query tree into SQL. All that text indexes can answer together becomes one tsquery; facets become one
 * array condition; what remains (phrases that may stand on a page, years, names of collections) is a condition of
 * its own. Every condition speaks of `m.source_id` or of the tables joined under the names below.
 */
import { sql, type SQL } from 'drizzle-orm';
import { fold, tokens } from '@pandecta/core/words';
import { parseYears, type Node, type QueryField } from '@pandecta/core/query';
import { findKinds, READING_STATES, type Presence } from '@pandecta/core/source';
import { normaliseDoi } from '@pandecta/core/identifiers';
import { array, rows, type Db } from '../database/connect.ts';
import { prefixOf, type TextField } from '../indexing/vector.ts';

export interface Scope {
  workspaceId: string;
  workspaceNumber: number;
  presence: Presence;
}

export interface Compiled {
  /** A tsquery every match must satisfy, in its text form; empty when there is none. */
  tsquery: string;
  /** Conditions besides it. */
  conditions: SQL[];
  /** What to rank by: any of the words asked for. */
  rank: string;
  /** The same words in titles, so that hits there come first. */
  titles: string;
}

const quote = (lexeme: string): string => `'${lexeme.replaceAll("'", "''")}'`;
const FIELDS: Partial<Record<QueryField, TextField>> = {
  author: 'author',
  title: 'title',
  abstract: 'abstract',
  journal: 'journal',
  note: 'note',
  page: 'page',
};
/** Matches nothing: a query of words none of which can be searched. */
const NOTHING = sql`false`;

export async function compile(db: Db, scope: Scope, tree: Node): Promise<Compiled> {
  const compiler = new Compiler(db, scope);
  const parts = tree.is === 'and' ? tree.parts : [tree];
  const texts: string[] = [];
  const conditions: SQL[] = [];
  for (const part of parts) {
    if (part.is === 'all') continue;
    const text = compiler.text(part);
    if (text) texts.push(text);
    else conditions.push(await compiler.condition(part));
  }
  return {
    tsquery: texts.join(' & '),
    conditions,
    rank: [...compiler.ranked]
      .map((s) => quote(prefixOf(scope.workspaceNumber, undefined, scope.presence) + s))
      .join(' | '),
    titles: [...compiler.ranked]
      .map((s) => quote(prefixOf(scope.workspaceNumber, 'title', scope.presence) + s))
      .join(' & '),
  };
}

class Compiler {
  readonly ranked = new Set<string>();

  constructor(
    private readonly db: Db,
    private readonly scope: Scope,
  ) {}

  /** The node as a tsquery over the vectors of sources, or undefined when it needs more than them. */
  text(node: Node, excluded = false): string | undefined {
    switch (node.is) {
      case 'word':
        return this.words(node.text, undefined, node.prefix, excluded);
      case 'field':
        return FIELDS[node.field] && !node.phrase
          ? this.words(node.text, FIELDS[node.field], false, excluded)
          : undefined;
      case 'not': {
        const inner = this.text(node.part, true);
        return inner && `!(${inner})`;
      }
      case 'and':
      case 'or': {
        const parts = node.parts.map((p) => this.text(p, excluded));
        return parts.every((p): p is string => p !== undefined)
          ? `(${parts.join(node.is === 'and' ? ' & ' : ' | ')})`
          : undefined;
      }
      default:
        return undefined;
    }
  }

  private words(
    text: string,
    field: TextField | undefined,
    prefix: boolean | undefined,
    excluded: boolean,
  ): string | undefined {
    const found = tokens(text);
    if (!found.length) return undefined;
    const lead = prefixOf(this.scope.workspaceNumber, field, this.scope.presence);
    return found
      .map((t, i) => {
        if (!excluded) this.ranked.add(t.stem);
        const whole = quote(lead + t.stem);
        if (!prefix || i < found.length - 1) return whole;
        return `(${whole} | ${quote(lead + fold(text.slice(t.start, t.end)))}:*)`;
      })
      .join(' & ');
  }

  async condition(node: Node): Promise<SQL> {
    const text = this.text(node);
    if (text) return sql`m.source_id in (select source_id from source_text where vector @@ ${text}::tsquery)`;
    switch (node.is) {
      case 'all':
        return sql`true`;
      case 'not':
        return sql`not (${await this.condition(node.part)})`;
      case 'and':
      case 'or': {
        const parts = await Promise.all(node.parts.map((p) => this.condition(p)));
        return sql`(${sql.join(parts, node.is === 'and' ? sql` and ` : sql` or `)})`;
      }
      case 'phrase':
        return this.phrase(node.text, undefined);
      case 'word':
        return NOTHING;
      case 'field':
        return this.field(node.field, node.text, node.phrase);
    }
  }

  /** A phrase stands in the record, or on a page. */
  private phrase(text: string, field: TextField | undefined): SQL {
    const stems = tokens(text).map((t) => t.stem);
    if (!stems.length) return NOTHING;
    const lead = prefixOf(this.scope.workspaceNumber, field, this.scope.presence);
    for (const s of stems) this.ranked.add(s);
    const run = stems.map((s) => quote(lead + s)).join(' <-> ');
    const inRecord = sql`m.source_id in (select source_id from source_text where vector @@ ${run}::tsquery)`;
    if (field && field !== 'page') return inRecord;
    const onPage = sql`m.source_id in (select sf.source_id from page_text p join source_files sf on sf.workspace_id = ${this.scope.workspaceId} and sf.file_id = p.file_id
      where p.vector @@ ${pageQuery(this.scope.workspaceNumber, stems)}::tsquery)`;
    return field === 'page' ? onPage : sql`(${inRecord} or ${onPage})`;
  }

  private async field(field: QueryField, text: string, phrase: boolean): Promise<SQL> {
    const textField = FIELDS[field];
    if (textField) return phrase ? this.phrase(text, textField) : NOTHING;
    switch (field) {
      case 'year': {
        const range = parseYears(text);
        if (!range) return NOTHING;
        return sql`m.year between ${range.from ?? -100_000} and ${range.to ?? 100_000}`;
      }
      case 'added': {
        const since = /^\d{4}(-\d{2}(-\d{2})?)?$/.exec(text)?.[0];
        return since
          ? sql`m.added >= ${`${since}${'-01-01'.slice(since.length === 4 ? 0 : since.length === 7 ? 3 : 6)}`}::timestamptz`
          : NOTHING;
      }
      case 'kind':
        return this.facet('kind', findKinds(text));
      case 'state': {
        const wanted = text.toLowerCase().replace(/[-_]/g, ' ').trim();
        return this.facet(
          'reading',
          READING_STATES.filter((s) => s === wanted || (wanted === 'unread' && s === 'to read')),
        );
      }
      case 'file': {
        const wanted = text.toLowerCase().trim();
        const states = {
          text: ['text'],
          yes: ['text', 'image only', 'other'],
          none: ['none'],
          no: ['none'],
          image: ['image only'],
        }[wanted];
        if (states) return this.facet('file', states);
        return sql`m.source_id in (select sf.source_id from source_files sf join files f on f.workspace_id = sf.workspace_id and f.id = sf.file_id
          where sf.workspace_id = ${this.scope.workspaceId} and f.name ilike ${`%${text.replace(/[\\%_]/g, '\\$&')}%`})`;
      }
      case 'tag':
      case 'subject':
        return this.tagged(text, phrase);
      case 'in':
        return this.facet('in', await this.collectionsNamed(text));
      case 'doi': {
        const doi = normaliseDoi(text);
        if (doi)
          return sql`m.source_id in (select source_id from source_keys where workspace_id = ${this.scope.workspaceId} and key = ${`doi:${doi}`})`;
        return sql`m.source_id in (select source_id from source_keys where workspace_id = ${this.scope.workspaceId} and key like ${`doi:${text.toLowerCase().replace(/[\\%_]/g, '\\$&')}%`})`;
      }
      default:
        return NOTHING;
    }
  }

  /** Names fold: "résumé" finds the tag "Resume"; without quotation marks the beginning of a name is enough. */
  private async tagged(text: string, phrase: boolean): Promise<SQL> {
    const all = await rows<{ id: string; name: string; subject: boolean }>(
      this.db,
      sql`select id, name, subject from tags where workspace_id = ${this.scope.workspaceId}`,
    );
    const wanted = fold(text);
    const exact = all.filter((t) => fold(t.name) === wanted);
    const found = exact.length || phrase || !wanted ? exact : all.filter((t) => fold(t.name).startsWith(wanted));
    const ids = (subject: boolean): string[] => found.filter((t) => t.subject === subject).map((t) => t.id);
    return sql`(${await this.facet('tag', ids(false))} or ${await this.facet('subject', ids(true))})`;
  }

  private async collectionsNamed(text: string): Promise<string[]> {
    const wanted = fold(
      text
        .split(/\s*[›>/]\s*/)
        .at(-1)!
        .trim(),
    );
    const all = await rows<{ id: string; name: string }>(
      this.db,
      sql`select id, name from collections where workspace_id = ${this.scope.workspaceId} and present`,
    );
    const exact = all.filter((c) => fold(c.name) === wanted);
    return (exact.length || !wanted ? exact : all.filter((c) => fold(c.name).startsWith(wanted))).map((c) => c.id);
  }

  async facet(type: string, keys: string[]): Promise<SQL> {
    const ids = await facetIds(
      this.db,
      this.scope.workspaceId,
      keys.map((k) => [type, k]),
    );
    return ids.length
      ? sql`m.source_id in (select source_id from source_facets where ids && ${array(ids, 'int')})`
      : NOTHING;
  }
}

export async function facetIds(db: Db, workspaceId: string, pairs: (readonly [string, string])[]): Promise<number[]> {
  if (!pairs.length) return [];
  const found = await rows<{ id: number }>(
    db,
    sql`
    select f.id from unnest(${array(
      pairs.map((p) => p[0]),
      'text',
    )}, ${array(
      pairs.map((p) => p[1]),
      'text',
    )}) as u(type, key)
    join facets f on f.workspace_id = ${workspaceId} and f.type = u.type and f.key = u.key`,
  );
  return found.map((f) => f.id);
}

/** A run of stems as a query over pages, which are indexed once, whatever becomes of their source. */
export function pageQuery(workspaceNumber: number, stems: string[], prefix = false): string {
  const lead = prefixOf(workspaceNumber, undefined, 'live');
  return stems.map((s, i) => quote(lead + s) + (prefix && i === stems.length - 1 ? ':*' : '')).join(' <-> ');
}
