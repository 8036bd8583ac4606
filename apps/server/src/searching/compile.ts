/**
 * Turns a query tree into a condition over columns. What a text index or a table must be asked becomes a set: a query
 * that gives the numbers of sources. All words that text indexes can answer together become one such query; facets,
 * years and days are told from the columns.
 */
import { sql, type SQL } from 'drizzle-orm';
import { fold, stemsBegunBy, tokens } from '@pandecta/core/words';
import {
  isTextField,
  parseYears,
  type Node,
  type OtherField,
  type QueryField,
  type TextField,
} from '@pandecta/core/query';
import type { Condition } from '@pandecta/core/narrowing';
import { READING_STATES, type Presence } from '@pandecta/core/changes';
import { findRules } from '@pandecta/core/proofing';
import { findKinds } from '@pandecta/core/source';
import { normaliseDoi } from '@pandecta/core/identifiers';
import type { Db } from '../database/connect.ts';
import { number, rows } from '../database/read.ts';
import { literally, table } from '../database/sql.ts';
import { SOUND } from '../check/facets.ts';
import { within } from '../database/within.ts';
import { collections } from '../places/tables.ts';
import { chainFrom } from '../sources/merged.ts';
import { tags } from '../tags/tables.ts';
import { keptAs } from '../indexing/facet.ts';
import { facetKind } from '../indexing/facets.ts';
import { prefixOf } from '../indexing/vector.ts';
import { wordSet, type NumberSet } from './columns/load.ts';

export interface Scope {
  workspaceId: string;
  workspaceNumber: number;
  presence: Presence;
  /** Who asks: what is each member's own is told of them. */
  member: string;
}

export interface Compiled {
  condition: Condition;
  /** Queries for the numbers of sources, by the place the condition names them by. */
  sets: NumberSet[];
  /** What to rank by, a tsquery: any of the words asked for. */
  rank: string;
  /** Those with all these words in their titles are ranked first; a set. */
  titles: NumberSet;
}

const quote = (lexeme: string): string => `'${lexeme.replaceAll("'", "''")}'`;
/** A word being typed that is shorter than this begins half of all words. */
const SHORT = 3;
/** Matches nothing: a query of words none of which can be searched. */
const NOTHING: Condition = { is: 'none' };
/** What `file:` asks for by a word; any other text is looked for in the names of files. */
const FILE_STATES: Partial<Record<string, string[]>> = {
  text: ['text'],
  yes: ['text', 'image only', 'other'],
  none: ['none'],
  no: ['none'],
  image: ['image only'],
};
const DAY = /^\d{4}(-\d{2}(-\d{2})?)?$/;

export async function compile(db: Db, scope: Scope, tree: Node): Promise<Compiled> {
  const compiler = new Compiler(db, scope);
  const condition = await compiler.all(tree.is === 'and' ? tree.parts : [tree]);
  const ranked = [...compiler.ranked.values()];
  const under = (field?: TextField): string[] => ranked.map((r) => r(prefixOf(scope.workspaceNumber, field)));
  return {
    condition,
    sets: compiler.sets,
    rank: under().join(' | '),
    titles: wordSet('fields', under('title').join(' & ')),
  };
}

/** A tsquery, given what its lexemes begin with. */
type Lexemes = (lead: string) => string;

const exactly =
  (stem: string): Lexemes =>
  (lead) =>
    quote(lead + stem);

/** The word itself, any that begins so, and any whose stem is shorter than what is typed of it. */
function begunBy(text: string, stem: string): Lexemes {
  const whole = [...new Set([stem, ...stemsBegunBy(text)])];
  return (lead) => `(${[...whole.map((s) => quote(lead + s)), `${quote(lead + fold(text))}:*`].join(' | ')})`;
}

const isShort = (node: Node & { is: 'word' }): boolean => Boolean(node.typed) && fold(node.text).length < SHORT;

class Compiler {
  /** What is asked for, each once: a lexeme, or several of which one is enough, under a prefix. */
  readonly ranked = new Map<string, Lexemes>();
  readonly sets: NumberSet[] = [];

  constructor(
    private readonly db: Db,
    private readonly scope: Scope,
  ) {}

  private set(set: NumberSet): Condition {
    return { is: 'set', set: this.sets.push(set) - 1 };
  }

  /** Source numbers by way of their ids. */
  private bySource(ids: SQL): Condition {
    const query = sql`select number from source_sort where workspace_id = ${this.scope.workspaceId} and source_id in (${ids})`;
    return this.set({ query });
  }

