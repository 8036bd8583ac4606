/** Vocabularies from and to elsewhere. */
import fc from 'fast-check';
import { expect, test } from 'vitest';
import { isRdf, readSkos, readVocabularyTable, writeSkos, writeVocabularyTable, type Concept } from './index.ts';

/** After the SKOS Primer (W3C Working Group Note, 18 August 2009), 2.2 and 2.3, from memory: animals, mammals; love. */
const PRIMER = {
  turtle: `@prefix skos: <http://www.w3.org/2004/02/skos/core#> .
    @prefix rdf: <http://www.w3.org/1999/02/22-rdf-syntax-ns#> .
    @prefix ex: <http://www.example.com/> .
    ex:animals rdf:type skos:Concept ; skos:prefLabel "animals"@en , "animaux"@fr ; skos:narrower ex:mammals .
    ex:mammals rdf:type skos:Concept ; skos:prefLabel "mammals"@en ; skos:broader ex:animals ;
      skos:definition "Warm-blooded vertebrates"@en .
    ex:love rdf:type skos:Concept ; skos:prefLabel "love"@en ; skos:altLabel "adoration"@en .
    ex:abstract rdf:type skos:Collection ; skos:prefLabel "Abstract"@en ; skos:member ex:love .
    ex:scheme rdf:type skos:ConceptScheme ; skos:prefLabel "All of it"@en .`,
  xml: `<?xml version="1.0"?><rdf:RDF xmlns:rdf="http://www.w3.org/1999/02/22-rdf-syntax-ns#" xmlns:skos="http://www.w3.org/2004/02/skos/core#">
    <skos:Concept rdf:about="http://www.example.com/animals"><skos:prefLabel xml:lang="fr">animaux</skos:prefLabel>
      <skos:prefLabel xml:lang="en">animals</skos:prefLabel><skos:narrower rdf:resource="http://www.example.com/mammals"/></skos:Concept>
    <skos:Concept rdf:about="http://www.example.com/mammals"><skos:prefLabel xml:lang="en">mammals</skos:prefLabel>
      <skos:definition xml:lang="en">Warm-blooded vertebrates</skos:definition></skos:Concept>
    <skos:Concept rdf:about="http://www.example.com/love"><skos:prefLabel xml:lang="en">love</skos:prefLabel></skos:Concept>
    <skos:Collection rdf:about="http://www.example.com/abstract"><skos:prefLabel xml:lang="en">Abstract</skos:prefLabel>
      <skos:member rdf:resource="http://www.example.com/love"/></skos:Collection></rdf:RDF>`,
};

test.each(Object.entries(PRIMER))(
  'a vocabulary in %s is read with labels, definitions, groups and what is broader',
  async (_, text) => {
    expect(isRdf(text)).toBe(true);
    const { concepts, messages } = await readSkos(text);
    const nameOf = new Map(concepts.map((c) => [c.id, c.name]));
    expect(messages).toEqual([]);
    expect(concepts.map((c) => [c.name, c.says, c.heading, c.broader && nameOf.get(c.broader)]).sort()).toEqual([
    ['animals', '', '', null],
    ['love', '', 'Abstract', null],
    ['mammals', 'Warm-blooded vertebrates', '', 'animals'],
  ]); // prettier-ignore
  },
);

test('the label in the language wanted is taken, else one in none, else any', async () => {
  expect((await readSkos(PRIMER.turtle, 'fr')).concepts.find((c) => c.id.endsWith('animals'))!.name).toBe('animaux');
  expect((await readSkos(PRIMER.turtle, 'de')).concepts[0]!.name).toBe('animals');
});

const word = fc
  .string({ minLength: 1, maxLength: 12, unit: 'grapheme' })
  .map((s) => s.replace(/[\p{C}\p{Z}]/gu, '') || 'x');
/** What a spreadsheet would take for a formula, guarded or not. */
const formula = fc.constantFrom("'-", "''=", '=x', "'x", '+', "''x", '@a');
const vocabularies: fc.Arbitrary<Concept[]> = fc
  .uniqueArray(
    fc.record({
      name: word,
      says: fc.oneof(word, formula),
      heading: fc.oneof(fc.constant(''), word, formula),
      under: fc.nat(20),
    }),
    {
      maxLength: 8,
      selector: (c) => c.name.toLowerCase(),
    },
  )
  .map((all) =>
    all.map(({ under, ...c }, i) => ({ id: `urn:x:${i}`, ...c, broader: under < i ? `urn:x:${under}` : null })),
  );
const plain = (concepts: readonly Concept[]): unknown => {
  const nameOf = new Map(concepts.map((c) => [c.id, c.name]));
  return concepts
    .map(({ name, says, heading, broader }) => [name, says, heading, broader ? nameOf.get(broader) : null])
    .sort((a, b) => (JSON.stringify(a) < JSON.stringify(b) ? -1 : 1));
};

test('whatever a vocabulary holds, written as SKOS and as a table it is read as the same', async () => {
  await fc.assert(
    fc.asyncProperty(vocabularies, async (concepts) => {
      expect(plain((await readSkos(writeSkos(concepts))).concepts)).toEqual(plain(concepts));
      expect(plain(readVocabularyTable(writeVocabularyTable(concepts)).concepts)).toEqual(plain(concepts));
    }),
  );
});

test('a table is read by the names of its columns, whatever their order, or else by their places', () => {
  const of = (text: string): unknown => readVocabularyTable(text).concepts.map((c) => [c.name, c.says, c.heading, c.broader]); // prettier-ignore
  expect(of('Broader Term;Preferred label;Definition\nWater;Tide;It comes and goes\n')).toEqual([['Tide', 'It comes and goes', '', 'water']]); // prettier-ignore
  expect(of('\uFEFFTide\tIt comes and goes\nEbb\n')).toEqual([['Tide', 'It comes and goes', '', null], ['Ebb', '', '', null]]); // prettier-ignore
});
