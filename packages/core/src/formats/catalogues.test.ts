/** Formats of libraries and of medicine, beside other programs and after the examples of their documentation. */
import { execFileSync } from 'node:child_process';
import { Marc } from 'marcjs';
import { describe, expect, test } from 'vitest';
import type { SourceRecord } from '../source/index.ts';
import { decodeText, readSources, writeSources } from './index.ts';

const first = (text: string): SourceRecord => readSources(text)!.sources[0]!.record;

const EDGES: SourceRecord = {
  type: 'article-journal',
  title: 'Marsh edges in a regulated tide',
  author: [{ family: 'Halvard', given: 'Runa Maud' }],
  'container-title': 'Coastal Processes',
  volume: '55',
  issue: '1',
  page: '12-29',
  issued: { 'date-parts': [[2024, 3]] },
  DOI: '10.5555/edge.2024',
};

describe('MEDLINE', () => {
  /** The elements as "MEDLINE/PubMed Data Element Descriptions" (National Library of Medicine) has them, from memory. */
  const NBIB = `PMID- 1000001
OWN - NLM
STAT- MEDLINE
IS  - 1234-5679 (Electronic)
IS  - 0028-0836 (Print)
VI  - 12
IP  - 3
DP  - 2009 Mar-Apr
TI  - [Silt in small estuaries, and the long
      way round].
PG  - 201-9
LID - 10.5555/silt.2009 [doi]
AB  - BACKGROUND: Silt.
FAU - Vance, Ines M
AU  - Vance IM
FAU - de la Mare, Jonas
CN  - Sallow Study Group
LA  - eng
PT  - Journal Article
TA  - Coast Proc
JT  - Coastal processes
MH  - *Estuaries
MH  - Geologic Sediments/*analysis
OT  - silt
PMC - PMC1234567

PMID- 1000002
TI  - Gates.
AU  - Okonjo MB Jr
DP  - 2010
`;
  test('is read field by field: lines that go on, pages cut short, DOIs among other numbers', () => {
    const { sources, messages } = readSources(NBIB)!;
    expect(messages).toEqual([]);
    expect(sources[0]).toMatchObject({
      record: {
        type: 'article-journal',
        title: 'Silt in small estuaries, and the long way round',
        author: [
          { family: 'Vance', given: 'Ines M' },
          { 'non-dropping-particle': 'de la', family: 'Mare', given: 'Jonas' },
          { literal: 'Sallow Study Group' },
        ],
        'container-title': 'Coastal processes',
        'container-title-short': 'Coast Proc',
        page: '201-209',
        issued: { 'date-parts': [[2009, 3]] },
        DOI: '10.5555/silt.2009',
        ISSN: '0028-0836',
        PMID: '1000001',
        PMCID: 'PMC1234567',
      },
      subjects: ['Estuaries', 'Geologic Sediments/analysis', 'silt'],
    });
    expect(sources[1]!.record.author).toEqual([{ family: 'Okonjo', given: 'M. B.', suffix: 'Jr' }]);
  });
});