  /** All the parts, of which those that words answer are asked as one. */
  async all(parts: Node[]): Promise<Condition> {
    const wanted: string[] = [];
    const unwanted: string[] = [];
    const conditions: Condition[] = [];
    // Words left out go with words asked for: alone they would have the index read from end to end.
    const asked = parts.some((p) => p.is !== 'not' && this.text(p, true));
    for (const part of parts) {
      if (part.is === 'all') continue;
      const left = asked && part.is === 'not' ? this.text(part.part, true) : undefined;
      const text = left ?? this.text(part);
      if (left) unwanted.push(`!(${left})`);
      else if (text) wanted.push(text);
      else conditions.push(await this.condition(part));
    }
    if (wanted.length) conditions.unshift(this.set(wordSet('vector', [...wanted, ...unwanted].join(' & '))));
    return conditions.length ? { is: 'and', parts: conditions } : { is: 'all' };
  }

  /** The node as a tsquery over all words, or undefined when it needs more than them. */
  private text(node: Node, excluded = false): string | undefined {
    switch (node.is) {
      case 'word':
        return isShort(node) ? undefined : this.words(node.text, undefined, node.prefix, excluded);
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
    const lead = prefixOf(this.scope.workspaceNumber, field);
    return found
      .map((t, i) => {
        const lexemes =
          prefix && i === found.length - 1 ? begunBy(text.slice(t.start, t.end), t.stem) : exactly(t.stem);
        if (!excluded) this.ranked.set(lexemes(''), lexemes);
        return lexemes(lead);
      })
      .join(' & ');
  }

  async condition(node: Node, excluded = false): Promise<Condition> {
    switch (node.is) {
      case 'all':
        return { is: 'all' };
      case 'not':
        return { is: 'not', part: await this.condition(node.part, true) };
      case 'and':
        return excluded
          ? { is: 'and', parts: await Promise.all(node.parts.map((p) => this.condition(p, true))) }
          : this.all(node.parts);
      case 'or':
        return { is: 'or', parts: await Promise.all(node.parts.map((p) => this.condition(p, excluded))) };
      case 'phrase':
        return this.phrase(node.text, undefined, excluded);
      case 'word': {
        const text = this.words(node.text, undefined, node.prefix && !isShort(node), excluded);
        if (!text) return NOTHING;
        const whole = this.set(wordSet('vector', text));
        return isShort(node) ? { is: 'or', parts: [whole, this.begun(node.text)] } : whole;
      }
      case 'field':
        return this.field(node.field, node.text, node.phrase, excluded);
    }
  }

  /** Words of titles and names that begin so: those one means by one or two letters, and few enough to be told at once. */
  private begun(text: string): Condition {
    const fields = (['title', 'author'] as const).map((f) => prefixOf(this.scope.workspaceNumber, f));
    return this.set(wordSet('fields', fields.map((lead) => `${quote(lead + fold(text))}:*`).join(' | ')));
  }

  /** A phrase stands in the record, or on a page. */
  private phrase(text: string, field: TextField | undefined, excluded: boolean): Condition {
    const stems = tokens(text).map((t) => t.stem);
    if (!stems.length) return NOTHING;
    if (!excluded) for (const s of stems) this.ranked.set(quote(s), exactly(s));
    const run = (of?: TextField): string => {
      const lead = prefixOf(this.scope.workspaceNumber, of);
      return stems.map((s) => quote(lead + s)).join(' <-> ');
    };
    if (field && field !== 'page') return this.set(wordSet('fields', run(field)));
    const onPage = this
      .bySource(sql`select sf.source_id from page_text p join source_files sf on sf.workspace_id = ${this.scope.workspaceId} and sf.file_id = p.file_id
      where p.vector @@ ${run()}::tsquery`);
    return field === 'page' ? onPage : { is: 'or', parts: [this.set(wordSet('vector', run())), onPage] };
  }

  private async field(field: QueryField, text: string, phrase: boolean, excluded: boolean): Promise<Condition> {
    if (!isTextField(field)) return this.others[field](text, phrase);
    if (phrase) return this.phrase(text, field, excluded);
    const words = this.words(text, field, false, excluded);
    return words ? this.set(wordSet('fields', words)) : NOTHING;
  }

  /** What each field that does not ask for words asks for. */
  private readonly others: Record<OtherField, (text: string, phrase: boolean) => Condition | Promise<Condition>> = {
    year: (text) => {
      const range = parseYears(text);
      return range ? { is: 'years', ...range } : NOTHING;
    },
    added: (text) =>
      DAY.test(text) && !Number.isNaN(Date.parse(text)) ? { is: 'added', since: Date.parse(text) } : NOTHING,
    kind: (text) => this.facet('kind', findKinds(text)),
    key: (text) => {
      const key = `cite:${text.toLowerCase().replace(/^@/, '')}`;
      const seed = sql`select source_id from source_keys where workspace_id = ${this.scope.workspaceId} and key = ${key}`;
      return this.bySource(sql`${chainFrom(this.scope.workspaceId, seed)} select id from chain`);
    },
    finding: (text) => this.facet('finding', fold(text) === 'none' ? [SOUND] : findRules(text)),
    is: (text) => (fold(text) === 'starred' ? this.facet('star', ['yes']) : NOTHING),
    state: (text) => {
      const wanted = text.toLowerCase().replace(/[-_]/g, ' ').trim();
      return this.facet(
        'reading',
        READING_STATES.filter((s) => s === wanted || (wanted === 'unread' && s === 'to read')),
      );
    },
    file: (text) => {
      const states = FILE_STATES[text.toLowerCase().trim()];
      if (states) return this.facet('file', states);
      return this
        .bySource(sql`select sf.source_id from source_files sf join files f on f.workspace_id = sf.workspace_id and f.id = sf.file_id
          where sf.workspace_id = ${this.scope.workspaceId} and f.name ilike ${`%${literally(text)}%`}`);
    },
    tag: (text, phrase) => this.tagged(text, phrase),
    subject: (text, phrase) => this.tagged(text, phrase),
    in: async (text) => this.facet('in', await this.collectionsNamed(text)),
    doi: (text) => {
      const doi = normaliseDoi(text);
      const key = doi ? sql`key = ${`doi:${doi}`}` : sql`key like ${`doi:${literally(text.toLowerCase())}%`}`;
      return this.bySource(
        sql`select source_id from source_keys where workspace_id = ${this.scope.workspaceId} and ${key}`,
      );
    },
  };

  /** Names fold: "résumé" finds the tag "Resume"; without quotation marks the beginning of a name is enough. */
  private async tagged(text: string, phrase: boolean): Promise<Condition> {
    const { id, name, subject } = tags;
    const all = await within(this.db, this.scope.workspaceId).all(tags, { id, name, subject });
    const wanted = fold(text);
    const exact = all.filter((t) => fold(t.name) === wanted);
    const found = exact.length || phrase || !wanted ? exact : all.filter((t) => fold(t.name).startsWith(wanted));
    const pairs = found.map((t) => [t.subject ? 'subject' : 'tag', t.id] as const);
    return anyFacet(await facetIds(this.db, this.scope, pairs));
  }

  private async collectionsNamed(text: string): Promise<string[]> {
    const wanted = fold(
      text
        .split(/\s*[›>/]\s*/)
        .at(-1)!
        .trim(),
    );
    const { id, name, present } = collections;
    const all = await within(this.db, this.scope.workspaceId).all(collections, { id, name }, sql`${present}`);
    const exact = all.filter((c) => fold(c.name) === wanted);
    return (exact.length || !wanted ? exact : all.filter((c) => fold(c.name).startsWith(wanted))).map((c) => c.id);
  }

  private async facet(type: string, keys: string[]): Promise<Condition> {
    return anyFacet(
      await facetIds(
        this.db,
        this.scope,
        keys.map((k) => [type, k]),
      ),
    );
  }
}

/** Sources that bear at least one of these facets. */
export function anyFacet(ids: number[]): Condition {
  return ids.length ? { is: 'facets', ids } : NOTHING;
}

export async function facetIds(
  db: Db,
  { workspaceId, member }: Pick<Scope, 'workspaceId' | 'member'>,
  pairs: (readonly [type: string, key: string])[],
): Promise<number[]> {
  if (!pairs.length) return [];
  const kept = pairs.map(([type]) => {
    const kind = facetKind(type);
    return kind ? keptAs(kind, member) : type;
  });
  const found = await rows(
    db,
    { id: number },
    sql`select f.id from ${table('u', { type: ['text', kept], key: ['text', pairs.map((p) => p[1])] })}
    join facets f on f.workspace_id = ${workspaceId} and f.type = u.type and f.key = u.key`,
  );
  return found.map((f) => f.id);
}
