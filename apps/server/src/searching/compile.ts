/**
 * Turns a query tree into a condition over columns. What a text index or a table must be asked becomes a set: a query
 * that gives the numbers of sources. All words that text indexes can answer together become one such query; facets,
 * years and days are told from the columns.
 */
import { eq, sql, type SQL } from 'drizzle-orm';
import type { Ask, LookIn } from '@pandecta/contract';
import type { Condition } from '@pandecta/core/narrowing';
import {
  fieldOf,
  isTextField,
  parseQuery,
  type FieldNode,
  type NearNode,
  type Node,
  type Note,
  type PhraseNode,
  type TextField,
  type WordNode,
} from '@pandecta/core/query';
import { fold, stemsBegunBy, tokens } from '@pandecta/core/words';
import type { Db } from '../database/connect.ts';
import { prefixOf, restPrefix } from '../database/lexemes.ts';
import { within } from '../database/within.ts';
import { documents } from '../indexing/tables.ts';
import { sourceSet, wordSet, type NumberSet } from '../columns/load.ts';
import { anyFacet, facetIds, included, inYears, NOTHING, pairOf, type FacetPair, type Scope } from './facets.ts';
import { conditionOf, NARROWINGS, type FieldContext } from './fields.ts';
import { spellOut } from './spelling.ts';

export interface Compiled {
  condition: Condition;
  /** Queries for the numbers of sources, by the place the condition names them by. */
  sets: NumberSet[];
  /** What to rank by, a tsquery: any of the words asked for. */
  rank: string;
  /** The prefixes of the lexemes this member can find where no field is named. */
  leads: string[];
  /** The tree as it was asked, with the close spellings there are. */
  tree: Node;
  /** What is asked for that nothing here bears: told beside where it stands. */
  unknown: { node: Node; says: string }[];
  /** Those with all these words in their titles are ranked first; a set. */
  titles: NumberSet;
}

/** Whether a member has documents that nobody else finds; without any, no question needs to ask for their words. */
const hasOwnDocuments = (db: Db, { workspaceId, userId }: Scope): Promise<boolean> =>
  within(db, workspaceId).has(documents, eq(documents.audience, userId));

const quote = (lexeme: string): string => `'${lexeme.replaceAll("'", "''")}'`;
/** A word being typed that is shorter than this begins half of all words. */
const SHORT = 3;

/** @param ask what is narrowed to, beside the words; without the range of years */
export async function compile(db: Db, scope: Scope, asked: Node, ask: Ask = {}): Promise<Compiled> {
  const tree = await spellOut(db, scope.workspaceId, asked);
  const compiler = new Compiler(db, scope, ask.look ?? 'all', await hasOwnDocuments(db, scope));
  const words = await compiler.all(tree.is === 'and' ? tree.parts : [tree]);
  const condition: Condition = { is: 'and', parts: [words, ...(await compiler.narrowing(ask))] };
  const ranked = [...compiler.ranked.values()];
  const under = (field?: TextField): string[] => compiler.leads(field).flatMap((lead) => ranked.map((r) => r(lead)));
  return {
    condition,
    sets: compiler.sets,
    rank: under().join(' | '),
    leads: compiler.leads(),
    tree,
    unknown: compiler.unknown,
    titles: wordSet('fields', under('title').join(' & ')),
  };
}

/** What stands in the text at what nothing here bears. */
export const notesOf = ({ unknown }: Compiled, spans: Map<Node, { start: number; end: number }>): Note[] =>
  unknown.flatMap(({ node, says }) => {
    const span = spans.get(node);
    return span ? [{ ...span, says }] : [];
  });

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

const isShort = (node: WordNode): boolean => Boolean(node.typed) && fold(node.text).length < SHORT;

/** What a word means in the index: itself, any that begins so, or any of its spellings. */
function meant(
  { text, prefix, spelt }: WordNode,
  t: { start: number; end: number; stem: string },
  isLast: boolean,
): Lexemes {
  if (prefix && isLast) return begunBy(text.slice(t.start, t.end), t.stem);
  if (!spelt?.length || !isLast) return exactly(t.stem);
  return (lead) => `(${[t.stem, ...spelt].map((s) => quote(lead + s)).join(' | ')})`;
}

/** Where words are looked for that name no field. */
const FIELDS_OF: Record<Exclude<LookIn, 'all'>, TextField[]> = {
  record: ['title', 'person', 'container', 'abstract'],
  pages: ['page'],
  notes: ['note'],
};