describe('PubMed XML', () => {
  const XML = `<?xml version="1.0"?><!DOCTYPE PubmedArticleSet PUBLIC "-//NLM//DTD PubMedArticle, 1st January 2019//EN" "https://dtd.nlm.nih.gov/ncbi/pubmed/out/pubmed_190101.dtd">
<PubmedArticleSet><PubmedArticle><MedlineCitation Status="MEDLINE"><PMID Version="1">1000001</PMID>
<Article><Journal><ISSN IssnType="Print">0028-0836</ISSN><JournalIssue><Volume>12</Volume><Issue>3</Issue><PubDate><Year>2009</Year><Month>Mar</Month><Day>4</Day></PubDate></JournalIssue><Title>Coastal processes</Title><ISOAbbreviation>Coast Proc</ISOAbbreviation></Journal>
<ArticleTitle>Silt of <i>Zostera</i> beds.</ArticleTitle><Pagination><MedlinePgn>201-9</MedlinePgn></Pagination><ELocationID EIdType="doi">10.5555/silt.2009</ELocationID>
<Abstract><AbstractText Label="BACKGROUND">Silt.</AbstractText><AbstractText Label="METHODS">Cores.</AbstractText></Abstract>
<AuthorList><Author><LastName>Vance</LastName><ForeName>Ines M</ForeName><Initials>IM</Initials></Author><Author><CollectiveName>Sallow Study Group</CollectiveName></Author></AuthorList>
<Language>eng</Language><PublicationTypeList><PublicationType>Journal Article</PublicationType></PublicationTypeList></Article>
<MeshHeadingList><MeshHeading><DescriptorName>Estuaries</DescriptorName></MeshHeading></MeshHeadingList></MedlineCitation></PubmedArticle></PubmedArticleSet>`;

  test('is read with its markup, and as bibutils reads it', () => {
    const record = first(XML);
    expect(record).toMatchObject({
      title: 'Silt of <i>Zostera</i> beds',
      author: [{ family: 'Vance', given: 'Ines M' }, { literal: 'Sallow Study Group' }],
      issued: { 'date-parts': [[2009, 3, 4]] },
      page: '201-209',
      abstract: 'BACKGROUND: Silt. METHODS: Cores.',
    });
    const mods = execFileSync('med2xml', [], { input: XML, encoding: 'utf8', stdio: ['pipe', 'pipe', 'ignore'] });
    const theirs = readSources(mods)!.sources[0]!.record;
    for (const field of ['container-title', 'volume', 'issue', 'PMID', 'type'] as const)
      expect([field, record[field]?.toLowerCase()]).toEqual([field, theirs[field]?.toLowerCase()]);
  });
});

/** After the sample record of MARCXML's documentation (Library of Congress, "Sandburg"), shortened, from memory. */
const MARCXML = `<?xml version="1.0"?><collection xmlns="http://www.loc.gov/MARC21/slim"><record>
<leader>01142cam  2200301 a 4500</leader><controlfield tag="001">   92005291 </controlfield>
<controlfield tag="008">920219s1993    caua   j      000 0 eng  </controlfield>
<datafield tag="020" ind1=" " ind2=" "><subfield code="a">0152038655 :</subfield><subfield code="c">$15.95</subfield></datafield>
<datafield tag="100" ind1="1" ind2=" "><subfield code="a">Sandburg, Carl,</subfield><subfield code="d">1878-1967.</subfield></datafield>
<datafield tag="245" ind1="1" ind2="0"><subfield code="a">Arithmetic /</subfield><subfield code="c">Carl Sandburg ; illustrated as an anamorphic adventure by Ted Rand.</subfield></datafield>
<datafield tag="250" ind1=" " ind2=" "><subfield code="a">1st ed.</subfield></datafield>
<datafield tag="260" ind1=" " ind2=" "><subfield code="a">San Diego :</subfield><subfield code="b">Harcourt Brace Jovanovich,</subfield><subfield code="c">c1993.</subfield></datafield>
<datafield tag="300" ind1=" " ind2=" "><subfield code="a">1 v. (unpaged) :</subfield></datafield>
<datafield tag="650" ind1=" " ind2="0"><subfield code="a">Arithmetic</subfield><subfield code="x">Juvenile poetry.</subfield></datafield>
<datafield tag="700" ind1="1" ind2=" "><subfield code="a">Rand, Ted,</subfield><subfield code="e">ill.</subfield></datafield>
</record></collection>`;

