/**
 * Collects what the capabilities declare and fills the registries of the folders that work with it. What is missing does not
 * compile here: a kind of change without its carrier, a field of the query without its condition, a field of a line that no
 * capability fills in, a list without its kind, a subject or a kind of document without its declaration.
 */
import { CARRIERS } from '../changes/carriers.ts';
import { findingFacets } from '../check/facets.ts';
import { fileFacets } from '../files/facets.ts';
import { MARKS_ON } from '../files/marks-on.ts';
import { numbersOf } from '../files/numbers.ts';
import { DOCUMENTS, PAGE_NUMBERS } from '../indexing/documents.ts';
import { FACETS, type Facets } from '../indexing/facet.ts';
import { intakeFacets } from '../intake/facets.ts';
import { LIST_KINDS } from '../lists/kinds.ts';
import { marksOn } from '../marks/coming.ts';
import { markFacets } from '../marks/facets.ts';
import { noteFacets } from '../notes/facets.ts';
import { ownFacets } from '../own/facets.ts';
import { placeFacets } from '../places/facets.ts';
import { inCollection } from '../places/subjects.ts';
import { PURGED } from '../records/purged.ts';
import { FIELDS, NARROWINGS } from '../searching/fields.ts';
import { LINE_PARTS, type LinePart, type PartField } from '../searching/line.ts';
import { comingFacets, peopleFacets, publishedFacets, sourceFacets } from '../sources/facets.ts';
import { stateFacets } from '../assessments/facets.ts';
import { IN_COLLECTION, SUBJECTS } from '../subjects/registry.ts';
import { tagFacets } from '../tags/facets.ts';
import { CAPABILITIES, DECLARED } from './capabilities.ts';

type Declared = (typeof DECLARED)[number];
type Brought<C, K extends string> = C extends Record<K, infer V> ? V : never;
type All<U> = (U extends unknown ? (one: U) => void : never) extends (all: infer I) => void ? I : never;

/** What the capabilities declare under a key, as one object: typed by all that is declared. */
function together<K extends 'changes' | 'subjects' | 'documents' | 'fields' | 'lists' | 'narrowings'>(
  key: K,
): All<Brought<Declared, K>> {
  return Object.assign({}, ...CAPABILITIES.map((c) => c[key])) as never;
}

type FieldsIn<P> = P extends LinePart<infer F> ? F : never;
type MissingField = Exclude<PartField, FieldsIn<Brought<Declared, 'line'>>>;
/** The parts of a line, where together they fill in all of its fields; otherwise the error names the missing field. */
const complete = (
  parts: [MissingField] extends [never] ? LinePart[] : { [F in MissingField]: LinePart<F> },
): LinePart[] => parts as unknown as LinePart[];

CARRIERS.fill(together('changes'));
SUBJECTS.fill(together('subjects'));
DOCUMENTS.fill(together('documents'));
PAGE_NUMBERS.fill(numbersOf);
MARKS_ON.fill(marksOn);
IN_COLLECTION.fill(inCollection);
FIELDS.fill(together('fields'));
NARROWINGS.fill(together('narrowings'));
LIST_KINDS.fill(together('lists'));
LINE_PARTS.fill(complete(CAPABILITIES.flatMap((c) => (c.line ? [c.line as LinePart] : []))));
// Reversed, so that the queue of the indexer is deleted from first: it takes its locks in that order.
PURGED.fill([...CAPABILITIES].reverse().flatMap((c) => c.purged ?? []));

/** In the order they are offered; what is not named here comes last. */
const OFFERED: Facets[] = [
  sourceFacets,
  tagFacets,
  stateFacets,
  ownFacets,
  fileFacets,
  peopleFacets,
  placeFacets,
  publishedFacets,
  markFacets,
  noteFacets,
  comingFacets,
  findingFacets,
  intakeFacets,
];
const placeOf = (facets: Facets): number => (OFFERED.includes(facets) ? OFFERED.indexOf(facets) : OFFERED.length);
FACETS.fill(CAPABILITIES.flatMap((c) => c.facets ?? []).sort((a, b) => placeOf(a) - placeOf(b)));
