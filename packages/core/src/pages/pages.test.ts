import { expect, test } from 'vitest';
import { readPage, snapshotOf, tooDeep, withoutTracking } from './index.ts';

const page = (head: string, body = ''): string =>
  `<!doctype html><html lang="en"><head>${head}</head><body>${body}</body></html>`;
const AT = 'https://packet.sallow.example/news/1?utm_source=mail';

test('the citation tags of a scholarly page', () => {
  const { record, subjects, provenance } = readPage(
    page(
      '<meta name="citation_title" content="Marsh edges"><meta name="citation_author" content="Halvard, Runa"><meta name="citation_author" content="Kenzo Ito"><meta name="citation_journal_title" content="Coastal Processes"><meta name="citation_volume" content="55"><meta name="citation_firstpage" content="12"><meta name="citation_lastpage" content="29"><meta name="citation_publication_date" content="2024/03/07"><meta name="citation_doi" content="10.5555/EDGE"><meta name="citation_keywords" content="erosion; tide"><meta property="og:title" content="Another title">',
    ),
    AT,
  );
  expect(record).toMatchObject({
    type: 'article-journal',
    title: 'Marsh edges',
    author: [
      { family: 'Halvard', given: 'Runa' },
      { family: 'Ito', given: 'Kenzo' },
    ],
    'container-title': 'Coastal Processes',
    volume: '55',
    page: '12-29',
    issued: { 'date-parts': [[2024, 3, 7]] },
    DOI: '10.5555/EDGE',
    language: 'en',
    URL: 'https://packet.sallow.example/news/1',
  });
  expect(subjects).toEqual(['erosion', 'tide']);
  expect(provenance.title).toEqual({ from: 'stated on the page', sure: 0.95 });
});

test('schema.org in JSON-LD, within a graph: a news article, and an article in its issue and volume', () => {
  const ld = (thing: object): string =>
    page(
      `<script type="application/ld+json">{broken</script><script type="application/ld+json">${JSON.stringify(thing)}</script>`,
    );
  const news = readPage(
    ld({
      '@graph': [
        { '@type': 'WebSite', name: 'x' },
        {
          '@type': ['NewsArticle'],
          headline: 'Gate stays open',
          author: { name: 'Caspar Wold' },
          datePublished: '2026-11-20T08:00:00Z',
          publisher: { name: 'The Sallow Packet' },
        },
      ],
    }),
    AT,
  );
  expect(news.record).toMatchObject({
    type: 'article-newspaper',
    title: 'Gate stays open',
    'container-title': 'The Sallow Packet',
    issued: { 'date-parts': [[2026, 11, 20]] },
  });
  const article = readPage(
    ld({
      '@type': 'ScholarlyArticle',
      name: 'Marsh edges',
      pageStart: 12,
      pageEnd: 29,
      sameAs: 'https://doi.org/10.5555/edge',
      isPartOf: {
        '@type': 'PublicationIssue',
        issueNumber: '1',
        isPartOf: {
          '@type': 'PublicationVolume',
          volumeNumber: 55,
          isPartOf: { '@type': 'Periodical', name: 'Coastal Processes', issn: '1050-124X' },
        },
      },
    }),
    AT,
  );
  expect(article.record).toMatchObject({
    type: 'article-journal',
    volume: '55',
    issue: '1',
    page: '12-29',
    'container-title': 'Coastal Processes',
    ISSN: '1050-124X',
    DOI: '10.5555/edge',
  });
});

test('Dublin Core with PRISM, and OpenURL in a span', () => {
  const dc = readPage(
    page(
      '<meta name="DC.title" content="Marsh edges"><meta name="DC.creator" content="Halvard, Runa"><meta name="DCTERMS.issued" content="2024"><meta name="prism.publicationName" content="Coastal Processes"><meta name="prism.volume" content="55"><meta name="DC.identifier" content="doi:10.5555/edge">',
    ),
    AT,
  );
  expect(dc.record).toMatchObject({
    title: 'Marsh edges',
    author: [{ family: 'Halvard', given: 'Runa' }],
    volume: '55',
    DOI: '10.5555/edge',
  });
  const span =
    '<span class="Z3988" title="ctx_ver=Z39.88-2004&amp;rft_val_fmt=info%3Aofi%2Ffmt%3Akev%3Amtx%3Ajournal&amp;rft.atitle=Marsh+edges&amp;rft.jtitle=Coastal+Processes&amp;rft.aulast=Halvard&amp;rft.aufirst=Runa&amp;rft.date=2024&amp;rft.volume=55&amp;rft.spage=12&amp;rft.epage=29&amp;rft_id=info%3Adoi%2F10.5555%2Fedge"></span>';
  expect(readPage(page('', span), AT).record).toMatchObject({
    type: 'article-journal',
    title: 'Marsh edges',
    page: '12-29',
    DOI: '10.5555/edge',
  });
  // A page that lists several offers them.
  expect(
    readPage(page('<title>Results</title>', span + span.replace('Marsh+edges', 'Other')), AT).items.map((i) => i.title),
  ).toEqual(['Marsh edges', 'Other']);
});

test('of a page that states nothing, what is seen on it', () => {
  const { record } = readPage(
    page(
      '<title>x</title><meta property="og:site_name" content="The Sallow Packet">',
      '<article><h1>Gate <i>open</i></h1><p class="byline">By Nadia Thornquay and Caspar Wold</p><time datetime="2026-11-20">Friday</time></article>',
    ),
    AT,
  );
  expect(record).toMatchObject({
    type: 'webpage',
    title: 'Gate open',
    'container-title': 'The Sallow Packet',
    author: [
      { given: 'Nadia', family: 'Thornquay' },
      { given: 'Caspar', family: 'Wold' },
    ],
    issued: { 'date-parts': [[2026, 11, 20]] },
  });
});

test('an address without what only tracks; other parameters stay as they stand', () => {
  expect(withoutTracking('https://a.example/x?id=7&utm_medium=a&fbclid=b#part')).toBe('https://a.example/x?id=7#part');
  expect(withoutTracking('https://a.example/x?q=a%20b&c')).toBe('https://a.example/x?q=a%20b&c');
  expect(withoutTracking('no address?utm_x=1')).toBe('no address?utm_x=1');
});

test('a page that nests deeper than any does is known before it is parsed', () => {
  expect([tooDeep('<div>'.repeat(2000)), tooDeep(page('', '<div>'.repeat(100)))]).toEqual([true, false]);
});

test('halves of characters, which a script can send, end neither the reading nor the keeping of a page', () => {
  const html = page('<title>Tides</title>', '<p>The \udc00\udc00 ebb \ud83d ran\ud83c\udf0a</p>');
  expect(readPage(html, AT).record.title).toBe('Tides');
  expect(snapshotOf(html, AT, 'today').text).toBe('Tides\nThe \ufffd\ufffd ebb \ufffd ran\ud83c\udf0a');
});
