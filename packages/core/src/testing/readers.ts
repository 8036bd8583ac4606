/** Every reader of what comes in, with files of its own sort to be broken. */
import { takeApart } from '../door/index.ts';
import { EXPORT_FORMATS, readAs, readSources, STUMBLED, writeSources, type Entry } from '../formats/index.ts';
import { readPage, snapshotOf, tooDeep } from '../pages/index.ts';
import { parseQuery } from '../query/index.ts';
import { eachReference } from '../references/index.ts';
import { isRdf, readSkos, readVocabularyTable } from '../vocabulary/index.ts';

export interface Reader {
  name: string;
  texts: string[];
  /** What goes wrong of itself is thrown. */
  read(text: string): unknown;
}

const HTML = `<html lang="en"><head><title>Tides</title><meta name="citation_title" content="Tides"><script type="application/ld+json">{"@type":"Article","name":"Tides","author":{"name":"Ida Vance"}}</script></head><body><article><h1>Tides</h1>${'<p>The ebb ran late <i>that</i> year.</p>'.repeat(20)}</article></body></html>`;
const SKOS =
  '@prefix skos: <http://www.w3.org/2004/02/skos/core#> . <a> a skos:Concept ; skos:prefLabel "silt"@en ; skos:broader <b> .';
const PRINTED = 'Vance, I. (1999). Tides of the estuary. Journal of Silt, 4(2), 1–20. https://doi.org/10.5555/x';
const LONGEST_QUESTION = 2000;

/** No file may make a reader stumble over an entry: that one costs no other is for what nobody thought of. */
function withoutStumbling({ messages }: { messages: { rule: string; line: number }[] }): void {
  const stumbled = messages.find((m) => m.rule === STUMBLED);
  if (stumbled) throw new Error(`the reader stumbled over the entry in line ${stumbled.line}`);
}

/** @param sources what the files of the formats hold */
export const readersOf = (sources: Entry[]): Reader[] => [
  ...EXPORT_FORMATS.map((format): Reader => {
    const text = writeSources(sources, format);
    const read = readSources(text)!.format;
    return { name: format, texts: [text], read: (t) => withoutStumbling(readAs(read, t)) };
  }),
  {
    name: 'any file',
    texts: EXPORT_FORMATS.map((f) => writeSources(sources, f)),
    read: (t) => withoutStumbling(readSources(t) ?? { messages: [] }),
  },
  {
    name: 'pages',
    texts: [HTML],
    read: (t) => tooDeep(t) || [readPage(t, 'https://a.example/'), snapshotOf(t, 'https://a.example/', 'today')],
  },
  { name: 'typed', texts: [PRINTED, `${PRINTED}\n\n10.5555/abc\n978-3-16-148410-0`], read: takeApart },
  { name: 'references', texts: [PRINTED, `${PRINTED}\n\n${PRINTED}`], read: (t) => [...eachReference(t)] },
  {
    name: 'questions',
    texts: ['title:(ebb OR "flood tide") -year:1990..2000 has:pdf', 'near("a" "b" 5) tag:x'],
    read: (t) => parseQuery(t.slice(0, LONGEST_QUESTION)),
  },
  {
    name: 'vocabularies',
    texts: [SKOS, 'name,meaning,broader\nsilt,fine,mud\n'],
    // What is no RDF is refused with a sentence.
    read: (t) => (isRdf(t) ? readSkos(t).catch((e: Error) => void e) : readVocabularyTable(t)),
  },
];
