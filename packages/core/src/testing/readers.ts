/** Every reader of what comes in, with files of its own sort to be broken. */
import { readListing } from '../catalogues/index.ts';
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
/** Formats that are read and not written, and what lists works elsewhere. */
const PUBMED =
  '<?xml version="1.0"?><PubmedArticleSet><PubmedArticle><MedlineCitation><PMID Version="1">1000001</PMID><Article><Journal><ISSN>0028-0836</ISSN><JournalIssue><Volume>12</Volume><PubDate><Year>2009</Year><Month>Mar</Month><Day>4</Day></PubDate></JournalIssue><Title>Coastal processes</Title></Journal><ArticleTitle>Silt of <i>Zostera</i> beds.</ArticleTitle><Pagination><MedlinePgn>201-9</MedlinePgn></Pagination><ELocationID EIdType="doi">10.5555/silt</ELocationID><AuthorList><Author><LastName>Vance</LastName><ForeName>Ines M</ForeName></Author></AuthorList></Article><MeshHeadingList><MeshHeading><DescriptorName>Estuaries</DescriptorName></MeshHeading></MeshHeadingList></MedlineCitation></PubmedArticle></PubmedArticleSet>';
const JATS =
  '<?xml version="1.0"?><article article-type="research-article"><front><journal-meta><journal-title>Coastal Processes</journal-title></journal-meta><article-meta><article-id pub-id-type="doi">10.5555/edge</article-id><title-group><article-title>Marsh <italic>edges</italic></article-title></title-group><contrib-group><contrib contrib-type="author"><name><surname>Halvard</surname><given-names>Runa</given-names></name></contrib></contrib-group><pub-date pub-type="ppub"><month>3</month><year>2024</year></pub-date><fpage>12</fpage><lpage>29</lpage><abstract><p>Edges move.</p></abstract></article-meta></front><back><ref-list><ref><element-citation publication-type="book"><source>Gates</source><year>2014</year></element-citation></ref><ref><mixed-citation>Minutes.</mixed-citation></ref></ref-list></back></article>';
const FEED =
  '<?xml version="1.0"?><feed xmlns="http://www.w3.org/2005/Atom" xmlns:dc="http://purl.org/dc/elements/1.1/"><title>Results</title><entry><id>urn:x:1</id><title>Tides</title><author><name>Ida Vance</name></author><dc:date>1999-05</dc:date><dc:identifier>doi:10.5555/x</dc:identifier><link href="https://a.example/x.pdf" type="application/pdf"/></entry></feed>';
const LONGEST_QUESTION = 2000;

/** No file may make a reader stumble over an entry: that one costs no other is for what nobody thought of. */
function withoutStumbling({ messages }: { messages: { rule: string; line: number }[] }): void {
  const stumbled = messages.find((m) => m.rule === STUMBLED);
  if (stumbled) throw new Error(`the reader stumbled over the entry in line ${stumbled.line}`);
}

/** What is none of its kind is refused with a sentence, which is an error of no more special class. */
function orSentence(read: () => unknown): void {
  try {
    read();
  } catch (error) {
    if ((error as Error).constructor !== Error) throw error;
  }
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
  { name: 'pubmed', texts: [PUBMED], read: (t) => withoutStumbling(readAs('pubmed', t)) },
  { name: 'jats', texts: [JATS], read: (t) => withoutStumbling(readAs('jats', t)) },
  { name: 'feeds', texts: [FEED], read: (t) => orSentence(() => readListing('feed', t, 'https://a.example/')) },
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