class Compiler {
  /** What is asked for, each once: a lexeme, or several of which one is enough, under a prefix. */
  readonly ranked = new Map<string, Lexemes>();
  readonly sets: NumberSet[] = [];
  readonly unknown: Compiled['unknown'] = [];
  /** The saved searches and the rules of collections it is within. */
  private readonly inside: string[] = [];
  private readonly vector: 'vector' | 'fields';
  /** The prefixes of lexemes to search under where the question names no field. */
  private readonly everywhere: string[];

  constructor(
    private readonly db: Db,
    private readonly scope: Scope,
    private readonly look: LookIn,
    /** Whether the member has documents that nobody else finds. */
    private readonly hasOwn: boolean,
  ) {
    this.vector = look === 'all' ? 'vector' : 'fields';
    this.everywhere = look === 'all' ? this.leads() : FIELDS_OF[look].flatMap((field) => this.leads(field));
    if (look === 'record') this.everywhere.push(restPrefix(scope.workspaceNumber));
    const { workspaceId } = scope;
    this.asking = {
      db,
      scope,
      facet: async (type, keys) =>
        anyFacet(
          await facetIds(
            db,
            scope,
            keys.map((key) => [type, key]),
          ),
        ),
      sources: (ids) => this.set(sourceSet(workspaceId, ids)),
      set: (set) => this.set(set),
      inner: (question) => this.inner(question),
    };
  }

  /** What fields and narrowings make their conditions with. */
  private readonly asking: FieldContext;

  /** The prefixes of the lexemes of a field, or of all fields: the one everyone searches, and this member's own. */
  leads(field?: TextField): string[] {
    const { workspaceNumber, userId } = this.scope;
    const own = this.hasOwn && (!field || field === 'note') ? [prefixOf(workspaceNumber, field, userId)] : [];
    return [prefixOf(workspaceNumber, field), ...own];
  }

  private set(set: NumberSet): Condition {
    return { is: 'set', set: this.sets.push(set) - 1 };
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
    if (wanted.length) conditions.unshift(this.set(wordSet(this.vector, [...wanted, ...unwanted].join(' & '))));
    return conditions.length ? { is: 'and', parts: conditions } : { is: 'all' };
  }