describe('MARC', () => {
  test('is read without the marks cataloguing rules set between areas', () => {
    expect(readSources(MARCXML)!.sources[0]).toMatchObject({
      record: {
        type: 'book',
        title: 'Arithmetic',
        author: [{ family: 'Sandburg', given: 'Carl' }],
        illustrator: [{ family: 'Rand', given: 'Ted' }],
        edition: '1st ed.',
        'publisher-place': 'San Diego',
        publisher: 'Harcourt Brace Jovanovich',
        issued: { 'date-parts': [[1993]] },
        ISBN: '9780152038656',
        language: 'eng',
      },
      subjects: ['Arithmetic--Juvenile poetry'],
    });
  });

  test('an article names its host, in the words of either field', () => {
    const component = (subfields: string): string =>
      `<record xmlns="http://www.loc.gov/MARC21/slim"><leader>00000nab a2200000 i 4500</leader><datafield tag="245" ind1="0" ind2="0"><subfield code="a">Edges</subfield></datafield><datafield tag="773" ind1="0" ind2=" "><subfield code="t">Coastal Processes.</subfield>${subfields}</datafield></record>`;
    const wanted = { type: 'article-journal', volume: '24', issue: '2', page: '361-378' };
    expect(first(component('<subfield code="g">Vol. 24, no. 2 (June 2000), p. 361-378</subfield>'))).toMatchObject({
      ...wanted,
      issued: { 'date-parts': [[2000]] },
    });
    expect(first(component('<subfield code="g">Bd. 24, H. 2 (2000), S. 361-378</subfield>'))).toMatchObject(wanted);
    expect(first(component('<subfield code="q">24:2&lt;361</subfield>'))).toMatchObject({ ...wanted, page: '361' });
  });

  test('in ISO 2709 what we write is read by marcjs, and what marcjs writes by us', () => {
    const written = writeSources([{ record: EDGES, subjects: [] }], 'marc');
    const theirs = Marc.parse(Buffer.from(written), 'iso2709');
    expect(theirs.get('245').map((f) => f.subf[0]![1])).toEqual([EDGES.title]);
    expect(first(Marc.format(theirs, 'iso2709'))).toMatchObject({ title: EDGES.title, volume: '55', page: '12-29' });
    const ofXml = Marc.parse(MARCXML, 'marcxml');
    expect(first(Marc.format(ofXml, 'iso2709'))).toEqual(first(MARCXML));
  });

  test('in MARC-8 marks stand before their letters, and a record that breaks off costs no other', () => {
    const whole = writeSources([{ record: { type: 'book', title: 'Uber den Kies' }, subjects: [] }], 'marc');
    const bytes = Buffer.from(`${whole.replace('a2200', ' 2200')}${whole.slice(0, -3)}`, 'latin1');
    const umlaut = Buffer.concat([
      bytes.subarray(0, bytes.indexOf('Uber')),
      Buffer.from([0xe8]),
      bytes.subarray(bytes.indexOf('Uber')),
    ]);
    const { text, encoding } = decodeText(umlaut);
    const { sources, messages } = readSources(text)!;
    expect([encoding, sources.map((s) => s.record.title)]).toEqual(['MARC-8', ['Über den Kies']]);
    expect(messages).toMatchObject([{ rule: 'broken-entry', what: 'A record breaks off before its end' }]);
  });
});

