/**
 * What an entry takes from those it refers to by `crossref` and `xdata`. Source: BibLaTeX manual, appendix B; where
 * a file was written for BibTeX, whose children take fields under their own names, both come to the same.
 */
import type { Context } from './entry.ts';
import type { RawEntry, RawField } from './tokens.ts';

export type Fields = Map<string, RawField>;

/** Fields that say something of their own entry alone; a proceedings' DOI is not its papers'. */
const OWN = new Set([
  ...['crossref', 'xref', 'xdata', 'ids', 'entryset', 'entrysubtype', 'execute', 'label', 'options', 'presort'],
  ...['related', 'relatedoptions', 'relatedstring', 'relatedtype', 'shorthand', 'shorthandintro', 'sortkey', 'key'],
  ...[
    'shorttitle',
    'sorttitle',
    'indextitle',
    'indexsorttitle',
    'keywords',
    'abstract',
    'note',
    'annote',
    'annotation',
  ],
  ...['doi', 'url', 'urldate', 'eprint', 'eprinttype', 'eprintclass', 'archiveprefix', 'pmid', 'pmcid', 'file', 'csl'],
  ...['pages', 'pagetotal', 'howpublished', 'addendum'],
]);

const PART = /^(?:in(?:book|collection|proceedings|reference)|supp(?:book|collection)|bookinbook|conference)$/;
const IN_PERIODICAL = /^(?:article|suppperiodical)$/;
const VOLUMES = /^mv/;

export const isPart = (type: string): boolean => PART.test(type);

/** What the parent's title is to the child: its book, its journal, the whole of its volumes, or its own title. */
function titleBecomes(child: string, parent: string): string {
  if (VOLUMES.test(parent) && !VOLUMES.test(child)) return 'maintitle';
  if (isPart(child)) return 'booktitle';
  return IN_PERIODICAL.test(child) && parent === 'periodical' ? 'journaltitle' : 'title';
}

/** A longer chain of entries that refer on is none a person wrote. */
const LONGEST_CHAIN = 50;

/** The fields of an entry with those it inherits; a cycle ends where it closes. */
export function fieldsOf(entry: RawEntry, context: Context, seen: Set<RawEntry> = new Set()): Fields {
  const fields = ownFields(entry, context);
  seen.add(entry);
  for (const link of ['xdata', 'crossref']) {
    const named = fields.get(link);
    for (const key of named?.value.split(',') ?? []) {
      const parent = context.byKey.get(key.trim().toLowerCase());
      if (parent && !seen.has(parent) && seen.size < LONGEST_CHAIN) {
        const given = fieldsOf(parent, context, seen);
        if (link === 'xdata') take(fields, given);
        else inherit(fields, entry.type, given, parent.type);
      } else if (!parent)
        context.messages.push({
          severity: 'warning',
          rule: 'missing-crossref',
          ...context.lines.at(named!.offset),
          what: `The entry “${key.trim()}” it refers to is not in the file`,
          done: 'read without it',
        });
    }
  }
  return fields;
}

function ownFields(entry: RawEntry, context: Context): Fields {
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
  return fields;
}

function take(fields: Fields, given: Fields): void {
  for (const [name, field] of given) if (!fields.has(name) && !OWN.has(name)) fields.set(name, field);
}

function inherit(fields: Fields, type: string, given: Fields, parent: string): void {
  const title = titleBecomes(type, parent);
  // BibTeX's parents carry the title of the book in the field their children need, beside or instead of `title`.
  const named = fields.has(title) || (title !== 'title' && given.has(title));
  for (const [name, field] of given) {
    if (OWN.has(name)) continue;
    const ofTitle = /^(?:sub)?title(?:addon)?$/.test(name);
    if (ofTitle && named) continue;
    const as = ofTitle ? title.replace('title', '') + name : name;
    if (!fields.has(as)) fields.set(as, { ...field, name: as });
    if (name === 'author' && /book$/.test(type) && isPart(type) && !fields.has('bookauthor'))
      fields.set('bookauthor', { ...field, name: 'bookauthor' });
  }
}
