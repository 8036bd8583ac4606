/** The pages of The Sallow Packet: what a newspaper's site states of its articles, and what it leaves out. */
import { escapeXml } from '@pandecta/core/formats';
import { dateToEdtf, nameInverted, type SourceRecord } from '@pandecta/core/source';
import { everyEntry } from './shelf.ts';

export interface Page {
  path: string;
  html: string;
}

const page = (title: string, head: string, body: string): string =>
  `<!doctype html><html lang="en"><head><meta charset="utf-8"><title>${title} – The Sallow Packet</title>${head}</head><body><header>The Sallow Packet</header><main><article><h1>${title}</h1>${body}</article></main></body></html>`;

export const PAGES: Page[] = [
  {
    path: '/news/promise-of-1872',
    html: page(
      'Inquiry hears of the promise of 1872',
      '<meta property="og:site_name" content="The Sallow Packet"><meta property="og:title" content="Inquiry hears of the promise of 1872"><link rel="canonical" href="https://packet.sallow.example/news/promise-of-1872">',
      '<p class="byline">By Nadia Thornquay</p><p>The commissioners undertook in 1872 that no gate should be closed against the boats, the inquiry was told.</p>',
    ),
  },
  {
    path: '/news/gate-stays-open',
    html: page(
      'Gate stays open for the spring tides',
      '<script type="application/ld+json">{"@context":"https://schema.org","@type":"NewsArticle","headline":"Gate stays open for the spring tides","datePublished":"2026-11-20","author":[{"@type":"Person","name":"Caspar Wold"}],"publisher":{"@type":"Organization","name":"The Sallow Packet"}}</script>',
      '<p>The barrier board announced on Friday that the gate will not be closed before the equinox.</p>',
    ),
  },
  {
    path: '/science/edge-erosion',
    html: page(
      'Marsh-edge erosion in a regulated tide',
      '<meta name="citation_title" content="Marsh-edge erosion in a regulated tide"><meta name="citation_author" content="Halvard, Runa"><meta name="citation_author" content="Ito, Kenzo"><meta name="citation_journal_title" content="Coastal Processes"><meta name="citation_volume" content="55"><meta name="citation_issue" content="1"><meta name="citation_firstpage" content="12"><meta name="citation_lastpage" content="29"><meta name="citation_publication_date" content="2024/03"><meta name="citation_doi" content="10.5555/edge.2024.0012">',
      '<p>Edges retreat where the ebb is held back.</p>',
    ),
  },
];

/** The library's shelf of new titles: a page that lists works and says of each what it is (ANSI/NISO Z39.88, "COinS"). */
export function newOnTheShelf(days: number): string {
  const all = everyEntry('northmere').filter((e) => e.day <= days && e.record.type === 'book');
  const last = all.sort((a, b) => b.day - a.day || b.accession.localeCompare(a.accession)).slice(0, 8);
  return page(
    'New on the shelf',
    '',
    `<ul>${last.map(({ record: r }) => `<li><span class="Z3988" title="${escapeXml(coins(r))}"></span>${escapeXml(r.title ?? '')}</li>`).join('')}</ul>`,
  );
}

function coins(r: SourceRecord): string {
  const p = new URLSearchParams({
    ctx_ver: 'Z39.88-2004',
    rft_val_fmt: 'info:ofi/fmt:kev:mtx:book',
    'rft.genre': 'book',
  });
  const put = (name: string, value: string | undefined): void => void (value && p.append(`rft.${name}`, value));
  put('btitle', r.title);
  for (const n of r.author ?? []) put('au', nameInverted(n));
  put('date', r.issued && dateToEdtf(r.issued));
  put('pub', r.publisher);
  put('place', r['publisher-place']);
  put('isbn', r.ISBN);
  return p.toString();
}
