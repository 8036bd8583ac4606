import { execFileSync } from 'node:child_process';
import { expect, test } from 'vitest';
import { readSources, writeSources } from '../index.ts';
import { eachElement } from './tree.ts';

test('elements are given one after another, their text as one, whatever prefix they bear', () => {
  const found = [
    ...eachElement('<a xmlns:x="u"><x:b n="1">one\n <c>two</c></x:b><b>three &amp; &#x34;</b></a>', ['b']),
  ];
  expect(found.map((e) => [e.name, e.attributes.n, e.text, e.children.map((c) => c.text)])).toEqual([
    ['b', '1', 'one two', ['two']],
    ['b', undefined, 'three & 4', []],
  ]);
});

test('a file that declares entities, nests without end or breaks off is refused with the reason, after what was whole', () => {
  const bomb = '<!DOCTYPE a [<!ENTITY x "ha"><!ENTITY y "&x;&x;">]><a><b>&y;</b></a>';
  expect(() => [...eachElement(bomb, ['b'])]).toThrow('declares entities of its own');
  const outside = '<!DOCTYPE a [<!ENTITY x SYSTEM "file:///etc/passwd">]><a><b>&x;</b></a>';
  expect(() => [...eachElement(outside, ['b'])]).toThrow('declares entities of its own');
  expect(() => [...eachElement('<a>'.repeat(500), ['b'])]).toThrow('nest too deep');
  const torn: string[] = [];
  expect(() => {
    for (const e of eachElement('<a><b>whole</b><b>torn', ['b'])) torn.push(e.text);
  }).toThrow('line 1');
  expect(torn).toEqual(['whole']);
});

test('a file of MODS gives the records before the place it breaks, with a message', () => {
  const text = writeSources([{ record: { type: 'book', title: 'Whole' }, subjects: [] }], 'mods').replace(
    '</modsCollection>',
    '<mods><titleInfo>',
  );
  const { sources, messages } = readSources(text)!;
  expect(sources.map((s) => s.record.title)).toEqual(['Whole']);
  expect(messages[0]).toMatchObject({ severity: 'error', rule: 'broken-xml', done: 'what came before it was read' });
});

/** After an example of the MODS User Guidelines (Library of Congress), from memory: a journal article in its host. */
const GUIDELINES = `<mods xmlns="http://www.loc.gov/mods/v3" version="3.8">
 <titleInfo><nonSort>The </nonSort><title>urban question as a scale question</title><subTitle>reflections on Henri Lefebvre, urban theory and the politics of scale</subTitle></titleInfo>
 <name type="personal"><namePart type="given">Neil</namePart><namePart type="family">Brenner</namePart><role><roleTerm type="text">author</roleTerm></role></name>
 <typeOfResource>text</typeOfResource><genre authority="marcgt">article</genre>
 <language><languageTerm>eng</languageTerm></language>
 <relatedItem type="host"><titleInfo><title>International journal of urban and regional research</title></titleInfo><originInfo><issuance>continuing</issuance></originInfo>
 <part><detail type="volume"><number>24</number></detail><detail type="issue"><number>2</number><caption>no.</caption></detail><extent unit="pages"><start>361</start><end>378</end></extent><date>2000</date></part></relatedItem>
</mods>`;

test('MODS as its guidelines have it', () => {
  expect(readSources(GUIDELINES)!.sources[0]!.record).toMatchObject({
    type: 'article-journal',
    title:
      'The urban question as a scale question: reflections on Henri Lefebvre, urban theory and the politics of scale',
    author: [{ family: 'Brenner', given: 'Neil' }],
    'container-title': 'International journal of urban and regional research',
    volume: '24',
    issue: '2',
    page: '361-378',
    issued: { 'date-parts': [[2000]] },
  });
});

test('what we write as MODS is read by bibutils, and what bibutils writes is read by us', () => {
  const record = {
    type: 'article-journal' as const,
    title: 'Marsh edges in a regulated tide',
    author: [{ family: 'Halvard', given: 'Runa' }],
    'container-title': 'Coastal Processes',
    volume: '55',
    issue: '1',
    page: '12-29',
    issued: { 'date-parts': [[2024]] },
    DOI: '10.5555/edge.2024',
  };
  const bib = execFileSync('xml2bib', [], {
    input: writeSources([{ record, subjects: [] }], 'mods'),
    encoding: 'utf8',
  });
  expect(readSources(bib)!.sources[0]!.record).toMatchObject({ ...record, issue: '1' });
  const mods = execFileSync('bib2xml', [], {
    input: writeSources([{ record, subjects: [] }], 'bibtex'),
    encoding: 'utf8',
  });
  const { 'container-title': journal, ...rest } = record;
  expect(readSources(mods)!.sources[0]!.record).toMatchObject({ ...rest, 'container-title': journal });
});