  /** The node as a tsquery over all words, or undefined when it needs more than them. */
  private text(node: Node, excluded = false): string | undefined {
    switch (node.is) {
      case 'word':
        return isShort(node) ? undefined : this.words(node, undefined, excluded);
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

  private words(node: WordNode, field: TextField | undefined, excluded: boolean): string | undefined {
    const found = tokens(node.text);
    if (!found.length) return undefined;
    const leads = field ? this.leads(field) : this.everywhere;
    return found
      .map((t, i) => {
        const lexemes = meant(node, t, i === found.length - 1);
        if (!excluded) this.ranked.set(lexemes(''), lexemes);
        const under = leads.map((lead) => lexemes(lead));
        return under.length > 1 ? `(${under.join(' | ')})` : under[0]!;
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
        return excluded ? { is: 'and', parts: await this.each(node.parts, true) } : this.all(node.parts);
      case 'or':
        return { is: 'or', parts: await this.each(node.parts, excluded) };
      case 'phrase':
        return this.run(node, undefined, excluded);
      case 'near':
        return this.near(node, excluded);
      case 'word': {
        const text = this.words(isShort(node) ? { ...node, prefix: false } : node, undefined, excluded);
        if (!text) return NOTHING;
        const whole = this.set(wordSet(this.vector, text));
        return isShort(node) ? { is: 'or', parts: [whole, this.begun(node.text)] } : whole;
      }
      case 'field':
        return this.field(node, excluded);
    }
  }

  /** One after another: which saved searches it is within holds for one part at a time. */
  private async each(parts: Node[], excluded: boolean): Promise<Condition[]> {
    const out: Condition[] = [];
    for (const part of parts) out.push(await this.condition(part, excluded));
    return out;
  }

  /** Words of titles and names that begin so: those one means by one or two letters, and few enough to be told at once. */
  private begun(text: string): Condition {
    const fields = (['title', 'person'] as const).flatMap((f) => this.leads(f));
    return this.set(wordSet('fields', fields.map((lead) => `${quote(lead + fold(text))}:*`).join(' | ')));
  }

  /** A run of words, one after another, as a tsquery under a prefix; undefined where nothing of it can be searched. */
  private runOf(node: PhraseNode | WordNode, excluded: boolean): Lexemes | undefined {
    const found = tokens(node.text);
    if (!found.length) return undefined;
    const each = found.map((t, i) => (node.is === 'word' ? meant(node, t, i === found.length - 1) : exactly(t.stem)));
    if (!excluded) for (const lexemes of each) this.ranked.set(lexemes(''), lexemes);
    return (lead) => each.map((lexemes) => lexemes(lead)).join(' <-> ');
  }

  private run(node: PhraseNode, field: TextField | undefined, excluded: boolean): Condition {
    const run = this.runOf(node, excluded);
    return run ? this.placed(run, field) : NOTHING;
  }

  /** Both within so many words: the second so far behind the first, or the other way where order does not matter. */
  private near({ left, right, within, ordered }: NearNode, excluded: boolean): Condition {
    const [l, r] = [this.runOf(left, excluded), this.runOf(right, excluded)];
    if (!l || !r) return NOTHING;
    const steps = Array.from({ length: within }, (_, i) => i + 1);
    return this.placed((lead) => {
      const after = (a: Lexemes, b: Lexemes): string[] => steps.map((n) => `((${a(lead)}) <${n}> (${b(lead)}))`);
      return [...after(l, r), ...(ordered ? [] : after(r, l))].join(' | ');
    });
  }

  /** Words that stand in places to one another: in the record, or on a page. */
  private placed(run: Lexemes, field?: TextField): Condition {
    const under = (leads: string[]): string => leads.map((lead) => `(${run(lead)})`).join(' | ');
    if (field && field !== 'page') return this.set(wordSet('fields', under(this.leads(field))));
    const places: Condition[] = [];
    if (!field && this.look !== 'pages') places.push(this.set(wordSet(this.vector, under(this.everywhere))));
    if (field || this.look === 'all' || this.look === 'pages')
      places.push(this.onPage(run(prefixOf(this.scope.workspaceNumber))));
    return places.length === 1 ? places[0]! : { is: 'or', parts: places };
  }

  private onPage(tsquery: string): Condition {
    const { workspaceId } = this.scope;
    const ids: SQL = sql`select sf.source_id from documents p join source_files sf on sf.workspace_id = ${workspaceId} and sf.file_id = p.id
      where p.kind = 'page' and p.vector @@ ${tsquery}::tsquery`;
    return this.set(sourceSet(workspaceId, ids));
  }

  private async field(node: FieldNode, excluded: boolean): Promise<Condition> {
    const { field, text, phrase } = node;
    if (isTextField(field)) {
      // As a list of people has it: “Okonjo, Marit” is one of them.
      const person =
        field === 'person' && /,/.test(text) ? await facetIds(this.db, this.scope, [['person', text]]) : [];
      if (person.length) return anyFacet(person);
      if (phrase) return this.run({ is: 'phrase', text }, field, excluded);
      const words = this.words({ is: 'word', text }, field, excluded);
      return words ? this.set(wordSet('fields', words)) : NOTHING;
    }
    const condition = await conditionOf(field, text, this.asking, phrase);
    if (!condition)
      this.unknown.push({ node, says: `Nothing here is called “${text}” under “${fieldOf(field).name}”` });
    return condition ?? NOTHING;
  }

  /** A question within the question; undefined where it would ask for itself. */
  private async inner({ id, ask }: { id: string; ask: Ask }): Promise<Condition | undefined> {
    if (this.inside.includes(id)) return undefined;
    this.inside.push(id);
    const tree = await spellOut(this.db, this.scope.workspaceId, parseQuery(ask.q ?? '').tree);
    const parts = [await this.condition(tree, true), ...(await this.narrowing(ask)), ...inYears(ask)];
    this.inside.pop();
    return { is: 'and', parts };
  }

  /** What is narrowed to beside the words: facets, the collection; the years are left out. */
  async narrowing(ask: Ask): Promise<Condition[]> {
    const out: Condition[] = [];
    for (const group of included(ask)) out.push(await this.any(group));
    const excluded = (ask.exclude ?? []).map(pairOf);
    if (excluded.length) out.push({ is: 'not', part: await this.any(excluded) });
    return out;
  }

  private async any(pairs: FacetPair[]): Promise<Condition> {
    const parts: Condition[] = [];
    for (const [type, narrowing] of Object.entries(NARROWINGS.all)) {
      const keys = pairs.filter((p) => p[0] === type).map((p) => p[1]);
      if (keys.length) parts.push(await narrowing(keys, this.asking));
    }
    const others = pairs.filter(([type]) => !(type in NARROWINGS.all));
    if (others.length || !parts.length) parts.push(anyFacet(await facetIds(this.db, this.scope, others)));
    return parts.length === 1 ? parts[0]! : { is: 'or', parts };
  }
}
