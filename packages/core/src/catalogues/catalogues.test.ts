import { expect, test } from 'vitest';
import { inOneLine, PROTOCOLS, toCql } from './index.ts';

test('a question in CQL: words as they are, fields by their indexes, what would break it left out', () => {
  expect(toCql({ words: 'barrier closure' })).toBe('cql.serverChoice all "barrier closure"');
  expect(toCql({ words: 'barrier AND (gate OR sluice)', author: 'Okonjo', yearFrom: 1990 })).toBe(
    '(barrier AND (gate OR sluice)) and dc.creator all "Okonjo" and dc.date >= "1990"',
  );
  expect(toCql({ words: 'say "gate' })).toBe('(say  gate)');
  expect(toCql({ words: '', identifier: { kind: 'isbn', value: '9783161484100' } })).toBe('bath.isbn="9783161484100"');
  expect(inOneLine({ words: 'gate', author: 'Okonjo', yearTo: 1999 })).toBe('gate · author: Okonjo · –1999');
});

test('SRU: its address, its records in MODS, and what it says is wrong', () => {
  const url = new URL(PROTOCOLS['sru-1.2'].address('http://c.example/sru?db=a', { words: 'gate' }, 50, 25));
  expect(Object.fromEntries(url.searchParams)).toMatchObject({
    db: 'a',
    operation: 'searchRetrieve',
    version: '1.2',
    startRecord: '51',
    maximumRecords: '25',
    recordSchema: 'mods',
  });
  const answer = PROTOCOLS['sru-1.2'].read(
    '<zs:searchRetrieveResponse xmlns:zs="http://www.loc.gov/zing/srw/"><zs:numberOfRecords>42</zs:numberOfRecords><zs:records><zs:record><zs:recordData><mods xmlns="http://www.loc.gov/mods/v3"><titleInfo><title>Marsh edges</title></titleInfo><recordInfo><recordIdentifier>X1</recordIdentifier></recordInfo></mods></zs:recordData></zs:record></zs:records></zs:searchRetrieveResponse>',
  );
  expect(answer).toMatchObject({ total: 42, entries: [{ accession: 'X1', record: { title: 'Marsh edges' } }] });
  // After the SRU diagnostics list of the Library of Congress.
  const refused = PROTOCOLS['sru-1.1'].read(
    '<searchRetrieveResponse xmlns="http://www.loc.gov/zing/srw/"><numberOfRecords>0</numberOfRecords><diagnostics><diagnostic xmlns="http://www.loc.gov/zing/srw/diagnostic/"><uri>info:srw/diagnostic/1/16</uri><details>bath.isbn</details><message>Unsupported index</message></diagnostic></diagnostics></searchRetrieveResponse>',
  );
  expect(refused.refused).toBe('Unsupported index: bath.isbn');
});

test('OpenSearch: its template is filled in, its feed read with Dublin Core and PRISM', () => {
  expect(
    PROTOCOLS.opensearch.address(
      'http://c.example/?q={searchTerms}&s={startIndex?}&x={language?}',
      { words: 'gate & lock' },
      0,
      25,
    ),
  ).toBe('http://c.example/?q=gate%20%26%20lock&s=1&x=');
  const feed =
    '<feed xmlns="http://www.w3.org/2005/Atom" xmlns:os="o" xmlns:dc="d" xmlns:prism="p"><os:totalResults>7</os:totalResults><entry><id>urn:1</id><title>Marsh edges</title><dc:creator>Halvard, Runa</dc:creator><prism:publicationName>Coastal Processes</prism:publicationName><prism:volume>55</prism:volume><prism:startingPage>12</prism:startingPage><prism:publicationDate>2024-03</prism:publicationDate><link rel="alternate" href="https://doi.org/10.5555/edge"/></entry></feed>';
  expect(PROTOCOLS.opensearch.read(feed)).toMatchObject({
    total: 7,
    entries: [
      {
        accession: 'urn:1',
        record: {
          type: 'article-journal',
          volume: '55',
          page: '12',
          DOI: '10.5555/edge',
          issued: { 'date-parts': [[2024, 3]] },
        },
      },
    ],
  });
});

test('an answer that is none of the protocol is an error that says so', () => {
  for (const protocol of Object.values(PROTOCOLS)) {
    expect(() => protocol.read('<html><body>Sign in</body></html>')).toThrow();
    expect(() => protocol.read('garbage')).toThrow();
  }
});