describe('JATS', () => {
  const JATS = `<?xml version="1.0"?><!DOCTYPE article PUBLIC "-//NLM//DTD JATS (Z39.96) Journal Publishing DTD v1.2 20190208//EN" "JATS-journalpublishing1.dtd">
<article article-type="research-article" xml:lang="en"><front><journal-meta><journal-title-group><journal-title>Coastal Processes</journal-title></journal-title-group><issn pub-type="ppub">0028-0836</issn><publisher><publisher-name>Quillback Press</publisher-name></publisher></journal-meta>
<article-meta><article-id pub-id-type="doi">10.5555/edge.2024</article-id><title-group><article-title>Marsh edges of <italic>Spartina</italic><xref ref-type="fn">1</xref></article-title><subtitle>a tide regulated</subtitle></title-group>
<contrib-group><contrib contrib-type="author"><name><surname>Halvard</surname><given-names>Runa</given-names></name></contrib><contrib contrib-type="author"><collab>Sallow Study Group</collab></contrib></contrib-group>
<pub-date pub-type="epub"><year>2023</year></pub-date><pub-date pub-type="ppub"><day>4</day><month>3</month><year>2024</year></pub-date><volume>55</volume><issue>1</issue><fpage>12</fpage><lpage>29</lpage>
<abstract><title>Abstract</title><p>Edges move.</p></abstract><kwd-group><kwd>marsh</kwd></kwd-group></article-meta></front>
<body><sec><p>Edges <xref ref-type="bibr" rid="b1">[1]</xref>.</p></sec></body>
<back><ref-list><ref id="b1"><element-citation publication-type="journal"><person-group person-group-type="author"><name><surname>Vance</surname><given-names>Ines</given-names></name></person-group><article-title>Silt in small estuaries</article-title><source>Coastal Processes</source><year>2009</year><volume>12</volume><issue>3</issue><fpage>201</fpage><lpage>209</lpage></element-citation></ref>
<ref id="b2"><element-citation publication-type="book"><person-group person-group-type="author"><name><surname>Okonjo</surname><given-names>Marit</given-names></name></person-group><source>Who closes the gate</source><publisher-name>Quillback Press</publisher-name><year>2014</year></element-citation></ref>
<ref id="b3"><mixed-citation>Minutes, unpublished.</mixed-citation></ref></ref-list></back></article>`;

  test('gives the article, of its dates the one of the issue', () => {
    expect(readSources(JATS)!.sources).toMatchObject([
      {
        record: {
          type: 'article-journal',
          title: 'Marsh edges of <i>Spartina</i>: a tide regulated',
          author: [{ family: 'Halvard', given: 'Runa' }, { literal: 'Sallow Study Group' }],
          issued: { 'date-parts': [[2024, 3, 4]] },
          page: '12-29',
          abstract: 'Edges move.',
          language: 'en',
        },
        subjects: ['marsh'],
      },
    ]);
  });

  test('gives its list of references when asked, as pandoc reads it', async () => {
    const { collect, eachJatsReference } = await import('./index.ts');
    const { sources, messages } = collect(eachJatsReference(JATS));
    const theirs = JSON.parse(
      execFileSync('pandoc', ['-f', 'jats', '-t', 'csljson'], { input: JATS, encoding: 'utf8' }),
    ) as Record<string, unknown>[];
    const essence = (r: Record<string, unknown>): unknown => [
      r.title,
      r['container-title'] || undefined,
      r.volume || undefined,
      (r.author as { family?: string }[])[0]!.family,
      String((r.issued as { 'date-parts': unknown[][] })['date-parts'][0]![0]),
    ];
    expect(sources.map((s) => essence(s.record))).toEqual(theirs.filter((t) => t.title).map(essence));
    expect(messages).toMatchObject([{ rule: 'no-record', what: '“Minutes, unpublished.” names no title' }]);
  });
});

test('Dublin Core as a repository gives it (the form of OAI-PMH 2.0, from memory)', () => {
  const dc = `<oai_dc:dc xmlns:oai_dc="http://www.openarchives.org/OAI/2.0/oai_dc/" xmlns:dc="http://purl.org/dc/elements/1.1/"><dc:title>Marsh edges</dc:title><dc:creator>Halvard, Runa</dc:creator><dc:creator>Hydrographic Office</dc:creator><dc:subject>Marsh; Tide</dc:subject><dc:date>2024-03-04</dc:date><dc:type>info:eu-repo/semantics/article</dc:type><dc:identifier>https://repository.example/7</dc:identifier><dc:identifier>https://doi.org/10.5555/EDGE.2024</dc:identifier><dc:source>Coastal Processes; Vol. 55 No. 1 (2024): Edges; 12-29</dc:source><dc:source>0028-0836</dc:source><dc:language>en</dc:language></oai_dc:dc>`;
  expect(readSources(dc)!.sources[0]).toMatchObject({
    record: {
      type: 'article-journal',
      title: 'Marsh edges',
      author: [{ family: 'Halvard', given: 'Runa' }, { literal: 'Hydrographic Office' }],
      issued: { 'date-parts': [[2024, 3, 4]] },
      'container-title': 'Coastal Processes',
      volume: '55',
      issue: '1',
      page: '12-29',
      ISSN: '0028-0836',
      DOI: '10.5555/EDGE.2024',
      URL: 'https://repository.example/7',
    },
    subjects: ['Marsh', 'Tide'],
  });
});

