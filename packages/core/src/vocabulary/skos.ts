/**
 * Vocabularies as SKOS (W3C Recommendation, 18 August 2009): concepts with a preferred label, a definition and the concept
 * they are narrower than; groups are collections of members. Written as Turtle; read as Turtle, N-Triples or RDF/XML.
 */
import { DataFactory, Parser, Writer, type Quad, type Quad_Object, type Term } from 'n3';
import { RdfXmlParser } from 'rdfxml-streaming-parser';
import { MOST_CONCEPTS, type Concept, type ReadVocabulary } from './concept.ts';
import { formatNumber } from '../wording/index.ts';

const SKOS = 'http://www.w3.org/2004/02/skos/core#';
const RDF = 'http://www.w3.org/1999/02/22-rdf-syntax-ns#';
const RDFS_LABEL = 'http://www.w3.org/2000/01/rdf-schema#label';
const OWN = 'urn:uuid:';
const { namedNode, literal, quad } = DataFactory;

export function writeSkos(concepts: readonly Concept[], language = 'en'): string {
  const out = new Writer({ prefixes: { skos: SKOS } });
  const iri = (id: string) => namedNode(/^[\da-f-]{36}$/i.test(id) ? `${OWN}${id}` : id);
  const is = (s: string, p: string, o: Quad_Object): void =>
    out.addQuad(quad(iri(s), namedNode(p.startsWith('http') ? p : `${SKOS}${p}`), o));
  const groups = new Map<string, string[]>();
  for (const { id, name, says, heading, broader } of concepts) {
    is(id, `${RDF}type`, namedNode(`${SKOS}Concept`));
    is(id, 'prefLabel', literal(name, language));
    if (says) is(id, 'definition', literal(says, language));
    if (broader) {
      is(id, 'broader', iri(broader));
      is(broader, 'narrower', iri(id));
    }
    if (heading) groups.set(heading, [...(groups.get(heading) ?? []), id]);
  }
  [...groups].forEach(([heading, members], i) => {
    const group = `urn:pandecta:heading:${i + 1}`;
    is(group, `${RDF}type`, namedNode(`${SKOS}Collection`));
    is(group, 'prefLabel', literal(heading, language));
    for (const member of members) is(group, 'member', iri(member));
  });
  let text = '';
  out.end((_, result) => (text = result));
  return text;
}

/** Of several labels the one in this language, then one in no language, then any. */
function labelled(labels: { value: string; language: string }[], language: string): string | undefined {
  const rank = (l: { language: string }): number => (l.language.startsWith(language) ? 0 : l.language ? 2 : 1);
  return [...labels].sort((a, b) => rank(a) - rank(b) || (a.value < b.value ? -1 : 1))[0]?.value;
}

/** @throws Error with where the text is no RDF */
export async function readSkos(text: string, language = 'en'): Promise<ReadVocabulary> {
  const quads = /^\s*(?:<\?xml|<!DOCTYPE|<rdf:)/i.test(text) ? await readXml(text) : readTurtle(text);
  const said = new Map<string, Map<string, Term[]>>();
  for (const { subject, predicate, object } of quads) {
    const of = said.get(subject.value) ?? new Map<string, Term[]>();
    said.set(subject.value, of.set(predicate.value, [...(of.get(predicate.value) ?? []), object]));
  }
  const all = (id: string, property: string): Term[] => said.get(id)?.get(property) ?? [];
  const is = (id: string, kind: string): boolean => all(id, `${RDF}type`).some((t) => t.value === `${SKOS}${kind}`);
  const words = (id: string, ...properties: string[]): string | undefined => {
    for (const property of properties) {
      const found = all(id, property).flatMap((t) =>
        t.termType === 'Literal' ? [{ value: t.value.trim(), language: t.language }] : [],
      );
      const label = labelled(
        found.filter((l) => l.value),
        language,
      );
      if (label) return label;
    }
    return undefined;
  };
  const headings = new Map<string, string>();
  const above = new Map<string, string>();
  for (const id of said.keys()) {
    const heading =
      is(id, 'Collection') || is(id, 'OrderedCollection') ? words(id, `${SKOS}prefLabel`, RDFS_LABEL) : '';
    if (heading) for (const member of all(id, `${SKOS}member`)) headings.set(member.value, heading);
    for (const below of all(id, `${SKOS}narrower`)) above.set(below.value, id);
  }
  const messages: string[] = [];
  const concepts: Concept[] = [];
  for (const id of said.keys()) {
    if (!is(id, 'Concept') && !all(id, `${SKOS}prefLabel`).length) continue;
    if (is(id, 'Collection') || is(id, 'OrderedCollection') || is(id, 'ConceptScheme')) continue;
    const name = words(id, `${SKOS}prefLabel`, RDFS_LABEL);
    if (!name) messages.push(`${id} has no label and was left out`);
    else if (concepts.length >= MOST_CONCEPTS) {
      messages.push(`Only the first ${formatNumber(MOST_CONCEPTS)} concepts were read`);
      break;
    } else
      concepts.push({
        id,
        name,
        says: words(id, `${SKOS}definition`, `${SKOS}scopeNote`) ?? '',
        heading: headings.get(id) ?? '',
        broader: all(id, `${SKOS}broader`)[0]?.value ?? above.get(id) ?? null,
      });
  }
  return { concepts, messages };
}

const readTurtle = (text: string): Quad[] => new Parser().parse(text);

function readXml(text: string): Promise<Quad[]> {
  return new Promise((resolve, reject) => {
    const quads: Quad[] = [];
    const parser = new RdfXmlParser();
    parser.on('data', (q: Quad) => quads.push(q));
    parser.on('error', reject);
    parser.on('end', () => resolve(quads));
    parser.write(text);
    parser.end();
  });
}