describe('TEI', () => {
  /** After examples of the TEI P5 Guidelines, 3.12, from memory. */
  test('entries in parts and entries in one', () => {
    const tei = `<TEI xmlns="http://www.tei-c.org/ns/1.0"><text><listBibl>
<biblStruct xml:id="nelson1980"><analytic><author><persName><forename>T. H.</forename><surname>Nelson</surname></persName></author><title level="a">Replacing the printed word</title><title level="a" type="sub">a complete literary system</title></analytic><monogr><title level="m">Information Processing '80</title><editor>Lavington, Simon H.</editor><imprint><publisher>North-Holland</publisher><pubPlace>Amsterdam</pubPlace><date when="1980"/><biblScope unit="page" from="1013" to="1023">pp 1013–23</biblScope></imprint></monogr></biblStruct>
<bibl><author>Vance, Ines</author>, <title level="m">Silt</title> (<pubPlace>Sallow</pubPlace>: <publisher>Quillback Press</publisher>, <date>2009</date>), <biblScope unit="vol">2</biblScope>.</bibl>
<bibl>ibid.</bibl></listBibl></text></TEI>`;
    const { sources, messages } = readSources(tei)!;
    expect(sources.map((s) => s.record)).toMatchObject([
      {
        type: 'chapter',
        title: 'Replacing the printed word: a complete literary system',
        'container-title': "Information Processing '80",
        editor: [{ family: 'Lavington', given: 'Simon H.' }],
        page: '1013-1023',
        'citation-key': 'nelson1980',
      },
      { type: 'book', title: 'Silt', publisher: 'Quillback Press', volume: '2', issued: { 'date-parts': [[2009]] } },
    ]);
    expect(messages).toMatchObject([{ what: '“ibid.” names no title', line: 4 }]);
  });
});

describe('CSL-YAML', () => {
  test('what pandoc writes is read, and what we write pandoc reads', () => {
    const json = JSON.stringify([{ id: 'edge', ...EDGES }]);
    const theirs = execFileSync('pandoc', ['-f', 'csljson', '-t', 'markdown', '-s'], { input: json, encoding: 'utf8' });
    expect(first(theirs)).toMatchObject(EDGES);
    const ours = writeSources([{ record: EDGES, subjects: [] }], 'csl-yaml');
    const back = JSON.parse(
      execFileSync('pandoc', ['-f', 'markdown', '-t', 'csljson'], {
        input: ours.replace('...', '---'),
        encoding: 'utf8',
      }),
    ) as Record<string, unknown>[];
    expect(back).toMatchObject([{ title: EDGES.title, volume: '55', 'container-title': EDGES['container-title'] }]);
  });

  test('numbers and words stay as they are written; a broken item costs no other; aliases do not multiply', () => {
    const bomb = 'a: &a [x,x,x,x,x,x,x,x,x]\n  b: &b [*a,*a,*a,*a,*a,*a,*a,*a,*a]\n  c: [*b,*b,*b,*b,*b,*b,*b,*b,*b]';
    const { sources, messages } = readSources(
      `references:\n- id: one\n  type: book\n  title: No\n  volume: 1.10\n- id: two\n  title: "open\n- id: ${'bomb'}\n  ${bomb}\n- id: three\n  title: Three\n`,
    )!;
    expect(sources.map((s) => [s.record.title, s.record.volume])).toEqual([
      ['No', '1.10'],
      ['Three', undefined],
    ]);
    expect(messages.map((m) => [m.rule, m.line])).toEqual([
      ['broken-entry', 6],
      ['broken-entry', 8],
    ]);
  });
});
